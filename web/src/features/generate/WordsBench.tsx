import { InputNumber, Select, Slider, Switch } from "antd";
import { memo } from "react";
import type { WordsWish } from "../../shared/useDraw";

const SEPARATORS = [
  { value: " ", label: "blanks" },
  { value: "-", label: "hyphens" },
  { value: ".", label: "stops" },
  { value: "_", label: "underscores" },
  { value: "", label: "nothing" },
];

type Props = { wish: WordsWish; onChange: (wish: WordsWish) => void };

/** How the words are joined: each choice with its exact bits. */
export const WordsBench = memo(function WordsBench({ wish, onChange }: Props) {
  const set = (part: Partial<WordsWish>) => onChange({ ...wish, ...part });
  return (
    <>
      <div className="row spread" style={{ marginTop: 6 }}>
        <span className="small quiet">Words, from a list of 2,048</span>
        <InputNumber
          aria-label="How many words"
          size="small"
          min={1}
          max={20}
          value={wish.words}
          onChange={(value) => typeof value === "number" && set({ words: value })}
          style={{ width: 68 }}
        />
      </div>
      <Slider
        min={3}
        max={12}
        value={wish.words}
        onChange={(words) => set({ words })}
        ariaLabelForHandle="How many words"
        tooltip={{ open: false }}
        style={{ margin: "0 6px 4px" }}
      />
      <div className="line">
        <span>Between them</span>
        <Select
          size="small"
          aria-label="Between the words"
          value={wish.separator}
          onChange={(separator) => set({ separator })}
          options={SEPARATORS}
          style={{ width: 130 }}
        />
      </div>
      <div className="line">
        <span className="row" style={{ gap: 8 }}>
          <Switch
            size="small"
            aria-label="Capital first letters"
            checked={wish.capitals}
            onChange={(capitals) => set({ capitals })}
          />
          Capital first letters
        </span>
        <span className="small quiet">no bits</span>
      </div>
      <div className="line">
        <span className="row" style={{ gap: 8 }}>
          <Switch
            size="small"
            aria-label="A digit after one word"
            checked={wish.digit}
            onChange={(digit) => set({ digit })}
          />
          A digit after one word
        </span>
        <span className="small quiet" style={{ whiteSpace: "nowrap" }}>
          +{Math.log2(10 * wish.words).toFixed(1)}
        </span>
      </div>
    </>
  );
});
