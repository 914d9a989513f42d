import { Button } from "antd";
import { useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { CORD_LABELS } from "../../domain/findings";
import { count } from "../../domain/moments";
import { heapsOf, type Heap } from "../../domain/reuseMap";
import { CordLegend } from "./CordLegend";
import { FallsWith } from "./FallsWith";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";

const LISTED_MOST = 200;
const NAMED = {
  same: "share one secret",
  similar: "have similar secrets",
  resets: "",
  mailbox: "",
};

/** The reuse map of a large vault: groups and mailboxes as one knot each; one that is opened shows
 * its logins, and what falls with each. */
export function HeapsPage({ map }: { map: Schema["ReachMap"] }) {
  const navigate = useNavigate();
  const { heaps, ties, drawn } = useMemo(() => heapsOf(map), [map]);
  const [at, setAt] = useState<string | null>(null);
  const [login, setLogin] = useState<string | null>(null);
  const { problem, busy, run } = useAct();
  const chosen = heaps.find((heap) => heap.id === at) ?? heaps[0];
  const knots = useMemo(() => new Map(map.knots.map((k) => [k.login_id, k])), [map]);
  const one = login ?? chosen?.members[0] ?? "";
  const open = (heap: Heap) => {
    setAt(heap.id);
    setLogin(null);
  };
  const rotate = (login_ids: string[]) =>
    run(async () => {
      await answer(client.POST("/campaigns", { body: { login_ids } }));
      void navigate("/rotate");
    });

  return (
    <main className="page">
      <header className="below-10">
        <p className="small">
          <Link to="/">Worklist</Link>
        </p>
        <h1>Reuse map</h1>
        <p className="small quiet">
          {count(map.knots.length, "login")} hang together, in{" "}
          {count(heaps.filter((h) => h.kind !== "mailbox").length, "group")} and by{" "}
          {count(heaps.filter((h) => h.kind === "mailbox").length, "mailbox", "mailboxes")}
          {drawn < heaps.length &&
            `; the ${drawn} greatest are drawn, ${heaps.length > LISTED_MOST ? `the ${LISTED_MOST} greatest` : "all"} stand in the table`}
          .
        </p>
      </header>
      <ProblemNote problem={problem} />
      <div className="reach">
        <svg
          viewBox="0 0 720 560"
          role="img"
          aria-label="Cords between groups and mailboxes; the table beside it says the same"
        >
          {ties.map((t) => (
            <path
              key={t.key}
              d={t.path}
              className={`cord ${t.kind}`}
              style={{ strokeWidth: 1 + Math.log10(t.count) }}
              data-on={(chosen && t.of.includes(chosen.id)) || undefined}
            >
              <title>
                {CORD_LABELS[t.kind]}: {t.count.toLocaleString("en")}
              </title>
            </path>
          ))}
          {heaps.slice(0, drawn).map((heap) => (
            <g
              key={heap.id}
              className={`knot ${heap.kind}`}
              data-on={heap.id === chosen?.id || undefined}
              onClick={() => open(heap)}
            >
              <circle cx={heap.x} cy={heap.y} r={heap.radius} />
              <text x={heap.labelX} y={heap.labelY} textAnchor={heap.anchor}>
                {heap.label}
                <title>{says(heap)}</title>
              </text>
            </g>
          ))}
        </svg>
        <section aria-label="Groups and mailboxes" className="stack gap-14">
          <CordLegend />
          <div
            role="group"
            tabIndex={0}
            aria-label="Groups and mailboxes by size"
            className="reach-page-logins-by-what"
          >
            <table className="plain dense small">
              <thead>
                <tr>
                  <th>Group or mailbox</th>
                  <th className="right">logins</th>
                </tr>
              </thead>
              <tbody>
                {heaps.slice(0, LISTED_MOST).map((heap) => (
                  <tr key={heap.id} aria-current={heap.id === chosen?.id}>
                    <td>
                      <button type="button" className="link" onClick={() => open(heap)}>
                        {says(heap)}
                      </button>
                    </td>
                    <td className="right">
                      {(heap.members.length + heap.alone).toLocaleString("en")}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {chosen && (
            <>
              <h2>{says(chosen)}</h2>
              <div
                role="group"
                tabIndex={0}
                aria-label="Its logins"
                className="reach-page-logins-by-what"
              >
                {chosen.members.slice(0, LISTED_MOST).map((id) => (
                  <div key={id} className="row gap-8 small">
                    <button type="button" className="link" onClick={() => setLogin(id)}>
                      {knots.get(id)?.title}
                    </button>
                    <span className="quiet">
                      {knots.get(id)?.user_name} · with it fall{" "}
                      {(knots.get(id)?.reach ?? 0).toLocaleString("en")}
                    </span>
                  </div>
                ))}
                {chosen.members.length > LISTED_MOST && (
                  <p className="small quiet">
                    and {(chosen.members.length - LISTED_MOST).toLocaleString("en")} more
                  </p>
                )}
              </div>
              {chosen.kind !== "mailbox" && (
                <p>
                  <Button loading={busy} onClick={() => void rotate(chosen.members)}>
                    Rotate these {chosen.members.length.toLocaleString("en")}, mailboxes first
                  </Button>
                </p>
              )}
              {one && <FallsWith loginId={one} title={knots.get(one)?.title ?? ""} />}
            </>
          )}
        </section>
      </div>
    </main>
  );
}

function says(heap: Heap): string {
  if (heap.kind === "mailbox")
    return heap.alone
      ? `${heap.title} resets ${heap.alone.toLocaleString("en")} that stand alone`
      : `${heap.title}, a mailbox`;
  const others = heap.members.length - 1;
  const more = others > 0 ? ` and ${others.toLocaleString("en")} more` : "";
  return `${heap.title}${more} ${NAMED[heap.kind]}`;
}
