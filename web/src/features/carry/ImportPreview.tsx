import { Button, Checkbox, Select } from "antd";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { count } from "../../domain/moments";
import { ActProgress } from "../../shared/ActProgress";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { applied, chosen, NO_CHOICES, takeable, type Choice, type Choices } from "./importChoices";
import { ImportRows } from "./ImportRows";

const TARGET_LABELS: Record<string, string> = {
  code_key: "key of codes",
  owner: "in charge",
  second_factor: "second factor",
  driven: "forms may be filled",
  created_at: "made at",
  secret_since_at: "secret since",
  field: "a further field",
  secret_field: "a secret field",
  "": "left out",
};
const ALL: { value: Choice; label: string }[] = [
  { value: "leave", label: "leave them" },
  { value: "also", label: "further logins" },
  { value: "take", label: "take from them" },
];
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
  const [choices, setChoices] = useState<Choices>(NO_CHOICES);
  const [working, setWorking] = useState<"" | "Looking at the rows" | "Bringing in">("");
  const asked = useRef<string[]>([]);
  const answerTo = useRef<HTMLButtonElement>(null);
  const path = { import_id: table.import_id };

  const preview = (as: string[]) =>
    run(async () => {
      setWorking("Looking at the rows");
      setMapping(as);
      asked.current = as;
      const found = await answer(
        client.POST("/imports/{import_id}/preview", { params: { path }, body: { mapping: as } }),
      );
      // Of two that were asked for, the later holds, whichever is answered first.
      if (asked.current === as) setRows(found.rows);
    }).finally(() => setWorking(""));
  const onTable = useEffectEvent((mapping: string[]) => void preview(mapping));
  useEffect(() => onTable(table.mapping), [table]);

  const isReady = rows.length > 0 && !busy;
  useEffect(() => {
    // Once the rows are there to be seen; not away from what is being chosen.
    if (isReady && !document.activeElement?.matches("input, button")) answerTo.current?.focus();
  }, [isReady]);

  const apply = () =>
    run(async () => {
      setWorking("Bringing in");
      const body = { mapping, take_lines: [], ...applied(rows, choices) };
      const found = await answer(
        client.POST("/imports/{import_id}/apply", { params: { path }, body }),
      );
      props.onDone(found);
    }).finally(() => setWorking(""));
  const leave = () =>
    run(async () => {
      await answer(client.DELETE("/imports/{import_id}", { params: { path } }));
      props.onLeave();
    });

  const fresh = rows.filter((row) => row.status === "new");
  const differing = rows.filter((row) => row.status === "differing");
  const body = applied(rows, choices);
  const coming = fresh.length - choices.not.size + body.also_lines.length;
  const taking = body.take_fields.length;
  const saidComing = [
    ...(coming || !taking ? [`bring ${count(coming, "login")} in`] : []),
    ...(taking ? [`take from ${count(taking, "row")}`] : []),
  ].join(", ");
  const all = (on: boolean) =>
    setChoices({ ...choices, not: on ? new Set() : new Set(fresh.map((row) => row.line)) });
  const chooseAll = (choice: Choice) => {
    const of = new Map(choices.of);
    for (const row of differing)
      of.set(row.line, choice === "take" && takeable(row).length === 0 ? "leave" : choice);
    setChoices({ ...choices, of });
  };
  const choiceOfAll = ALL.find(
    ({ value }) =>
      differing.length > 0 && chosen(differing, choices, value).length === differing.length,
  )?.value;

  return (
    <>
      {table.columns.length > 0 && (
        <>
          <h2>What each column is</h2>
          <div className="row import-preview-row">
            {table.columns.map((column, i) => (
              <label className="field" key={i}>
                <span>{column || `column ${i + 1}`}</span>
                <Select
                  aria-label={`What ${column || `column ${i + 1}`} is`}
                  size="small"
                  listHeight={460}
                  showSearch={{ optionFilterProp: "label" }}
                  popupMatchSelectWidth={190}
                  className="wide-136"
                  value={mapping[i]}
                  onChange={(value) => void preview(mapping.map((m, j) => (j === i ? value : m)))}
                  options={table.targets.map((value) => ({
                    value,
                    label: TARGET_LABELS[value] ?? value.replace(/_/g, " "),
                  }))}
                />
              </label>
            ))}
          </div>
        </>
      )}
      <ProblemNote problem={problem} />
      <div className="row">
        <Button
          ref={answerTo}
          type="primary"
          onClick={() => void apply()}
          disabled={!(coming + taking) || busy}
        >
          {saidComing.charAt(0).toUpperCase() + saidComing.slice(1)}
        </Button>
        {working ? (
          <ActProgress name={working} />
        ) : (
          <Button onClick={() => void leave()}>Cancel</Button>
        )}
        {fresh.length > 0 && (
          <Checkbox checked={choices.not.size === 0} onChange={(e) => all(e.target.checked)}>
            {fresh.length === 1 ? "the new one" : `all ${fresh.length.toLocaleString("en")} new`}
          </Checkbox>
        )}
        {differing.length > 0 && (
          <span>
            {differing.length === 1
              ? "the one that differs:"
              : `the ${differing.length.toLocaleString("en")} that differ:`}{" "}
            <Select<Choice>
              aria-label="What becomes of those that differ"
              size="small"
              className="wide-168"
              placeholder="as chosen below"
              value={choiceOfAll ?? null}
              onChange={chooseAll}
              options={ALL}
            />
          </span>
        )}
      </div>
      <ImportRows rows={rows} choices={choices} onChange={setChoices} />
    </>
  );
}
