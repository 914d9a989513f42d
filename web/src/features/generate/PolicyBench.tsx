import { InputNumber, Radio, Select, Slider, Switch } from "antd";
import { memo, useCallback, useRef } from "react";
import type { Schema } from "../../api/client";
import type { WordsWish } from "../../shared/useDraw";
import { WordsBench } from "./WordsBench";
import { classLabel, policySentence, withClass, type Policy } from "../../domain/policy";

export const NO_SITE = "none";

type Props = {
  library: Schema["PolicyList"];
  site: string;
  /** The policy as the library has it: what a class comes back to. */
  base: Policy;
  policy: Policy;
  length: number;
  /** Words instead of characters, or null. */
  words: WordsWish | null;
  onPick: (site: string) => void;
  onChange: (policy: Policy, length: number) => void;
  onWords: (wish: WordsWish | null) => void;
};

/** The policy at hand as switches and as one sentence. Drawn anew only when it changes. */
export const PolicyBench = memo(function PolicyBench(props: Props) {
  const { library, site, base, policy, length, words, onPick, onChange, onWords } = props;
  const held = useRef(length);
  held.current = length;
  const onPolicy = useCallback((next: Policy) => onChange(next, held.current), [onChange]);
  return (
    <section className="bench" aria-label="Site policy">
      <SitePick library={library} site={site} onPick={onPick} />
      <div>
        <p className="small quiet">Site policy</p>
        <p>{policySentence(policy)}</p>
      </div>
      <KindPick words={words} onWords={onWords} />
      {words ? (
        <WordsBench wish={words} onChange={onWords} />
      ) : (
        <>
          <div className="row spread" style={{ marginTop: 6 }}>
            <span className="small quiet">Length</span>
            <InputNumber
              aria-label="Length in characters"
              size="small"
              min={policy.min_length}
              max={policy.max_length}
              value={length}
              onChange={(value) => typeof value === "number" && onChange(policy, value)}
              style={{ width: 68 }}
            />
          </div>
          <Slider
            min={policy.min_length}
            max={Math.min(policy.max_length, 64)}
            value={length}
            onChange={(value) => onChange(policy, value)}
            ariaLabelForHandle="Length in characters"
            tooltip={{ open: false }}
            style={{ margin: "0 6px 4px" }}
          />
          <ClassLines
            base={base}
            policy={policy}
            lookAlikes={library.look_alikes}
            onPolicy={onPolicy}
          />
        </>
      )}
    </section>
  );
});

const SitePick = memo(function SitePick(props: Pick<Props, "library" | "site" | "onPick">) {
  const { library, site, onPick } = props;
  return (
    <label className="field">
      <span>For</span>
      <Select
        value={site}
        onChange={onPick}
        aria-label="For which site"
        options={[
          { value: NO_SITE, label: "no site in particular" },
          ...library.policies.map((p) => ({ value: p.policy_id, label: p.name })),
        ]}
      />
    </label>
  );
});

type LinesProps = {
  base: Policy;
  policy: Policy;
  lookAlikes: string;
  onPolicy: (policy: Policy) => void;
};

/** A slider step leaves these as they are. */
const ClassLines = memo(function ClassLines({ base, policy, lookAlikes, onPolicy }: LinesProps) {
  return (
    <>
      {base.classes.map(({ name }) => {
        const label = classLabel(name);
        const standing = policy.classes.find((c) => c.name === name);
        const own = base.classes.find((c) => c.name === name) ?? null;
        return (
          <div className="line" key={name}>
            <span className="row" style={{ gap: 8 }}>
              <Switch
                size="small"
                aria-label={label}
                checked={standing !== undefined}
                onChange={(on) => onPolicy(withClass(policy, name, on ? own : null))}
              />
              {label}
            </span>
            {standing && (
              <span className="row small" style={{ gap: 6 }}>
                at least
                <InputNumber
                  size="small"
                  aria-label={`At least so many of ${label.toLowerCase()}`}
                  min={0}
                  max={policy.max_length}
                  value={standing.minimum}
                  style={{ width: 56 }}
                  onChange={(value) =>
                    typeof value === "number" &&
                    onPolicy(withClass(policy, name, { ...standing, minimum: value }))
                  }
                />
              </span>
            )}
          </div>
        );
      })}
      <div className="line">
        <span className="row" style={{ gap: 8 }}>
          <Switch
            size="small"
            aria-label="Leave out look-alikes"
            checked={policy.excluded !== ""}
            onChange={(on) => onPolicy({ ...policy, excluded: on ? lookAlikes : "" })}
          />
          Leave out look-alikes
        </span>
      </div>
    </>
  );
});

const CHARACTERS = "characters";
const WORDS: WordsWish = { words: 6, separator: " ", capitals: false, digit: false };

const KindPick = memo(function KindPick({ words, onWords }: Pick<Props, "words" | "onWords">) {
  return (
    <Radio.Group
      size="small"
      optionType="button"
      aria-label="What the secret is made of"
      value={words ? "words" : CHARACTERS}
      onChange={(event) => onWords(event.target.value === CHARACTERS ? null : WORDS)}
      options={[
        { value: CHARACTERS, label: "Characters" },
        { value: "words", label: "Words" },
      ]}
    />
  );
});
