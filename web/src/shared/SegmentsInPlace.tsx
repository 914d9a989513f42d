import type { Schema } from "../api/client";
import { inKinds, pieceOf, unread } from "../domain/segments";
import { Powers } from "./Powers";
import { SecretText } from "./SecretText";

type Props = { found: Schema["MeasureOut"]; secret: string | null };

/** Under each stretch of the secret a bracket: what it was taken for, and what that costs.
 * A secret that is held back (null) shows kinds and lengths alone. */
export function SegmentsInPlace({ found, secret }: Props) {
  if (found.segments.length === 0) return <p className="small quiet">Nothing to measure.</p>;
  if (secret === null) return <p className="small">{`Made of: ${inKinds(found.segments)}.`}</p>;
  const left = unread(secret, found.measured_characters);
  return (
    <>
      <ol className="segments" aria-label="What the secret was taken for">
        {found.segments.map((s) => (
          <li key={s.start}>
            <SecretText secret={pieceOf(secret, s)} whole />
            <span className="bracket" aria-hidden="true" />
            <span className="small">{s.label}</span>
            <span className="small quiet">
              1 in <Powers text={s.one_in} />
            </span>
          </li>
        ))}
      </ol>
      {left > 0 && (
        <p className="small quiet">
          The last {left.toLocaleString("en")} characters are not looked at.
        </p>
      )}
    </>
  );
}
