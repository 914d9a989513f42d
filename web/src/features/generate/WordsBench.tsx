import { InputNumber, Slider } from "antd";
import { memo, useState } from "react";
import {
  additionBits,
  capitalBits,
  separatorBits,
  type Language,
  type WordsShape,
} from "../../domain/wish";
import { Choice } from "./Choice";
import { DiceDialog, type Throws } from "./DiceDialog";

const SEPARATORS = [
  { value: " ", label: "blanks" },
  { value: "-", label: "hyphens" },
  { value: ".", label: "stops" },
  { value: "_", label: "underscores" },
  { value: "", label: "nothing" },
  { value: "digit", label: "random digits" },
  { value: "symbol", label: "random symbols" },
];
const CAPITALS: { value: WordsShape["capitals"]; label: string }[] = [
  { value: "none", label: "none" },
  { value: "first", label: "first letters" },
  { value: "one", label: "one whole word" },
];
const ADDITIONS: { value: WordsShape["addition"]; label: string }[] = [
  { value: "none", label: "nothing" },
  { value: "digit", label: "a digit" },
  { value: "symbol", label: "a symbol" },
];
/** By language and size, as one choice. */
const LISTS: { value: string; label: string }[] = [
  { value: "en 7776", label: "English 7,776" },
  { value: "en 4096", label: "English 4,096" },
  { value: "de 2048", label: "German 2,048" },
  { value: "fr 2048", label: "French 2,048" },
  { value: "es 2048", label: "Spanish 2,048" },
  { value: "ru 2048", label: "Russian 2,048" },
];

function listOf(choice: string): Pick<WordsShape, "language" | "list_size"> {
  const [language = "en", size = "7776"] = choice.split(" ");
  return { language: language as Language, list_size: Number(size) };
}

type Props = {
  shape: WordsShape;
  /** For a security question: plain words alone. */
  plain: boolean;
  onChange: (shape: WordsShape) => void;
  onDice: (thrown: Throws) => void;
};

/** How the words are joined: each choice with its exact bits. */
export const WordsBench = memo(function WordsBench({ shape, plain, onChange, onDice }: Props) {
  const [dice, setDice] = useState(false);
  const set = (part: Partial<WordsShape>) => onChange({ ...shape, ...part });
  return (
    <>
      <div className="row spread above-6">
        <span className="small quiet">Words</span>
        <InputNumber
          aria-label="How many words"
          size="small"
          min={1}
          max={20}
          value={shape.words}
          onChange={(value) => typeof value === "number" && set({ words: value })}
          className="wide-68"
        />
      </div>
      <Slider
        min={plain ? 2 : 3}
        max={12}
        value={shape.words}
        onChange={(words) => set({ words })}
        ariaLabelForHandle="How many words"
        tooltip={{ open: false }}
        className="words-bench-slider"
      />
      {plain ? (
        <p className="small quiet">
          For a security question, or to be said on the telephone: no two words of the list sound
          alike, none is spelt in two ways. Write down which question it answers.
        </p>
      ) : (
        <>
          <Choice
            label="From"
            name="Word list"
            bits={Math.log2(shape.list_size)}
            value={`${shape.language} ${shape.list_size}`}
            options={LISTS}
            onChange={(choice) => set(listOf(choice))}
          />
          {shape.language !== "en" && (
            <p className="small quiet">
              {shape.language === "ru"
                ? "In Cyrillic letters, without ё: for a keyboard that has them."
                : "Words that are written without an accent, so that any keyboard types them."}
            </p>
          )}
          <Choice
            label="Between"
            name="Between the words"
            bits={separatorBits(shape)}
            value={shape.separator}
            options={SEPARATORS}
            onChange={(separator) => set({ separator })}
          />
          <Choice
            label="Capitals"
            name="Capitals"
            bits={capitalBits(shape)}
            value={shape.capitals}
            options={CAPITALS}
            onChange={(capitals) => set({ capitals })}
          />
          <Choice
            label="Added"
            name="Added at a random place"
            bits={additionBits(shape)}
            value={shape.addition}
            options={ADDITIONS}
            onChange={(addition) => set({ addition })}
          />
          <button type="button" className="link small to-left" onClick={() => setDice(true)}>
            take real dice or coins instead…
          </button>
        </>
      )}
      {dice && (
        <DiceDialog
          words={shape.words}
          onClose={() => setDice(false)}
          list={shape}
          onDice={(thrown) => {
            setDice(false);
            onDice(thrown);
          }}
        />
      )}
    </>
  );
});
