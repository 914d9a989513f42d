import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { STATE_SAYS } from "../../domain/rotation";

/** The end of a change: what became of both secrets, and what is next. */
export function RotationEnded({ rotation }: { rotation: Schema["RotationOut"] }) {
  const done = rotation.state === "verified";
  const campaigns = useQuery(queries.campaigns()).data ?? [];
  const places = campaigns.find((c) => c.places.some((p) => p.login_id === rotation.login_id));
  const next = places?.places.find(
    (p) => p.standing !== "done" && p.rotation_id && p.rotation_id !== rotation.rotation_id,
  );
  const sheet = `/logins/${rotation.login_id}`;
  const found = useQuery(queries.findingsOf(rotation.login_id)).data ?? [];
  const kinds = new Set(found.map((finding) => finding.kind));
  const left = [
    {
      kind: "no_second_factor",
      says: "set up its second factor",
      to: sheet,
      state: { setUp: true },
    },
    { kind: "plain_http", says: "correct its address", to: `${sheet}/edit`, state: null },
  ].filter((need) => kinds.has(need.kind as Schema["FindingKind"]));
  return (
    <div className="stack gap-12">
      <p>
        <b>{done ? "Done." : "Given up."}</b> It is {STATE_SAYS[rotation.state]}.
      </p>
      <p>
        {done
          ? rotation.is_sign_up
            ? "The secret opens the site and is the login's current one."
            : "The new secret is known to open the site. The old one lies in the login's history, with the days it served, until you let it go."
          : "What was current stayed so. The secret that was staged lies in the history, marked never used."}
      </p>
      {left.length > 0 && (
        <p role="status">
          <b>This login needs more:</b>{" "}
          {left.map((need, i) => (
            <span key={need.says}>
              {i > 0 && ", "}
              <Link to={need.to} state={need.state}>
                {need.says}
              </Link>
            </span>
          ))}
          .
        </p>
      )}
      <p className="row">
        {next ? (
          <Link to={`/rotate/${next.rotation_id}`} className="plain-button">
            Next of the campaign: {next.title}
          </Link>
        ) : (
          <Link to="/" className="plain-button">
            Next on the worklist
          </Link>
        )}
        <Link to={sheet}>its login, and its history</Link>
        {places && <Link to="/rotate">the campaign</Link>}
      </p>
    </div>
  );
}
