import { useQuery } from "@tanstack/react-query";
import { Button, InputNumber } from "antd";
import { useRef, useState, type FormEvent } from "react";
import { queries } from "../../api/queries";
import type { WordsShape } from "../../domain/wish";
import { Dialogue } from "../../shared/Dialogue";

export type Throws = { faces: string[]; sides: number };
type Props = {
  words: number;
  list: Pick<WordsShape, "list_size" | "language">;
  onDice: (thrown: Throws) => void;
  onClose: () => void;
};

const SIDES_MOST = 1_000;

/** Real dice, or coins: their faces, as they lie. */
export function DiceDialog({ words, list, onDice, onClose }: Props) {
  const fields = useRef<(HTMLInputElement | null)[]>([]);
  const [sides, setSides] = useState(6);
  const { data } = useQuery(queries.dice(sides, list));
  const throws = data?.throws ?? 0;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const faces = fields.current.slice(0, words).map((field) => (field?.value ?? "").trim());
    onDice({ faces, sides });
  };
  const example = sides === 2 ? "HTTH…" : sides <= 9 ? "163…" : "4 17 9…";
  return (
    <Dialogue
      open
      title="Real dice or coins"
      footer={null}
      onCancel={onClose}
      afterOpenChange={(open) => open && fields.current[0]?.focus()}
    >
      <form className="stack" onSubmit={submit} autoComplete="off">
        <label className="row small gap-6">
          Sides of a die (2: a coin)
          <InputNumber
            aria-label="Sides of a die"
            min={2}
            max={SIDES_MOST}
            value={sides}
            onChange={(value) => value && setSides(value)}
            className="wide-90"
          />
        </label>
        {data && (
          <p className="small quiet">
            {throws} throws a word, typed as they fall ({example}): one of{" "}
            {list.list_size.toLocaleString("en")} words, {data.word_bits} bits, exact if the{" "}
            {sides === 2 ? "coin is" : "dice are"} fair.{" "}
            {data.counting < 1 &&
              `${Math.round((1 - data.counting) * 1000) / 10} % of results do not count and are thrown again: it is said which.`}
          </p>
        )}
        <div className="dice-dialog-div">
          {Array.from({ length: words }, (_, i) => (
            <label className="field" key={i}>
              <span>Word {i + 1}</span>
              <input
                ref={(element) => {
                  fields.current[i] = element;
                }}
                className="secret-input"
                inputMode={sides === 2 ? "text" : "numeric"}
                maxLength={throws * 5}
                autoComplete="off"
                spellCheck={false}
                onInput={(event) => {
                  const typed = event.currentTarget.value.trim();
                  if (sides <= 9 && typed.length === throws) fields.current[i + 1]?.focus();
                }}
              />
            </label>
          ))}
        </div>
        <div className="row">
          <Button type="primary" htmlType="submit" disabled={!data}>
            Take these words
          </Button>
        </div>
      </form>
    </Dialogue>
  );
}
