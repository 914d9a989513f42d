import { Button, Checkbox, Select } from "antd";
import { useEffect, useEffectEvent, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { count } from "../../domain/moments";
import { ActProgress } from "../../shared/ActProgress";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";

const TARGET_LABELS: Record<string, string> = {
  title: "title",
  user_name: "user name",
  secret: "secret",
  address: "address",
  notes: "notes",
  folder: "folder",
  tags: "tags",
  code_key: "key of codes",
  owner: "in charge",
  importance: "importance",
  expires_on: "expires on",
  field: "a further field",
  secret_field: "a secret field",
  "": "left out",
};
const STATUS_LABELS = {
  new: "new",
  same: "there already",
  differing: "differs",
  kept_out: "kept out",
  bad: "cannot",
};
type Choice = "leave" | "also" | "take";
const CHOICES: { value: Choice; one: string; all: string }[] = [
  { value: "leave", one: "leave it", all: "leave them" },
  { value: "also", one: "a further login", all: "further logins" },
  { value: "take", one: "take its secret", all: "take their secrets" },
];
const ORDER = ["bad", "differing", "new", "kept_out", "same"];
const SHOWN = 300;
type Row = Schema["ImportRowOut"];

/** Every row as it would come in; each, or all of a kind, chosen before anything is written. */
export function ImportPreview(props: {
  table: Schema["ImportTable"];
  onDone: (done: Schema["Imported"]) => void;
  onLeave: () => void;
}) {
  const { table } = props;
  const { problem, busy, run } = useAct();
  const [mapping, setMapping] = useState(table.mapping);
  const [rows, setRows] = useState<Row[]>([]);
  const [chosen, setChosen] = useState<Map<number, Choice>>(new Map());
  const [not, setNot] = useState<Set<number>>(new Set());
  const [applying, setApplying] = useState(false);
  const path = { import_id: table.import_id };

  const preview = (as: string[]) =>
    run(async () => {
      setMapping(as);
      const found = await answer(
        client.POST("/imports/{import_id}/preview", { params: { path }, body: { mapping: as } }),
      );
      setRows(found.rows);
    });
  const onTable = useEffectEvent((mapping: string[]) => void preview(mapping));
  useEffect(() => onTable(table.mapping), [table]);

  const apply = () =>
    run(async () => {
      setApplying(true);
      const body = {
        mapping,
        also_lines: linesOf("also"),
        take_lines: linesOf("take"),
        not_lines: [...not],
      };
      const found = await answer(
        client.POST("/imports/{import_id}/apply", { params: { path }, body }),
      );
      props.onDone(found);
    }).finally(() => setApplying(false));
  const leave = () =>
    run(async () => {
      await answer(client.DELETE("/imports/{import_id}", { params: { path } }));
      props.onLeave();
    });
  const n = (status: Row["status"]) => rows.filter((r) => r.status === status).length;
  const said = (status: Row["status"]) => n(status).toLocaleString("en");
  const differing = rows.filter((r) => r.status === "differing");
  const linesOf = (choice: Choice) =>
    differing.filter((r) => (chosen.get(r.line) ?? "leave") === choice).map((r) => r.line);
  const coming = n("new") - not.size + linesOf("also").length;
  const taking = linesOf("take").length;
  const saidComing = [
    ...(coming || !taking ? [`bring ${count(coming, "login")} in`] : []),
    ...(taking ? [`take ${count(taking, "secret")}`] : []),
  ].join(", ");
  const turn = (r: Row, on: boolean) => {
    const fresh = new Set(not);
    if (on) fresh.delete(r.line);
    else fresh.add(r.line);
    setNot(fresh);
  };
  const all = (on: boolean) => {
    const lines = rows.filter((r) => r.status === "new").map((r) => r.line);
    setNot(on ? new Set() : new Set(lines));
  };
  const choose = (of: Row[], choice: Choice) => {
    const fresh = new Map(chosen);
    for (const r of of) fresh.set(r.line, choice === "take" && !r.can_take ? "leave" : choice);
    setChosen(fresh);
  };
  const choiceOfAll = CHOICES.find(
    ({ value }) => differing.length > 0 && linesOf(value).length === differing.length,
  )?.value;

  return (
    <>
      {table.columns.length > 0 && (
        <>
          <h3>What each column is</h3>
          <div className="row import-preview-row">
            {table.columns.map((column, i) => (
              <label className="field" key={i}>
                <span>{column || `column ${i + 1}`}</span>
                <Select
                  aria-label={`What ${column || `column ${i + 1}`} is`}
                  size="small"
                  listHeight={460}
                  className="wide-136"
                  value={mapping[i]}
                  onChange={(value) => void preview(mapping.map((m, j) => (j === i ? value : m)))}
                  options={table.targets.map((value) => ({
                    value,
                    label: TARGET_LABELS[value] ?? value,
                  }))}
                />
              </label>
            ))}
          </div>
        </>
      )}
      <ProblemNote problem={problem} />
      <div className="row">
        <Button type="primary" onClick={() => void apply()} disabled={!(coming + taking) || busy}>
          {saidComing.charAt(0).toUpperCase() + saidComing.slice(1)}
        </Button>
        {applying ? (
          <ActProgress name="Bringing in" />
        ) : (
          <Button onClick={() => void leave()}>Leave it</Button>
        )}
        {n("new") > 0 && (
          <Checkbox checked={not.size === 0} onChange={(e) => all(e.target.checked)}>
            all {said("new")} new
          </Checkbox>
        )}
        {n("differing") > 0 && (
          <span>
            the {said("differing")} that differ:{" "}
            <Select<Choice>
              aria-label="What becomes of those that differ"
              size="small"
              className="wide-168"
              placeholder="as chosen below"
              value={choiceOfAll ?? null}
              onChange={(choice) => choose(differing, choice)}
              options={CHOICES.map(({ value, all: label }) => ({ value, label }))}
            />
          </span>
        )}
        <span className="small quiet">
          {said("new")} new · {said("same")} there already · {said("differing")} differing ·{" "}
          {said("bad")} that cannot come in{n("kept_out") > 0 && ` · ${said("kept_out")} kept out`}
        </span>
      </div>
      <table className="plain small">
        <thead>
          <tr>
            <th style={{ width: differing.length ? 152 : 32 }}>
              <span className="visually-hidden">comes in</span>
            </th>
            <th className="wide-52">Line</th>
            <th className="wide-104">Status</th>
            <th>Title</th>
            <th>User name</th>
            <th>Address, or reason</th>
          </tr>
        </thead>
        <tbody>
          {[...rows]
            .sort((a, b) => ORDER.indexOf(a.status) - ORDER.indexOf(b.status) || a.line - b.line)
            .slice(0, SHOWN)
            .map((r) => (
              <tr key={r.line}>
                <td>
                  {r.status === "new" && (
                    <Checkbox
                      aria-label={`Bring ${r.title} of line ${r.line} in`}
                      checked={!not.has(r.line)}
                      onChange={(event) => turn(r, event.target.checked)}
                    />
                  )}
                  {r.status === "differing" && (
                    <Select<Choice>
                      aria-label={`What becomes of ${r.title} of line ${r.line}`}
                      size="small"
                      className="wide-140"
                      value={chosen.get(r.line) ?? "leave"}
                      onChange={(choice) => choose([r], choice)}
                      options={CHOICES.map(({ value, one }) => ({
                        value,
                        label: one,
                        disabled: value === "take" && !r.can_take,
                      }))}
                    />
                  )}
                </td>
                <td>{r.line}</td>
                <td className={r.status === "bad" ? "grave" : undefined}>
                  {STATUS_LABELS[r.status]}
                </td>
                <td>{r.title}</td>
                <td>{r.user_name}</td>
                <td>
                  {[r.reason || r.address, ...r.left].filter(Boolean).join("; ")}
                  {r.differs.some((d) => d.here || d.there) && (
                    <dl className="side-by-side">
                      {r.differs
                        .filter((d) => d.here || d.there)
                        .map((d) => (
                          <div key={d.field}>
                            <dt>{d.field}</dt>
                            <dd>here: {d.here || "none"}</dd>
                            <dd>in the file: {d.there || "none"}</dd>
                          </div>
                        ))}
                    </dl>
                  )}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {rows.length > SHOWN && (
        <p className="small quiet">and {(rows.length - SHOWN).toLocaleString("en")} more rows</p>
      )}
    </>
  );
}
