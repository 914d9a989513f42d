import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { queries } from "../../api/queries";
import { FINDING_LABELS } from "../../domain/findings";
import { count } from "../../domain/moments";
import { FindingShape } from "../../shared/icons";
import { ProblemNote } from "../../shared/ProblemNote";
import { useRotate } from "../../shared/useRotate";

const SHOWN = 4;

/** The first logins of the worklist that want a new secret for themselves, not as one of a group. */
export function NextToRotate() {
  const worklist = useQuery(queries.workRows(null, 0)).data;
  const rotate = useRotate();
  const next = (worklist?.rows ?? [])
    .filter((row) => row.kind === "login" && !row.rotation_id && row.needs[0] === "new_secret")
    .slice(0, SHOWN);
  if (!worklist || next.length === 0) return null;
  return (
    <section className="below-28" aria-labelledby="next-to-rotate">
      <h2 id="next-to-rotate" className="below-6">
        Next to rotate
      </h2>
      <ol className="next-to-rotate">
        {next.map(({ row_id, login_id, title, user_name, findings: [lead] }) => (
          <li key={row_id}>
            {lead && <FindingShape kind={lead.kind} />}
            <span className="next-why">
              <Link to={`/logins/${login_id}`}>
                <b>{title}</b>
              </Link>{" "}
              <span className="quiet small">{user_name}</span>
              {lead && (
                <span className="sub">
                  <span className="visually-hidden">{FINDING_LABELS[lead.kind]}: </span>
                  {lead.evidence}
                </span>
              )}
            </span>
            <button
              type="button"
              className="act"
              aria-label={["Rotate " + title, user_name].filter(Boolean).join(", ")}
              disabled={rotate.isPending}
              onClick={() => login_id && rotate.mutate(login_id)}
            >
              Rotate
            </button>
          </li>
        ))}
      </ol>
      <ProblemNote problem={rotate.error} />
      <p className="small">
        <Link to="/?facet=new_secret">{count(worklist.by_need.new_secret ?? 0, "login")}</Link> in
        all want a new secret.
      </p>
    </section>
  );
}
