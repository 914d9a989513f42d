import { grouped, type CharacterClass } from "../domain/secretMarks";

function Mark({ kind }: { kind: CharacterClass }) {
  if (kind === "lower") return null;
  return (
    <svg viewBox="0 0 10 5" aria-hidden="true">
      {kind === "upper" && <rect x="0" y="1" width="10" height="2.4" fill="currentColor" />}
      {kind === "digit" && <circle cx="5" cy="2.5" r="2.3" fill="currentColor" />}
      {kind === "symbol" && <path d="M5 0 9 5H1Z" fill="currentColor" />}
    </svg>
  );
}

type Props = {
  secret: string;
  big?: boolean;
  /** A piece of a secret: not parted into groups. */
  whole?: boolean;
  /** Chosen by a person: words in it are shown as words. */
  chosen?: boolean;
};

/** A secret in its words or in groups of four, a class mark under each character. */
export function SecretText({ secret, big = false, whole = false, chosen = false }: Props) {
  const groups = whole ? [grouped(secret).flat()] : grouped(secret, chosen);
  const ends = groups.map((_, i) => groups.slice(0, i + 1).flat().length);
  return (
    <span className={big ? "secret big" : "secret"} translate="no">
      <span className="visually-hidden">{secret}</span>
      {groups.map((group, i) => (
        <span className="group" key={i} aria-hidden="true">
          {big && <span className="tick">{ends[i]}</span>}
          {group.map((c, j) => (
            <span className={`character ${c.kind}`} key={j}>
              {c.text}
              <span className="mark">
                <Mark kind={c.kind} />
              </span>
            </span>
          ))}
        </span>
      ))}
    </span>
  );
}

/** What the marks mean. */
export function MarkLegend() {
  return (
    <div className="legend">
      <span>
        <SecretText secret="A" />
        upper case
      </span>
      <span>
        <SecretText secret="4" />
        digit
      </span>
      <span>
        <SecretText secret="_" />
        symbol · lower case unmarked
      </span>
    </div>
  );
}
