import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { queries } from "../../api/queries";
import { policySentence, type Policy } from "../../domain/policy";
import { day } from "../../domain/moments";

const SOURCES: Record<string, string> = {
  typed: "typed",
  form: "read from its form",
  refusal: "learned from a refusal",
};

/** What the site of a login takes, where that is known. */
export function SiteTakes({ loginId }: { loginId: string }) {
  const { data } = useQuery(queries.policies());
  if (!data) return null;
  const own = data.policies.find((one) => one.used_by.some((u) => u.login_id === loginId));
  return (
    <section aria-label="What this site takes">
      <h2>What this site takes</h2>
      {own ? (
        <p className="small">
          {policySentence(own.policy as Policy)}{" "}
          <span className="quiet">
            {SOURCES[own.source] ?? own.source}, {day(own.changed_at)}.
          </span>{" "}
          <Link to="/policies">change</Link>
        </p>
      ) : (
        <p className="small quiet">
          No policy of this site is known: the usual one is drawn to.{" "}
          <Link to="/policies">Write one down</Link>
        </p>
      )}
    </section>
  );
}
