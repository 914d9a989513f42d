import type { Schema } from "../../api/client";
import { FINDING_KINDS, FINDING_LABELS, type FindingKind } from "../../domain/findings";
import { day } from "../../domain/moments";

const WIDE = 220;
const HIGH = 44;
const TONES = ["var(--step-5)", "var(--step-4)", "var(--step-3)", "var(--step-2)", "var(--step-1)"];

type Point = { at: number; counts: Partial<Record<FindingKind, number>> };

/** Findings by kind over time, from the stored summaries of the checks: one band a kind, the gravest
 * at the bottom. */
type Props = { worklist: Schema["Worklist"]; counts: Point["counts"] };

export function OpenFindingsPlot({ worklist, counts }: Props) {
  if (!worklist.checked_at || worklist.earlier.length < 1) return null;
  const points: Point[] = [
    ...worklist.earlier.map((s) => ({ at: Date.parse(s.checked_at), counts: s.counts })),
    { at: Date.parse(worklist.checked_at), counts },
  ];
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last || last.at === first.at) return null;
  const kinds = FINDING_KINDS.filter((kind) => points.some((p) => p.counts[kind]));
  const total = (p: Point) => kinds.reduce((sum, kind) => sum + (p.counts[kind] ?? 0), 0);
  const most = Math.max(1, ...points.map(total));
  const x = (at: number) => ((at - first.at) / (last.at - first.at)) * WIDE;
  const y = (n: number) => HIGH - (n / most) * (HIGH - 2);
  const under = points.map(() => 0);
  const bands = kinds.map((kind, i) => {
    const below = [...under];
    points.forEach((p, at) => (under[at] = (under[at] ?? 0) + (p.counts[kind] ?? 0)));
    const edge = (heights: number[]) =>
      points.map((p, at) => `${x(p.at).toFixed(1)} ${y(heights[at] ?? 0).toFixed(1)}`);
    const path = `M${[...edge(under), ...edge(below).reverse()].join("L")}Z`;
    return { kind, path, tone: TONES[i % TONES.length] };
  });
  const layers = kinds.map((k) => FINDING_LABELS[k].toLowerCase()).join(", ");
  const since = day(new Date(first.at).toISOString());
  const says = kinds
    .map(
      (k) =>
        `${FINDING_LABELS[k].toLowerCase()} ${first.counts[k] ?? 0}, now ${last.counts[k] ?? 0}`,
    )
    .join("; ");
  return (
    <figure
      className="open-findings-plot-figure"
      aria-label={`findings by kind since ${since}: ${says}`}
    >
      <figcaption className="small quiet right" aria-hidden="true">
        since {since}: {total(first).toLocaleString("en")} open, now{" "}
        {total(last).toLocaleString("en")}
        <br />
        from below: {layers}
      </figcaption>
      <svg width={WIDE} height={HIGH} aria-hidden="true">
        {bands.map((b) => (
          <path key={b.kind} d={b.path} fill={b.tone} stroke="var(--ground)" strokeWidth="0.6">
            <title>
              {FINDING_LABELS[b.kind]}: {first.counts[b.kind] ?? 0}, now {last.counts[b.kind] ?? 0}
            </title>
          </path>
        ))}
      </svg>
    </figure>
  );
}
