import { InputNumber, Select, Slider } from "antd";
import { memo, useState } from "react";
import { additionBits, capitalBits, separatorBits, type WordsShape } from "../../domain/wish";
import { DiceDialog } from "./DiceDialog";

const SEPARATORS = [
  { value: " ", label: "blanks" },
  { value: "-", label: "hyphens" },
  { value: ".", label: "stops" },
  { value: "_", label: "underscores" },
  { value: "", label: "nothing" },
  { value: "digit", label: "random digits" },
  { value: "symbol", label: "random symbols" },
];
const CAPITALS = [
  { value: "none", label: "none" },
  { value: "first", label: "first letters" },
  { value: "one", label: "one whole word" },
];
const ADDITIONS = [
  { value: "none", label: "nothing" },
  { value: "digit", label: "a digit" },
  { value: "symbol", label: "a symbol" },
];
const LISTS = [
  { value: 7776, label: "7,776 words" },
  { value: 4096, label: "4,096, commoner" },
];

type Props = {
  shape: WordsShape;
  /** For a security question: plain words alone. */
  plain: boolean;
  onChange: (shape: WordsShape) => void;
  onDice: (faces: string[]) => void;
};

/** How the words are joined: each choice with its exact bits. */
export const WordsBench = memo(function WordsBench({ shape, plain, onChange, onDice }: Props) {
  const [dice, setDice] = useState(false);
  const set = (part: Partial<WordsShape>) => onChange({ ...shape, ...part });
  return (
    <>
      <div className="row spread" style={{ marginTop: 6 }}>
        <span className="small quiet">Words</span>
        <InputNumber
          aria-label="How many words"
          size="small"
          min={1}
          max={20}
          value={shape.words}
          onChange={(value) => typeof value === "number" && set({ words: value })}
          style={{ width: 68 }}
        />
      </div>
      <Slider
        min={plain ? 2 : 3}
        max={12}
        value={shape.words}
        onChange={(words) => set({ words })}
        ariaLabelForHandle="How many words"
        tooltip={{ open: false }}
        style={{ margin: "0 6px 4px" }}
      />
      {plain ? (
        <p className="small quiet">
          For a security question, or to be said on the telephone: no two words of the list sound
          alike, none is spelt in two ways. Write down which question it answers.
        </p>
      ) : (
        <>
          <Line label="From" bits={Math.log2(shape.list_size)} each>
            <Select
              size="small"
              aria-label="Word list"
              value={shape.list_size}
              onChange={(list_size) => set({ list_size })}
              options={LISTS}
              style={{ width: 128 }}
            />
          </Line>
          <Line label="Between" bits={separatorBits(shape)}>
            <Select
              size="small"
              aria-label="Between the words"
              value={shape.separator}
              onChange={(separator) => set({ separator })}
              options={SEPARATORS}
              style={{ width: 128 }}
            />
          </Line>
          <Line label="Capitals" bits={capitalBits(shape)}>
            <Select
              size="small"
              aria-label="Capitals"
              value={shape.capitals}
              onChange={(capitals) => set({ capitals })}
              options={CAPITALS as { value: WordsShape["capitals"]; label: string }[]}
              style={{ width: 128 }}
            />
          </Line>
          <Line label="Added" bits={additionBits(shape)}>
            <Select
              size="small"
              aria-label="Added at a random place"
              value={shape.addition}
              onChange={(addition) => set({ addition })}
              options={ADDITIONS as { value: WordsShape["addition"]; label: string }[]}
              style={{ width: 128 }}
            />
          </Line>
          <button
            type="button"
            className="link small"
            style={{ textAlign: "left" }}
            onClick={() => setDice(true)}
          >
            take real dice instead…
          </button>
        </>
      )}
      {dice && (
        <DiceDialog
          words={shape.words}
          onClose={() => setDice(false)}
          onDice={(faces) => {
            setDice(false);
            onDice(faces);
          }}
        />
      )}
    </>
  );
});

type LineProps = { label: string; bits: number; each?: boolean; children: React.ReactNode };

/** A choice, and what it adds. */
function Line({ label, bits, each = false, children }: LineProps) {
  return (
    <div className="line">
      <span>{label}</span>
      <span className="row" style={{ gap: 8, flexWrap: "nowrap" }}>
        {children}
        <span className="small quiet" style={{ width: 38, flexShrink: 0, textAlign: "right" }}>
          {bits ? `+${bits.toFixed(1)}` : "+0"}
          {each && <span className="visually-hidden"> bits for each word</span>}
        </span>
      </span>
    </div>
  );
}
