import { Button } from "antd";
import { Problem } from "../api/client";

/** A field that two windows have set apart, in words. */
export type Parted = { field: string; mine: string; saved: string };

export function isChangedMeanwhile(failure: unknown): boolean {
  return failure instanceof Problem && failure.code === "changed_meanwhile";
}

/** Where what was typed and what was saved meanwhile differ, by field; equal ones are left out. */
export function partedFields(
  mine: Record<string, unknown>,
  saved: Record<string, unknown>,
): Parted[] {
  return Object.keys(mine)
    .map((field) => ({ field, mine: said(mine[field]), saved: said(saved[field]) }))
    .filter((one) => one.mine !== one.saved);
}

/** Saved in another window since it was opened here: both are shown, and the person chooses. */
export function ChangedMeanwhile(props: {
  fields: Parted[];
  busy?: boolean;
  onMine: () => void;
  onSaved: () => void;
}) {
  return (
    <section className="problem stack" role="alert" aria-label="Changed in another window">
      <p>
        <b>This was changed in another window since it was opened here.</b> Nothing was saved over
        it.
      </p>
      {props.fields.length > 0 && (
        <table className="plain small">
          <thead>
            <tr>
              <th>Field</th>
              <th>As typed here</th>
              <th>As saved meanwhile</th>
            </tr>
          </thead>
          <tbody>
            {props.fields.map((one) => (
              <tr key={one.field}>
                <td>{one.field.replace(/_/g, " ")}</td>
                <td className="breaks-anywhere">{one.mine || "empty"}</td>
                <td className="breaks-anywhere">{one.saved || "empty"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="row">
        <Button onClick={props.onMine} loading={props.busy ?? false}>
          Save what is typed here
        </Button>
        <Button onClick={props.onSaved}>Take what was saved</Button>
      </div>
    </section>
  );
}

function said(value: unknown): string {
  if (value === null || value === undefined) return "";
  if (Array.isArray(value)) return value.map(said).join(", ");
  if (typeof value === "object")
    return Object.entries(value)
      .map(([key, one]) => `${key.replace(/_/g, " ")} ${said(one)}`)
      .join("; ");
  return String(value as string | number | boolean);
}
