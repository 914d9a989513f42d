import { Checkbox, Select } from "antd";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { ManyRows } from "../../shared/ManyRows";
import { SECRET, takeable, type Choice, type Choices } from "./importChoices";

type Row = Schema["ImportRowOut"];
type Status = Row["status"];

const STATUS_LABELS: Record<Status, string> = {
  new: "new",
  differing: "differs",
  twice: "twice in the file",
  bad: "cannot come in",
  kept_out: "kept out",
  same: "there already",
};
const ORDER: Status[] = ["bad", "differing", "twice", "new", "kept_out", "same"];
const CHOICES: { value: Choice; label: string }[] = [
  { value: "leave", label: "leave it" },
  { value: "also", label: "a further login" },
  { value: "take", label: "take from it" },
];

/** All rows of a file by what becomes of them, each with its own choice. */
export function ImportRows(props: {
  rows: Row[];
  choices: Choices;
  onChange: (choices: Choices) => void;
}) {
  const { rows, choices, onChange } = props;
  const [only, setOnly] = useState<Status | null>(null);
  const counts = ORDER.map((status) => ({
    status,
    count: rows.filter((row) => row.status === status).length,
  })).filter((one) => one.count > 0);
  const shown = rows
    .filter((row) => only === null || row.status === only)
    .sort((a, b) => ORDER.indexOf(a.status) - ORDER.indexOf(b.status) || a.line - b.line);

  const turn = (row: Row, on: boolean) => {
    const not = new Set(choices.not);
    if (on) not.delete(row.line);
    else not.add(row.line);
    onChange({ ...choices, not });
  };
  const choose = (row: Row, choice: Choice) =>
    onChange({ ...choices, of: new Map(choices.of).set(row.line, choice) });
  const leaveField = (row: Row, field: string, left: boolean) => {
    const without = new Set(choices.without.get(row.line));
    if (left) without.add(field);
    else without.delete(field);
    onChange({ ...choices, without: new Map(choices.without).set(row.line, without) });
  };

  const choiceOf = (row: Row) => {
    if (row.status === "new")
      return (
        <Checkbox
          aria-label={`Bring ${row.title} of line ${row.line} in`}
          checked={!choices.not.has(row.line)}
          onChange={(event) => turn(row, event.target.checked)}
        />
      );
    if (row.status !== "differing" && row.status !== "twice") return null;
    return (
      <Select<Choice>
        aria-label={`What becomes of ${row.title} of line ${row.line}`}
        size="small"
        className="wide-140"
        value={choices.of.get(row.line) ?? "leave"}
        onChange={(choice) => choose(row, choice)}
        options={CHOICES.map(({ value, label }) => ({
          value,
          label,
          disabled: value === "take" && takeable(row).length === 0,
        }))}
      />
    );
  };
  const differences = (row: Row) => {
    if (row.differs.length === 0) return null;
    const taking = choices.of.get(row.line) === "take";
    return (
      <dl className="import-differences">
        {row.differs.map((one) => (
          <div key={one.field}>
            <dt>
              {taking && takeable(row).includes(one.field) ? (
                <Checkbox
                  checked={!choices.without.get(row.line)?.has(one.field)}
                  onChange={(event) => leaveField(row, one.field, !event.target.checked)}
                >
                  take its {said(one.field)}
                </Checkbox>
              ) : (
                said(one.field)
              )}
            </dt>
            {one.field !== SECRET && (one.here || one.there) && (
              <>
                <dd>here: {one.here || "none"}</dd>
                <dd>in the file: {one.there || "none"}</dd>
              </>
            )}
          </div>
        ))}
      </dl>
    );
  };

  return (
    <>
      <div className="row" role="group" aria-label="Rows by what becomes of them">
        {counts.map((one) => (
          <button
            key={one.status}
            type="button"
            className="link"
            aria-pressed={only === one.status}
            onClick={() => setOnly(only === one.status ? null : one.status)}
          >
            {one.count.toLocaleString("en")} {STATUS_LABELS[one.status]}
          </button>
        ))}
        {only !== null && (
          <button type="button" className="link" onClick={() => setOnly(null)}>
            Show all
          </button>
        )}
      </div>
      <ManyRows
        label="Rows of the file"
        columns="152px 52px 112px minmax(0, 1fr) minmax(0, 1fr) minmax(0, 2.4fr)"
        heads={["Comes in", "Line", "Status", "Title", "User name", "Address, or reason"]}
        rows={shown}
        cells={(row) => [
          choiceOf(row),
          row.line,
          <span key="status" className={row.status === "bad" ? "grave" : undefined}>
            {STATUS_LABELS[row.status]}
          </span>,
          row.title,
          row.user_name,
          <span key="why">
            {[row.reason || row.address, ...row.left].filter(Boolean).join("; ")}
            {differences(row)}
          </span>,
        ]}
      />
    </>
  );
}

/** A field as it is said: `expires_on` and `field: Yard` alike. */
function said(field: string): string {
  return field === "code_key" ? "key of codes" : field.replace(/_/g, " ");
}
