import { Button, InputNumber, Slider, Switch } from "antd";
import { memo, useRef, type FormEvent } from "react";
import { SENTENCE_LANGUAGES, type Language, type SentenceShape } from "../../domain/wish";
import { SecretInput } from "../../shared/SecretInput";
import { Choice } from "./Choice";

const TEMPLATES: { value: SentenceShape["template"]; label: string }[] = [
  { value: "short", label: "one clause" },
  { value: "middle", label: "fuller" },
  { value: "long", label: "two clauses" },
  { value: "longest", label: "two full clauses" },
];
const LANGUAGES = Object.entries(SENTENCE_LANGUAGES).map(([value, { label }]) => ({
  value: value as Language,
  label,
}));
const JOINERS = [
  { value: " ", label: "blanks" },
  { value: "-", label: "hyphens" },
  { value: ".", label: "stops" },
  { value: "_", label: "underscores" },
];

type SentenceProps = { shape: SentenceShape; onChange: (shape: SentenceShape) => void };

export const SentenceBench = memo(function SentenceBench({ shape, onChange }: SentenceProps) {
  const set = (part: Partial<SentenceShape>) => onChange({ ...shape, ...part });
  return (
    <>
      <Choice
        label="Sentence"
        name="Kind of sentence"
        value={shape.template}
        options={TEMPLATES.map((one) => ({
          ...one,
          label: `${one.label}, ${SENTENCE_LANGUAGES[shape.language].bits[one.value]} bits`,
        }))}
        onChange={(template) => set({ template })}
      />
      <Choice
        label="In"
        name="Language of the sentence"
        value={shape.language}
        options={LANGUAGES}
        onChange={(language) => set({ language })}
      />
      <Choice
        label="Between"
        name="Between the words"
        value={shape.joiner}
        options={JOINERS}
        onChange={(joiner) => set({ joiner })}
      />
      {(["capital", "stop"] as const).map((name) => (
        <div className="line" key={name}>
          <span className="row gap-8">
            <Switch
              size="small"
              aria-label={name === "capital" ? "Capital at the start" : "Stop at the end"}
              checked={shape[name]}
              onChange={(on) => set({ [name]: on })}
            />
            {name === "capital" ? "Capital at the start" : "Stop at the end"}
          </span>
          <span className="small quiet">+0</span>
        </div>
      ))}
      <p className="small quiet">
        Grammatical, absurd, easy to picture: words drawn from a grammar of{" "}
        {SENTENCE_LANGUAGES[shape.language].grammar}
      </p>
    </>
  );
});

type PinProps = { length: number; onChange: (length: number) => void };

export const PinBench = memo(function PinBench({ length, onChange }: PinProps) {
  return (
    <>
      <div className="row spread above-6">
        <span className="small quiet">Digits</span>
        <InputNumber
          aria-label="How many digits"
          size="small"
          min={3}
          max={12}
          value={length}
          onChange={(value) => typeof value === "number" && onChange(value)}
          className="wide-68"
        />
      </div>
      <Slider
        min={3}
        max={12}
        value={length}
        onChange={onChange}
        ariaLabelForHandle="How many digits"
        tooltip={{ open: false }}
        className="other-benches-slider"
      />
      <p className="small quiet">
        Left out is what a thief tries first: repeats, steps, mirrors, days and years, lines on the
        keypad. A PIN guards only where tries are counted.
      </p>
    </>
  );
});

/** The letters of a line are chosen, not drawn: they get a guess number and no bits. */
export function LineBench({ onLine }: { onLine: (line: string) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onLine(field.current?.value ?? "");
  };
  return (
    <form className="stack other-benches-stack" onSubmit={submit} autoComplete="off">
      <SecretInput ref={field} label="A line that only you would think of" />
      <Button htmlType="submit">Take its first letters</Button>
      <p className="small quiet">
        Measured as chosen text, never given a generator's bits. A line from a song, a book or a
        saying falls far sooner than its letters let on.
      </p>
    </form>
  );
}
