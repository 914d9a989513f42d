import type { Schema } from "../../api/client";
import { day } from "../../domain/moments";

const WIDE = 220;
const HIGH = 40;

/** Open findings over time, from the stored summaries of the checks. */
export function OpenFindingsPlot({ worklist }: { worklist: Schema["Worklist"] }) {
  if (!worklist.checked_at || worklist.earlier.length < 1) return null;
  const points = [
    ...worklist.earlier.map((s) => ({
      at: Date.parse(s.checked_at),
      n: Object.values(s.counts).reduce((a, b) => a + b, 0),
    })),
    { at: Date.parse(worklist.checked_at), n: worklist.findings.length },
  ];
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last || last.at === first.at) return null;
  const most = Math.max(1, ...points.map((p) => p.n));
  const x = (at: number) => ((at - first.at) / (last.at - first.at)) * WIDE;
  const y = (n: number) => HIGH - (n / most) * (HIGH - 4);
  const line = points.map((p) => `${x(p.at).toFixed(1)} ${y(p.n).toFixed(1)}`).join("L");
  const says = `open findings since ${day(new Date(first.at).toISOString())}: ${first.n}, now ${last.n}`;
  return (
    <figure style={{ margin: 0 }} aria-label={says}>
      <figcaption className="small quiet right" aria-hidden="true">
        open findings since {day(new Date(first.at).toISOString())}
      </figcaption>
      <svg width={WIDE} height={HIGH} aria-hidden="true">
        <path d={`M0 ${HIGH}L${line}L${WIDE} ${HIGH}Z`} fill="var(--step-3)" />
      </svg>
    </figure>
  );
}
