import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { queries } from "../../api/queries";
import { CORD_LABELS } from "../../domain/findings";
import { count } from "../../domain/moments";

const LISTED_MOST = 200;

/** All that falls if a login falls, nearest first, step by step. */
export function FallsWith({ loginId, title }: { loginId: string; title: string }) {
  const { data } = useQuery(queries.reachOf(loginId));
  const falls = data ?? [];
  return (
    <>
      <h2>
        With <Link to={`/logins/${loginId}`}>{title}</Link>{" "}
        {falls.length ? `fall ${count(falls.length, "other")}` : "falls nothing else"}
      </h2>
      <div
        role="group"
        tabIndex={0}
        aria-label="What falls, nearest first"
        className="reach-page-what-falls-nearest"
      >
        <ol className="small reach-page-small">
          {falls.slice(0, LISTED_MOST).map((f) => (
            <li key={f.login_id}>
              {f.title}: {CORD_LABELS[f.by]}
              {f.after_title && `, after ${f.after_title}`}
            </li>
          ))}
        </ol>
        {falls.length > LISTED_MOST && (
          <p className="small quiet">
            and {(falls.length - LISTED_MOST).toLocaleString("en")} more
          </p>
        )}
      </div>
    </>
  );
}
