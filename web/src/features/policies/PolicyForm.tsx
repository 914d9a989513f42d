import { useQueryClient } from "@tanstack/react-query";
import { Checkbox, Input, InputNumber, Modal } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { policySentence, STANDARD, withClass, type Policy } from "../../domain/policy";
import { ProblemNote } from "../../shared/ProblemNote";

const FRESH: Policy = {
  min_length: 8,
  max_length: 32,
  classes: Object.entries(STANDARD).map(([name, { characters }]) => ({
    name,
    characters,
    minimum: 0,
  })),
  min_classes: 0,
  excluded: "",
  max_age_days: null,
};

/** Typing what a site takes. */
export function PolicyForm(props: { policy: Schema["PolicyOut"] | null; onClose: () => void }) {
  const queryClient = useQueryClient();
  const [name, setName] = useState(props.policy?.name ?? "");
  const [domains, setDomains] = useState(props.policy?.domains.join(", ") ?? "");
  const [policy, setPolicy] = useState((props.policy?.policy as Policy | undefined) ?? FRESH);
  const [problem, setProblem] = useState<unknown>(null);
  const set = (part: Partial<Policy>) => setPolicy((now) => ({ ...now, ...part }));

  const save = async () => {
    setProblem(null);
    const body: Schema["PolicyIn"] = {
      name,
      domains: domains.split(/[\s,]+/).filter(Boolean),
      policy,
    };
    try {
      if (props.policy)
        await answer(
          client.PUT("/policies/{policy_id}", {
            params: { path: { policy_id: props.policy.policy_id } },
            body,
          }),
        );
      else await answer(client.POST("/policies", { body }));
      await queryClient.invalidateQueries({ queryKey: ["policies"] });
      props.onClose();
    } catch (failure) {
      setProblem(failure);
    }
  };

  return (
    <Modal
      open
      width={640}
      title={props.policy ? `Policy of ${props.policy.name}` : "A new site policy"}
      okText="Save"
      cancelText="Leave it"
      onOk={() => void save()}
      onCancel={props.onClose}
    >
      <div className="stack">
        <div className="row" style={{ flexWrap: "nowrap" }}>
          <label className="field" style={{ flex: 1 }}>
            <span>Name</span>
            <Input value={name} autoComplete="off" onChange={(e) => setName(e.target.value)} />
          </label>
          <label className="field" style={{ flex: 1 }}>
            <span>Sites (domains, with commas)</span>
            <Input
              value={domains}
              autoComplete="off"
              onChange={(e) => setDomains(e.target.value)}
            />
          </label>
        </div>
        <div className="row">
          <Number
            label="Least length"
            value={policy.min_length}
            onChange={(v) => set({ min_length: v ?? 1 })}
          />
          <Number
            label="Greatest length"
            value={policy.max_length}
            onChange={(v) => set({ max_length: v ?? 1 })}
          />
          <Number
            label="Kinds at least"
            value={policy.min_classes}
            onChange={(v) => set({ min_classes: v ?? 0 })}
          />
          <Number
            label="Change after days (empty: never)"
            value={policy.max_age_days}
            onChange={(v) => set({ max_age_days: v })}
          />
        </div>
        {Object.entries(STANDARD).map(([key, standard]) => {
          const own = policy.classes.find((c) => c.name === key);
          return (
            <div className="row" key={key} style={{ flexWrap: "nowrap" }}>
              <Checkbox
                checked={own !== undefined}
                style={{ width: 120 }}
                onChange={(e) =>
                  setPolicy(
                    withClass(
                      policy,
                      key,
                      e.target.checked
                        ? { name: key, characters: standard.characters, minimum: 0 }
                        : null,
                    ),
                  )
                }
              >
                {standard.label}
              </Checkbox>
              {own && (
                <>
                  <Input
                    aria-label={`Characters of ${standard.label}`}
                    value={own.characters}
                    autoComplete="off"
                    spellCheck={false}
                    style={{ fontFamily: "var(--mono)", flex: 1 }}
                    onChange={(e) =>
                      setPolicy(withClass(policy, key, { ...own, characters: e.target.value }))
                    }
                  />
                  <Number
                    label="least"
                    beside
                    value={own.minimum}
                    onChange={(v) => setPolicy(withClass(policy, key, { ...own, minimum: v ?? 0 }))}
                  />
                  <Number
                    label="most"
                    beside
                    value={own.maximum ?? null}
                    onChange={(v) => setPolicy(withClass(policy, key, { ...own, maximum: v }))}
                  />
                </>
              )}
            </div>
          );
        })}
        <label className="field">
          <span>Characters that it refuses</span>
          <Input
            value={policy.excluded}
            autoComplete="off"
            spellCheck={false}
            style={{ fontFamily: "var(--mono)" }}
            onChange={(e) => set({ excluded: e.target.value })}
          />
        </label>
        <p className="small quiet">{policySentence(policy)}</p>
        <ProblemNote problem={problem} />
      </div>
    </Modal>
  );
}

function Number(props: {
  label: string;
  value: number | null;
  onChange: (value: number | null) => void;
  beside?: boolean;
}) {
  const field = (
    <InputNumber
      aria-label={props.label}
      min={0}
      value={props.value}
      onChange={props.onChange}
      style={{ width: 72 }}
    />
  );
  if (props.beside)
    return (
      <span className="row small quiet" style={{ gap: 5, flexWrap: "nowrap" }}>
        {props.label} {field}
      </span>
    );
  return (
    <label className="field">
      <span>{props.label}</span>
      {field}
    </label>
  );
}
