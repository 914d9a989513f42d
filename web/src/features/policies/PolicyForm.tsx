import { Button, Checkbox, Input, InputNumber } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { classLabel, policySentence, STANDARD, withClass, type Policy } from "../../domain/policy";
import { ChangedMeanwhile, isChangedMeanwhile, partedFields } from "../../shared/ChangedMeanwhile";
import { ProblemNote } from "../../shared/ProblemNote";
import { DraftNote, useFormDraft } from "../../shared/useFormDraft";
import { Dialogue } from "../../shared/Dialogue";

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

/** Rules that few sites have: folded away until one of them is said. */
const RARE = `max_identical_run max_sequence_run max_uses distinct first_from last_from forbidden
  folds_case keeps_first history_depth max_age_days excluded min_classes`.split(/\s+/);
const isSaid = (value: unknown) => (Array.isArray(value) ? value.length > 0 : Boolean(value));

/** What is kept of a form that is left. */
type KeptPolicy = {
  name: string;
  domains: string;
  policy: Policy;
  offers: boolean;
  pasted: string;
  source: Schema["PolicyIn"]["source"];
};

/** Typing what a site takes. */
export function PolicyForm(props: {
  policy: Schema["PolicyOut"] | null;
  onClose: () => void;
  onAnew: () => void;
}) {
  const [name, setName] = useState(props.policy?.name ?? "");
  const [domains, setDomains] = useState(props.policy?.domains.join(", ") ?? "");
  const [policy, setPolicy] = useState((props.policy?.policy as Policy | undefined) ?? FRESH);
  const [pasted, setPasted] = useState("");
  const [source, setSource] = useState<Schema["PolicyIn"]["source"]>("typed");
  const [offers, setOffers] = useState(props.policy?.offers_second_factor ?? false);
  const [unsure, setUnsure] = useState<string[]>([]);
  const [problem, setProblem] = useState<unknown>(null);
  const set = (part: Partial<Policy>) => setPolicy((now) => ({ ...now, ...part }));

  const [saved, setSaved] = useState<Schema["PolicyOut"] | null>(null);
  // What was seen when the form was opened, whatever is asked anew meanwhile.
  const [seenRevision, setSeenRevision] = useState(props.policy?.revision ?? null);

  const kept = useFormDraft<KeptPolicy>(
    `policy-${props.policy?.policy_id ?? "new"}`,
    () => ({ name, domains, policy, offers, pasted, source }),
    (content) => {
      setName(content.name);
      setDomains(content.domains);
      setPolicy(content.policy);
      setOffers(content.offers);
      setPasted(content.pasted);
      setSource(content.source);
    },
    JSON.stringify({ name, domains, policy, offers, pasted }),
  );

  const typed = (): Schema["PolicyIn"] => ({
    name,
    domains: domains.split(/[\s,]+/).filter(Boolean),
    policy,
    source,
    offers_second_factor: offers,
  });
  const take = (one: Schema["PolicyOut"]) => {
    setName(one.name);
    setDomains(one.domains.join(", "));
    setPolicy(one.policy as Policy);
    setOffers(one.offers_second_factor);
    setSeenRevision(one.revision);
    setSaved(null);
  };
  const save = async (seen: string | null) => {
    setProblem(null);
    setSaved(null);
    const body = { ...typed(), revision: seen };
    try {
      if (props.policy)
        await answer(
          client.PUT("/policies/{policy_id}", {
            params: { path: { policy_id: props.policy.policy_id } },
            body,
          }),
        );
      else await answer(client.POST("/policies", { body }));
      void kept.forget();
      props.onClose();
    } catch (failure) {
      if (isChangedMeanwhile(failure)) {
        const { policies } = await answer(client.GET("/policies"));
        setSaved(policies.find((one) => one.policy_id === props.policy?.policy_id) ?? null);
      } else setProblem(failure);
    }
  };

  const [hasRare] = useState(() => RARE.some((rule) => isSaid(policy[rule])));
  /** The sentence while it is changed. */
  const [said, setSaid] = useState<string | null>(null);
  const readSaid = async () => {
    if (said === null || (said.trim() && !(await read(said, "typed")))) return;
    setSaid(null);
  };
  const read = async (text: string, from: Schema["PolicyIn"]["source"] = "form") => {
    setProblem(null);
    try {
      const found = await answer(client.POST("/policies/read", { body: { text } }));
      setPolicy(found.policy as Policy);
      setUnsure(found.unsure);
      setSource(from);
      return true;
    } catch (failure) {
      setProblem(failure);
      return false;
    }
  };

  return (
    <Dialogue
      open
      endsByEnter
      width={760}
      className="policy-form-modal"
      styles={{ body: { maxHeight: "calc(100vh - 170px)", overflow: "auto" } }}
      title={props.policy ? `Policy of ${props.policy.name}` : "A new site policy"}
      okText="Save"
      cancelText="Cancel"
      onOk={() => void save(seenRevision)}
      onCancel={() => kept.leave(props.onClose)}
    >
      <div className="stack">
        <DraftNote draft={kept} onAnew={props.onAnew} />
        {saved && (
          <ChangedMeanwhile
            fields={partedFields(
              { ...typed(), ...policy, policy: null, source: null },
              { ...saved, ...saved.policy, policy: null, source: null },
            )}
            onMine={() => void save(saved.revision)}
            onSaved={() => take(saved)}
          />
        )}
        <div className="row policy-form-row">
          <label className="field grow">
            <span>What the site says, pasted as it is: its words, or its form&apos;s markup</span>
            <Input.TextArea
              rows={2}
              value={pasted}
              autoComplete="off"
              spellCheck={false}
              onChange={(e) => setPasted(e.target.value)}
              onPaste={(e) => {
                const { value, selectionStart, selectionEnd } = e.currentTarget;
                const given = e.clipboardData.getData("text");
                void read(value.slice(0, selectionStart) + given + value.slice(selectionEnd));
              }}
            />
          </label>
          <Button onClick={() => void read(pasted)} disabled={!pasted.trim()}>
            Read
          </Button>
        </div>
        {unsure.length > 0 && (
          <p className="small" role="status">
            <b>Not sure of:</b> {unsure.map((part) => `“${part}”`).join(", ")}
          </p>
        )}
        <label className="field">
          <span>So New Knot understands it: change the sentence where it is not so</span>
          <Input.TextArea
            className="policy-understood"
            rows={2}
            value={said ?? policySentence(policy)}
            autoComplete="off"
            spellCheck={false}
            onChange={(e) => setSaid(e.target.value)}
            onBlur={() => void readSaid()}
            onPressEnter={(e) => {
              e.preventDefault();
              void readSaid();
            }}
          />
        </label>
        <div className="row one-line">
          <label className="field grow">
            <span>Name</span>
            <Input value={name} autoComplete="off" onChange={(e) => setName(e.target.value)} />
          </label>
          <label className="field grow">
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
            begins={props.policy !== null}
            value={policy.min_length}
            onChange={(v) => set({ min_length: v ?? 1 })}
          />
          <Number
            label="Greatest length"
            value={policy.max_length}
            onChange={(v) => set({ max_length: v ?? 1 })}
          />
        </div>
        {[...new Set([...Object.keys(STANDARD), ...policy.classes.map((c) => c.name)])].map(
          (key) => {
            const label = classLabel(key);
            const own = policy.classes.find((c) => c.name === key);
            const usual = own?.characters ?? STANDARD[key]?.characters ?? "";
            return (
              <div className="row one-line" key={key}>
                <Checkbox
                  checked={own !== undefined}
                  className="wide-120"
                  onChange={(e) =>
                    setPolicy(
                      withClass(
                        policy,
                        key,
                        e.target.checked ? { name: key, characters: usual, minimum: 0 } : null,
                      ),
                    )
                  }
                >
                  {label}
                </Checkbox>
                {own && (
                  <>
                    <Input
                      aria-label={`Characters of ${label}`}
                      value={own.characters}
                      autoComplete="off"
                      spellCheck={false}
                      className="policy-form-input"
                      onChange={(e) =>
                        setPolicy(withClass(policy, key, { ...own, characters: e.target.value }))
                      }
                    />
                    <Number
                      label="least"
                      of={label}
                      beside
                      value={own.minimum}
                      onChange={(v) =>
                        setPolicy(withClass(policy, key, { ...own, minimum: v ?? 0 }))
                      }
                    />
                    <Number
                      label="most"
                      of={label}
                      beside
                      value={own.maximum ?? null}
                      onChange={(v) => setPolicy(withClass(policy, key, { ...own, maximum: v }))}
                    />
                  </>
                )}
              </div>
            );
          },
        )}
        <Checkbox checked={offers} onChange={(e) => setOffers(e.target.checked)}>
          The site offers a second factor
        </Checkbox>
        <details open={hasRare} className="policy-rarer">
          <summary>
            Rarer rules: rows and sequences, first and last, forbidden texts, what is kept, reuse,
            age…
          </summary>
          <div className="stack above-6">
            <div className="row">
              <Number
                label="Kinds of character, at least"
                value={policy.min_classes}
                onChange={(v) => set({ min_classes: v ?? 0 })}
              />
              <Number
                label="Change after days (empty: never)"
                value={policy.max_age_days}
                onChange={(v) => set({ max_age_days: v })}
              />
              <Number
                label="Remembers the last (empty: not known)"
                value={policy.history_depth ?? null}
                onChange={(v) => set({ history_depth: v })}
              />
            </div>
            <Neighbours policy={policy} onChange={set} />
            <div className="row policy-form-row-2">
              <label className="field grow">
                <span>Characters that it refuses</span>
                <Input
                  value={policy.excluded}
                  autoComplete="off"
                  spellCheck={false}
                  className="in-mono"
                  onChange={(e) => set({ excluded: e.target.value })}
                />
              </label>
              <Checkbox
                checked={policy.folds_case ?? false}
                className="policy-form-checkbox"
                onChange={(e) => set({ folds_case: e.target.checked })}
              >
                Treats upper and lower case alike
              </Checkbox>
            </div>
          </div>
        </details>
        <ProblemNote problem={problem} />
      </div>
    </Dialogue>
  );
}

