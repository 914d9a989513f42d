import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { queries } from "../../api/queries";
import { count } from "../../domain/moments";
import { laidOut } from "../../domain/reuseMap";
import { CordLegend } from "./CordLegend";
import { FallsWith } from "./FallsWith";
import { HeapsPage } from "./HeapsPage";
import { ProblemNote } from "../../shared/ProblemNote";
import { useKeys } from "../../shared/useKeys";

const DRAWN_MOST = 60;
/** Beyond so many logins groups stand as one knot each. */
const LISTED_MOST = 500;

/** Logins as knots, cords between those that share or resemble a secret or can reset each other;
 * the same facts as a table beside it. */
export default function ReachPage() {
  const navigate = useNavigate();
  const { data, error } = useQuery(queries.reach());
  const [at, setAt] = useState<string | null>(null);
  useKeys({ Escape: () => void navigate("/") });
  const map = useMemo(() => (data ? laidOut(data, DRAWN_MOST) : null), [data]);
  const chosen = data?.knots.find((k) => k.login_id === at) ?? data?.knots[0];
  const falls = useQuery({ ...queries.reachOf(chosen?.login_id ?? ""), enabled: Boolean(chosen) });
  const fallen = new Set((falls.data ?? []).map((f) => f.login_id));

  if (error || !data || !map)
    return (
      <main className="page" aria-busy={!error}>
        <ProblemNote problem={error} />
      </main>
    );
  if (data.knots.length > DRAWN_MOST) return <HeapsPage map={data} />;
  if (data.knots.length === 0)
    return (
      <main className="page">
        <h1>Reuse map</h1>
        <div className="empty">
          <h2>Nothing hangs together</h2>
          <p>
            No two logins share or resemble a secret, and no mailbox is named. Here they would be
            joined by cords: what falls when one falls. Name a login&apos;s mailbox in{" "}
            <Link to="/logins">its form</Link>, and run a check from{" "}
            <Link to="/">the worklist</Link>.
          </p>
        </div>
      </main>
    );
  return (
    <main className="page">
      <header className="below-10">
        <p className="small">
          <Link to="/">Worklist</Link>
        </p>
        <h1>Reuse map</h1>
        <p className="small quiet">
          {count(data.knots.length, "login")} hang together: by the same secret, a similar one, or a
          mailbox that can reset them.
        </p>
      </header>
      <div className="reach">
        <svg
          viewBox="0 0 720 560"
          role="img"
          aria-label="Cords between logins; the table beside it says the same"
        >
          {map.cords.map((c) => (
            <path
              key={c.key}
              d={c.path}
              className={`cord ${c.kind}`}
              data-on={chosen && (c.of.includes(chosen.login_id) || undefined)}
            />
          ))}
          {map.knots.map((k) => (
            <g
              key={k.login_id}
              className="knot"
              data-on={k.login_id === chosen?.login_id || undefined}
              data-falls={fallen.has(k.login_id) || undefined}
              onClick={() => setAt(k.login_id)}
            >
              <circle cx={k.x} cy={k.y} r={k.radius} />
              <text x={k.labelX} y={k.labelY} textAnchor={k.anchor} transform={k.turn}>
                {k.label}
                <title>{k.title}</title>
              </text>
            </g>
          ))}
        </svg>
        <section aria-label="What falls with each" className="stack gap-14">
          <CordLegend />
          <div
            role="group"
            tabIndex={0}
            aria-label="Logins by what falls with them"
            className="reach-page-logins-by-what"
          >
            <table className="plain dense small">
              <thead>
                <tr>
                  <th>If this falls</th>
                  <th className="right">so do</th>
                </tr>
              </thead>
              <tbody>
                {data.knots.slice(0, LISTED_MOST).map((k) => (
                  <tr key={k.login_id} aria-current={k.login_id === chosen?.login_id}>
                    <td>
                      <button type="button" className="link" onClick={() => setAt(k.login_id)}>
                        {k.title}
                      </button>{" "}
                      <span className="quiet">{k.user_name}</span>
                    </td>
                    <td className="right">{k.reach ? `${k.reach} more` : "no other"}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {chosen && <FallsWith loginId={chosen.login_id} title={chosen.title} />}
        </section>
      </div>
    </main>
  );
}
