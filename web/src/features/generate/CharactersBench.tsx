import { InputNumber, Slider, Switch } from "antd";
import { memo, useCallback } from "react";
import { classLabel, withClass, type Policy } from "../../domain/policy";

type Props = {
  /** The policy as the library has it: what a class comes back to. */
  base: Policy;
  policy: Policy;
  length: number;
  lookAlikes: string;
  onChange: (policy: Policy, length: number) => void;
};

/** The policy at hand as switches. */
export function CharactersBench({ base, policy, length, lookAlikes, onChange }: Props) {
  const onPolicy = useCallback((next: Policy) => onChange(next, length), [onChange, length]);
  return (
    <>
      <div className="row spread above-6">
        <span className="small quiet">Length</span>
        <InputNumber
          aria-label="Length in characters"
          size="small"
          min={policy.min_length}
          max={policy.max_length}
          value={length}
          onChange={(value) => typeof value === "number" && onChange(policy, value)}
          className="wide-68"
        />
      </div>
      <Slider
        min={policy.min_length}
        max={Math.min(policy.max_length, 64)}
        value={length}
        onChange={(value) => onChange(policy, value)}
        ariaLabelForHandle="Length in characters"
        tooltip={{ open: false }}
        className="characters-bench-slider"
      />
      <ClassLines base={base} policy={policy} lookAlikes={lookAlikes} onPolicy={onPolicy} />
    </>
  );
}

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
            <span className="row gap-8">
              <Switch
                size="small"
                aria-label={label}
                checked={standing !== undefined}
                onChange={(on) => onPolicy(withClass(policy, name, on ? own : null))}
              />
              {label}
            </span>
            {standing && (
              <span className="row small gap-6">
                at least
                <InputNumber
                  size="small"
                  aria-label={`At least so many of ${label.toLowerCase()}`}
                  min={0}
                  max={policy.max_length}
                  value={standing.minimum}
                  className="wide-56"
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
        <span className="row gap-8">
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