function Number(props: {
  label: string;
  /** Of what, where the label beside it does not say so. */
  of?: string;
  value: number | null;
  onChange: (value: number | null) => void;
  beside?: boolean;
  /** The form begins here. */
  begins?: boolean;
}) {
  const field = (
    <InputNumber
      data-begins={props.begins || undefined}
      aria-label={props.of ? `At ${props.label} so many of ${props.of}` : props.label}
      min={0}
      value={props.value}
      onChange={props.onChange}
      className="wide-72"
    />
  );
  if (props.beside)
    return (
      <span className="row small quiet policy-form-row-3">
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

/** The rules that look at neighbours, ends, and at what the site keeps. */
function Neighbours(props: { policy: Policy; onChange: (part: Partial<Policy>) => void }) {
  const { policy, onChange } = props;
  const [forbidden, setForbidden] = useState((policy.forbidden ?? []).join(", "));
  const text = (key: "first_from" | "last_from", label: string) => (
    <label className="field grow">
      <span>{label}</span>
      <Input
        value={policy[key] ?? ""}
        autoComplete="off"
        spellCheck={false}
        className="in-mono"
        onChange={(e) => onChange({ [key]: e.target.value || null })}
      />
    </label>
  );
  return (
    <>
      <div className="row">
        <Number
          label="Alike in a row, at most"
          value={policy.max_identical_run ?? null}
          onChange={(v) => onChange({ max_identical_run: v || null })}
        />
        <Number
          label="Sequence (abc, 321), at most"
          value={policy.max_sequence_run ?? null}
          onChange={(v) => onChange({ max_sequence_run: v || null })}
        />
        <Number
          label="Uses of one character, at most"
          value={policy.distinct ? 1 : (policy.max_uses ?? null)}
          onChange={(v) => onChange({ distinct: v === 1, max_uses: v && v > 1 ? v : null })}
        />
        <Number
          label="Silently keeps only the first"
          value={policy.keeps_first ?? null}
          onChange={(v) => onChange({ keeps_first: v || null })}
        />
      </div>
      <div className="row policy-form-row">
        {text("first_from", "Begins with one of")}
        {text("last_from", "Ends with one of")}
        <label className="field policy-form-field">
          <span>Forbidden texts, with commas</span>
          <Input
            value={forbidden}
            autoComplete="off"
            spellCheck={false}
            onChange={(e) => {
              setForbidden(e.target.value);
              const texts = e.target.value.split(",").map((one) => one.trim());
              onChange({ forbidden: texts.filter(Boolean) });
            }}
          />
        </label>
      </div>
    </>
  );
}
