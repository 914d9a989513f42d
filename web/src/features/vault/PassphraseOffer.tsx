import { Button, InputNumber, Radio } from "antd";
import { useCallback, useEffect, useState } from "react";
import type { Wish } from "../../domain/wish";
import { DrawnText } from "../../shared/DrawnText";
import { ProblemNote } from "../../shared/ProblemNote";
import { useDraw } from "../../shared/useDraw";

type Kind = "words" | "sentence";

const SENTENCE = {
  template: "middle",
  joiner: " ",
  capital: false,
  stop: false,
  language: "en",
} as const;

/** Words or a nonsense sentence, drawn; the good words stay while the others are drawn again. */
export function PassphraseOffer({ onUse }: { onUse: (text: string) => void }) {
  const [kind, setKind] = useState<Kind>("words");
  const [words, setWords] = useState(6);
  const [kept, setKept] = useState<Set<number>>(new Set());
  const { drawn, problem, draw } = useDraw();

  const wishNow = useCallback((): Wish => {
    if (kind === "sentence") return { kind, shape: { ...SENTENCE } };
    const shape = { words, separator: " ", list_size: 7776, language: "en" as const };
    return { kind, shape: { ...shape, capitals: "none", addition: "none" } };
  }, [kind, words]);
  useEffect(() => {
    setKept(new Set());
    void draw(wishNow());
  }, [draw, wishNow]);

  const toggle = (place: number) =>
    setKept((now) => {
      const next = new Set(now);
      if (!next.delete(place)) next.add(place);
      return next;
    });
  const again = () => {
    const keep = drawn && drawn.words.length > kept.size ? [...kept] : [];
    void draw(wishNow(), { again: true, keep });
  };

  return (
    <section className="stack gap-8" aria-label="Drawn for you">
      <div className="row spread">
        <h2>Drawn for you</h2>
        <Radio.Group
          value={kind}
          onChange={(event) => setKind(event.target.value as Kind)}
          optionType="button"
          size="small"
          aria-label="What is drawn"
          options={[
            { value: "words", label: "words" },
            { value: "sentence", label: "a nonsense sentence" },
          ]}
        />
      </div>
      <div className="unselectable passphrase-offer-unselectable">
        {drawn && <DrawnText drawn={drawn} kept={kept} onKeep={toggle} />}
      </div>
      <ProblemNote problem={problem} />
      <div className="row">
        <Button onClick={() => drawn && onUse(drawn.secret)} disabled={!drawn}>
          Use {kind === "words" ? "these words" : "this sentence"}
        </Button>
        <Button onClick={again}>{kept.size ? "Draw the others again" : "Draw again"}</Button>
        {kind === "words" && (
          <InputNumber
            aria-label="How many words"
            value={words}
            min={4}
            max={10}
            onChange={(value) => typeof value === "number" && setWords(value)}
            className="wide-64"
          />
        )}
      </div>
      <p className="small quiet">
        {drawn?.entropy_bits} bits
        {drawn &&
          drawn.looked_at > 1 &&
          `, after what choosing among ${drawn.looked_at} draws took`}
        {kind === "words" && "; choose a word to keep it"}.
      </p>
    </section>
  );
}
