import { day } from "../domain/moments";
import { placesOf } from "../domain/splice";

export type Bar = {
  from: number;
  to: number;
  kind: "current" | "earlier" | "unused" | "staged";
  label: string;
};

const WIDE = 400;

/** The splice: one bar for each secret of a login along a time line, the new over the old. */
export function Splice({ bars, now }: { bars: Bar[]; now: number }) {
  if (!bars.length) return null;
  const start = Math.min(...bars.map((b) => b.from));
  const span = Math.max(1, now - start);
  const x = (at: number) => Math.min(WIDE, ((at - start) / span) * WIDE);
  const served = bars
    .filter((b) => b.kind === "current" || b.kind === "earlier")
    .sort((a, b) => a.from - b.from || Number(a.kind === "current") - Number(b.kind === "current"));
  const places = placesOf(
    served.map((b) => [x(b.from), x(b.to)]),
    WIDE,
  );
  const aside = bars.filter((b) => b.kind === "staged" || b.kind === "unused");
  return (
    <svg
      viewBox={`0 0 ${WIDE} 76`}
      className="splice-svg"
      role="img"
      aria-label={bars.map((b) => b.label).join("; ")}
      fontFamily="var(--face)"
      fontSize="12"
    >
      {served.map((b, i) => (
        <rect
          key={i}
          x={places[i]?.[0]}
          y="18"
          width={places[i]?.[1]}
          height="9"
          fill={b.kind === "current" ? "var(--step-4)" : "var(--step-2)"}
        />
      ))}
      {aside.map((b, i) => {
        const width = Math.max(8, x(b.to) - x(b.from));
        return (
          <rect
            key={i}
            x={Math.min(x(b.from), WIDE - width)}
            y="33"
            width={width}
            height="9"
            fill="none"
            stroke={b.kind === "staged" ? "var(--copper)" : "var(--quiet)"}
            strokeWidth="1.6"
            strokeDasharray="4 2.5"
          />
        );
      })}
      <line x1="0" x2={WIDE} y1="54" y2="54" stroke="var(--line)" />
      <text x="0" y="70" fill="var(--quiet)">
        {day(new Date(start).toISOString())}
      </text>
      <text x={WIDE} y="70" textAnchor="end" fill="var(--quiet)">
        now
      </text>
      <text x={WIDE} y="12" textAnchor="end" fill="var(--quiet)">
        {served.length === 1 ? "one secret so far" : `${served.length} secrets`}
      </text>
    </svg>
  );
}
