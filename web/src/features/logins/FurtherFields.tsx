import { Button, Checkbox, Input } from "antd";

export type FieldDraft = {
  id: number;
  name: string;
  /** Of plain fields alone; a secret one's value stays in its input. */
  value: string;
  secret: boolean;
  /** A secret field that is there already: left empty, it stays as it is. */
  kept: boolean;
};

type Props = {
  fields: FieldDraft[];
  onChange: (fields: FieldDraft[]) => void;
  register: (id: number, element: HTMLInputElement | null) => void;
};

export function FurtherFields({ fields, onChange, register }: Props) {
  const change = (id: number, part: Partial<FieldDraft>) =>
    onChange(fields.map((f) => (f.id === id ? { ...f, ...part } : f)));
  return (
    <fieldset className="stack further-fields-stack">
      <legend className="small quiet further-fields-small">Further fields</legend>
      {fields.map((f) => (
        <div className="row one-line" key={f.id}>
          <Input
            aria-label="Name of the field"
            placeholder="name"
            value={f.name}
            disabled={f.kept}
            autoComplete="off"
            onChange={(event) => change(f.id, { name: event.target.value })}
            className="wide-150"
          />
          {f.secret ? (
            <input
              ref={(element) => register(f.id, element)}
              className="secret-input"
              type="password"
              autoComplete="one-time-code"
              spellCheck={false}
              aria-label={`Value of ${f.name || "the field"}`}
              placeholder={f.kept ? "unchanged" : "value"}
            />
          ) : (
            <Input
              aria-label={`Value of ${f.name || "the field"}`}
              placeholder="value"
              value={f.value}
              autoComplete="off"
              onChange={(event) => change(f.id, { value: event.target.value })}
            />
          )}
          <Checkbox
            checked={f.secret}
            disabled={f.kept}
            onChange={(event) => change(f.id, { secret: event.target.checked, value: "" })}
          >
            secret
          </Checkbox>
          <button
            type="button"
            className="link small"
            aria-label={`Remove ${f.name || "the field"}`}
            onClick={() => onChange(fields.filter((other) => other.id !== f.id))}
          >
            remove
          </button>
        </div>
      ))}
      <div>
        <Button
          size="small"
          onClick={() =>
            onChange([
              ...fields,
              {
                id: Math.max(-1, ...fields.map((f) => f.id)) + 1,
                name: "",
                value: "",
                secret: false,
                kept: false,
              },
            ])
          }
        >
          Add a field
        </Button>
      </div>
    </fieldset>
  );
}
