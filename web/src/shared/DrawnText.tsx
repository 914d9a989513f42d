import type { Schema } from "../api/client";
import { SecretText } from "./SecretText";

type Props = {
  drawn: Schema["DrawOut"];
  kept: Set<number>;
  onKeep: (place: number) => void;
};

/** The secret, large. Words can be kept one by one. */
export function DrawnText({ drawn, kept, onKeep }: Props) {
  if (drawn.words.length > 0) return <WordsText drawn={drawn} kept={kept} onKeep={onKeep} />;
  if (drawn.kind === "sentence")
    return (
      <span className="words-text" translate="no">
        {drawn.secret}
      </span>
    );
  return <SecretText secret={drawn.secret} big />;
}

/** Not buttons, so that their text can be selected. */
function WordsText({ drawn, kept, onKeep }: Props) {
  return (
    <span className="words-text" translate="no">
      {parts(drawn.secret, drawn.words).map(({ before, word }, i) => (
        <span key={i}>
          {before}
          {word !== null && (
            <span
              role="button"
              tabIndex={0}
              className="word"
              aria-pressed={kept.has(i)}
              title="Keep this word when drawing again"
              onClick={() => onKeep(i)}
              onKeyDown={(event) => {
                if (event.key !== "Enter" && event.key !== " ") return;
                event.preventDefault();
                onKeep(i);
              }}
            >
              <span className="visually-hidden">Keep word {i + 1}: </span>
              {word}
            </span>
          )}
        </span>
      ))}
    </span>
  );
}

/** Each word as it stands in the text, with what stands before it; last, what follows. */
function parts(text: string, words: string[]): { before: string; word: string | null }[] {
  const low = text.toLowerCase();
  let at = 0;
  const found = words.map((word) => {
    const start = low.indexOf(word, at);
    const before = text.slice(at, start);
    at = start + word.length;
    return { before, word: text.slice(start, at) };
  });
  return [...found, { before: text.slice(at), word: null }];
}
