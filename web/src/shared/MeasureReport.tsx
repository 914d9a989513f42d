import type { Schema } from "../api/client";
import { LargeRuler, Power } from "./GuessRuler";
import { Powers } from "./Powers";
import { SegmentsInPlace } from "./SegmentsInPlace";

/** Orders from which on a scheme is said. */
const SCHEME_SAID = 1;

type Props = {
  found: Schema["MeasureOut"] | null;
  /** The text where it may be seen, null while it is held back. */
  secret: string | null;
  wide?: number;
  /** Said while there is nothing to measure. */
  idle?: string;
};

/** A measure in full: ruler, reasons in place, which attacks it stands, and what would help. */
export function MeasureReport({ found, secret, wide = 700, idle }: Props) {
  return (
    <div className="measure stack gap-8">
      <LargeRuler log10={found?.guess_number_log10 ?? null} wide={wide} />
      {found === null ? (
        <p className="small quiet">{idle}</p>
      ) : (
        <>
          <SegmentsInPlace found={found} secret={secret} />
          <p aria-live="polite" className="small">
            {found.is_bound ? "At most about" : "About"} <Power log10={found.guess_number_log10} />{" "}
            guesses{found.is_bound && <>, if nobody guesses how you made it</>}: {found.reasons}.{" "}
            {found.scheme_log10 >= SCHEME_SAID && (
              <>
                People put such parts together by a scheme: <Power log10={found.scheme_log10} />{" "}
                times fewer guesses.{" "}
              </>
            )}
            {found.breached && <b>Breached: in the corpus, {found.breached}. </b>}
            {found.context_was_cut && "More than 64 names are known; the first 64 were looked for."}
          </p>
          <Falls falls={found.falls} />
          {found.advice.length > 0 && (
            <p className="small">
              Would help:{" "}
              {found.advice.map((a, i) => (
                <span key={a.change}>
                  {i > 0 && "; "}
                  {a.change}, <Power log10={found.guess_number_log10} /> →{" "}
                  <Power log10={a.guess_number_log10} />
                </span>
              ))}
              .
            </p>
          )}
        </>
      )}
    </div>
  );
}

/** How long a secret lasts, in plain words. */
function lasts({ falls, takes }: Schema["FallOut"]): string {
  if (takes.startsWith("under ")) return `${falls ? "guessed" : "stands"} in ${takes}`;
  return falls ? `guessed after about ${takes}` : `stands for about ${takes}`;
}

/** Each attack with how long it takes at its rate. */
function Falls({ falls }: { falls: Schema["FallOut"][] }) {
  return (
    <dl className="falls small">
      {falls.map((f) => (
        <div key={f.code}>
          <dt>{f.label}</dt>
          <dd>
            <Powers text={lasts(f)} />
          </dd>
        </div>
      ))}
    </dl>
  );
}
