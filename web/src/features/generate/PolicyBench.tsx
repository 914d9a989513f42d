import { InputNumber, Select, Slider, Switch } from "antd";
import { memo } from "react";
import type { Schema } from "../../api/client";
import { classLabel, policySentence, withClass, type Policy } from "../../domain/policy";

export const NO_SITE = "none";

type Props = {
  library: Schema["PolicyList"];
  site: string;
  /** The policy as the library has it: what a class comes back to. */
  base: Policy;
  policy: Policy;
  length: number;
  onPick: (site: string) => void;
  onChange: (policy: Policy, length: number) => void;
};

/** The policy at hand as switches and as one sentence. Drawn anew only when it changes. */
export const PolicyBench = memo(function PolicyBench(props: Props) {
  const { library, site, base, policy, length, onPick, onChange } = props;
  return (
    <section className="bench" aria-label="Site policy">
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
      <div>
        <p className="small quiet">Site policy</p>
        <p>{policySentence(policy)}</p>
      </div>
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
                onChange={(on) => onChange(withClass(policy, name, on ? own : null), length)}
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
                    onChange(withClass(policy, name, { ...standing, minimum: value }), length)
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
            onChange={(on) =>
              onChange({ ...policy, excluded: on ? library.look_alikes : "" }, length)
            }
          />
          Leave out look-alikes
        </span>
      </div>
    </section>
  );
});
