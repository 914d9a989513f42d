import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox } from "antd";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { FINDING_LABELS } from "../../domain/findings";
import { count, day } from "../../domain/moments";
import { REASONS, standing } from "../../domain/waivers";
import { FindingShape } from "../../shared/icons";
import { ProblemNote } from "../../shared/ProblemNote";
import { MoreButton, useSome } from "../../shared/Some";
import { useAct } from "../../shared/useAct";
import { useKeys } from "../../shared/useKeys";

/** Every finding that was accepted, and what was taken back: one list, one or many at a time. */
export default function WaiversPage() {
  const navigate = useNavigate();
  const { data, error } = useQuery(queries.waivers());
  const { problem, run } = useAct();
  const [chosen, setChosen] = useState<Set<string>>(new Set());
  useKeys({ Escape: () => void navigate("/") });

  const toggle = (id: string) =>
    setChosen((now) => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const lift = async () => {
    const body = { waiver_ids: [...chosen] };
    await run(() => answer(client.POST("/waivers/lift", { body })));
    setChosen(new Set());
  };
  const held = (data ?? []).filter((w) => w.holds);
  const past = (data ?? []).filter((w) => !w.holds);

  return (
    <main className="page at-most-1180">
      <header className="row spread below-14">
        <div>
          <p className="small">
            <Link to="/">Worklist</Link>
          </p>
          <h1>Accepted findings</h1>
        </div>
        <Button disabled={chosen.size === 0} onClick={() => void lift()}>
          Take back {chosen.size ? count(chosen.size, "finding") : "those chosen"}
        </Button>
      </header>
      <ProblemNote problem={error ?? problem} />
      {data?.length === 0 && (
        <p className="empty">
          Nothing is accepted. On a finding of the worklist, W accepts it for a reason.
        </p>
      )}
      {held.length > 0 && <Table waivers={held} chosen={chosen} onToggle={toggle} />}
      {past.length > 0 && (
        <>
          <h2 className="above-24">Earlier ones</h2>
          <Table waivers={past} />
        </>
      )}
    </main>
  );
}

type TableProps = {
  waivers: Schema["WaiverOut"][];
  chosen?: Set<string>;
  onToggle?: (id: string) => void;
};

function Table({ waivers, chosen, onToggle }: TableProps) {
  const some = useSome(waivers);
  return (
    <>
      <table className="plain dense accepted-findings">
        <thead>
          <tr>
            {onToggle && (
              <th className="wide-30">
                <span className="visually-hidden">chosen</span>
              </th>
            )}
            <th>Login</th>
            <th>Finding</th>
            <th>Accepted because</th>
            <th className="wide-190">Given, until</th>
          </tr>
        </thead>
        <tbody>
          {some.shown.map((w) => (
            <tr key={w.waiver_id}>
              {onToggle && (
                <td>
                  <Checkbox
                    aria-label={`Choose ${w.title ?? "a login that is gone"}`}
                    checked={chosen?.has(w.waiver_id) ?? false}
                    onChange={() => onToggle(w.waiver_id)}
                  />
                </td>
              )}
              <td>
                {w.title ? (
                  <Link to={`/logins/${w.login_id}`}>{w.title}</Link>
                ) : (
                  <span className="quiet">gone</span>
                )}
              </td>
              <td>
                <span className="row waivers-page-row">
                  <FindingShape kind={w.kind} /> {FINDING_LABELS[w.kind]}
                </span>
                <span className="small quiet">{w.evidence}</span>
              </td>
              <td>
                {REASONS[w.reason].label}: {REASONS[w.reason].means}
                {w.note && <div className="small quiet">{w.note}</div>}
              </td>
              <td className="small">
                {day(w.given_at)}
                {w.until_on && `, until ${day(w.until_on)}`}
                {standing(w) && <div className="quiet">{standing(w)}</div>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <MoreButton some={some} />
    </>
  );
}
