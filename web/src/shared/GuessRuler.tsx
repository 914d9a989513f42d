import { useQuery } from "@tanstack/react-query";
import { queries } from "../api/queries";
import { useWidth } from "./useWidth";
import {
  described,
  exponentOf,
  labelPlaces,
  position,
  RULER_END,
  stretches,
  type Mark,
} from "../domain/ruler";

const STEPS = ["var(--step-1)", "var(--step-2)", "var(--step-3)", "var(--step-4)", "var(--step-5)"];

function useMarks(): Mark[] {
  const { data } = useQuery(queries.budgets());
  return (data ?? []).map((b) => ({ label: b.label, log10: b.guesses_log10 }));
}

/** Ten to a power, set as one. */
export function Power({ log10 }: { log10: number }) {
  return (
    <>
      10<sup>{exponentOf(log10)}</sup>
    </>
  );
}

/** The ruler beside a table row. */
export function SmallRuler({ log10 }: { log10: number | null }) {
  const marks = useMarks();
  if (log10 === null) return <span className="quiet small">not measured</span>;
  const at = position(log10);
  return (
    <span className="row guess-ruler-row">
      <span className="ruler small" role="img" aria-label={described(log10, marks)}>
        <svg viewBox="0 0 142 16" preserveAspectRatio="none" aria-hidden="true">
          {stretches(marks).map((s, i) => (
            <rect
              key={s.from}
              x={position(s.from) * 1.42}
              y="6"
              width={Math.max(0, (position(s.to) - position(s.from)) * 1.42 - 0.7)}
              height="4"
              fill={STEPS[i]}
            />
          ))}
          <path
            d={`M${at * 1.42 - 4} 0h8l-3 5v7h-2v-7z`}
            fill="var(--ink)"
            stroke="var(--ground)"
            strokeWidth="0.8"
          />
        </svg>
      </span>
      <span className="small" aria-hidden="true">
        <Power log10={log10} />
      </span>
    </span>
  );
}

/** Height of a row of labels above the narrow ruler. */
const ROW = 15;

/** The ruler where a person decides: budgets as labelled marks, the secret as a needle.
 *
 * As wide as its place, so that what it says is as large everywhere; until that is known, as said. */
export function LargeRuler(props: { log10: number | null; wide?: number }) {
  const { log10 } = props;
  const marks = useMarks();
  const [box, wide] = useWidth(props.wide ?? 760);
  const narrow = wide < 700;
  const x = (value: number) => 14 + (position(value) / 100) * (wide - 28);
  const places = labelPlaces(
    marks.map((m) => m.label),
    marks.map((m) => x(m.log10)),
    wide,
  );
  // Wide, the needle comes from above, over the labels; narrow, from below: it would cross them.
  const rows = 1 + Math.max(0, ...places.map((place) => place.row));
  const bar = narrow ? rows * ROW + 9 : rows * ROW + 27;
  const isBeyond =
    log10 !== null &&
    marks.every((m, i) => places[i]?.side === "end" && x(log10) - 20 > x(m.log10));
  const ticks = Array.from({ length: RULER_END / 2 + 1 }, (_, i) => i * 2);
  return (
    <div
      ref={box}
      className="ruler large"
      role="img"
      aria-label={log10 === null ? "The guess ruler, no secret yet" : described(log10, marks)}
    >
      <svg
        viewBox={`0 0 ${wide} ${bar + (narrow ? 58 : 54)}`}
        aria-hidden="true"
        fontFamily="var(--face)"
        fontSize="12"
      >
        {stretches(marks).map((s, i) => (
          <rect
            key={s.from}
            x={x(s.from)}
            y={bar}
            width={Math.max(0, x(s.to) - x(s.from) - 1)}
            height="10"
            fill={STEPS[i]}
          />
        ))}
        {marks.map((m, i) => {
          const { row, side } = places[i] ?? { row: 0, side: "end" };
          return (
            <g key={m.label}>
              <line
                x1={x(m.log10)}
                x2={x(m.log10)}
                y1={bar - 9 - row * ROW}
                y2={bar + 11}
                stroke="var(--ink)"
              />
              <text
                x={x(m.log10) + (side === "end" ? 2 : -2)}
                y={bar - 12 - row * ROW}
                textAnchor={side}
                fill="var(--ink)"
                stroke="var(--ground)"
                strokeWidth="4"
                paintOrder="stroke"
              >
                {m.label}
              </text>
            </g>
          );
        })}
        {ticks.map((t) => (
          <line
            key={t}
            x1={x(t)}
            x2={x(t)}
            y1={bar + 11}
            y2={bar + (t % 10 ? 16 : 20)}
            stroke="var(--quiet)"
            strokeWidth="1"
          />
        ))}
        {ticks
          .filter((t) => t % 10 === 0)
          .map((t) => (
            <text key={t} x={x(t)} y={bar + 36} textAnchor="middle" fill="var(--quiet)">
              10
              <tspan dy="-4" fontSize="9">
                {t}
              </tspan>
            </text>
          ))}
        {log10 !== null && (
          <g fill="var(--copper)">
            <path
              d={
                narrow
                  ? `M${x(log10) - 6} ${bar + 24}h12l-6 -10z`
                  : `M${x(log10) - 5} ${bar - 8}h10l-5 8z`
              }
            />
            <rect x={x(log10) - 1} y={narrow ? bar - 1 : bar - 2} width="2" height="16" />
            <text
              x={x(log10)}
              y={narrow ? bar + 53 : bar - 15 - (isBeyond ? 0 : rows) * ROW}
              textAnchor="middle"
              fontWeight="650"
              fontSize="13"
            >
              10
              <tspan dy="-4" fontSize="10">
                {exponentOf(log10)}
              </tspan>
            </text>
          </g>
        )}
      </svg>
    </div>
  );
}
