import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Select } from "antd";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { answer, backupContent, client, sendFile, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count, dayAndTime } from "../../domain/moments";
import { saveAs } from "../../shared/saveAs";
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
  field: "a further field",
  "": "left out",
};
const STATUS_LABELS = { new: "new", same: "there already", differing: "differs", bad: "cannot" };
const SHOWN = 200;

/** Bringing logins in from CSV, and a sealed backup out: real input is the first thing one has. */
export default function CarryPage() {
  return (
    <main className="page">
      <h1 style={{ marginBottom: 18 }}>Bring in and back up</h1>
      <div className="two" style={{ gridTemplateColumns: "minmax(0, 1fr) 340px" }}>
        <BringIn />
        <BackUp />
      </div>
    </main>
  );
}

function BringIn() {
  const { problem, busy, run } = useAct();
  const picker = useRef<HTMLInputElement>(null);
  const [fileName, setFileName] = useState("");
  const [table, setTable] = useState<Schema["ImportTable"] | null>(null);
  const [mapping, setMapping] = useState<string[]>([]);
  const [rows, setRows] = useState<Schema["ImportRowOut"][]>([]);
  const [alsoDiffering, setAlsoDiffering] = useState(false);
  const [added, setAdded] = useState<number | null>(null);
  const preview = async (of: Schema["ImportTable"], as: string[]) => {
    setMapping(as);
    const found = await answer(
      client.POST("/imports/{import_id}/preview", {
        params: { path: { import_id: of.import_id } },
        body: { mapping: as },
      }),
    );
    setRows(found.rows);
  };
  const read = (file: File) =>
    run(async () => {
      setAdded(null);
      setTable(null);
      setRows([]);
      setFileName(file.name);
      const found = await sendFile(file);
      setTable(found);
      await preview(found, found.mapping);
    });
  const apply = () =>
    run(async () => {
      if (!table) return;
      const { added_count } = await answer(
        client.POST("/imports/{import_id}/apply", {
          params: { path: { import_id: table.import_id } },
          body: { mapping, also_differing: alsoDiffering },
        }),
      );
      setAdded(added_count);
      setTable(null);
      setRows([]);
    });
  const leave = () =>
    run(async () => {
      if (!table) return;
      await answer(
        client.DELETE("/imports/{import_id}", {
          params: { path: { import_id: table.import_id } },
        }),
      );
      setTable(null);
      setRows([]);
    });

  const n = (status: Schema["ImportRowOut"]["status"]) =>
    rows.filter((r) => r.status === status).length;
  const coming = n("new") + (alsoDiffering ? n("differing") : 0);

  return (
    <section className="stack" aria-label="Bring in">
      <h2>Bring in</h2>
      <p>
        A CSV file with a first row of column names, in any order, up to 20 MB. It is read on this
        machine, and nothing is written before you have seen every row.
      </p>
      <div className="row">
        <Button
          type={table ? "default" : "primary"}
          onClick={() => picker.current?.click()}
          loading={busy}
        >
          Choose a file…
        </Button>
        <input
          ref={picker}
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          hidden
          aria-label="CSV file"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) void read(file);
          }}
        />
        {table && (
          <span className="small quiet">
            {fileName}: {count(table.row_count, "row")}, {table.encoding}, separated by{" "}
            {table.separator === "\t" ? "tabs" : `“${table.separator}”`}
          </span>
        )}
      </div>
      <ProblemNote problem={problem} />
      {added !== null && (
        <div className="problem" role="status" style={{ borderColor: "var(--copper)" }}>
          <b>{count(added, "login")} brought in.</b> The file <b>{fileName}</b> still lies on your
          disk where you chose it, with every secret in the clear, and perhaps in the bin of the
          program that made it: delete it for good. <Link to="/">Check the vault</Link> next.
        </div>
      )}
      {table && (
        <>
          <h3>What each column is</h3>
          <div className="row" style={{ alignItems: "flex-end" }}>
            {table.columns.map((column, i) => (
              <label className="field" key={i}>
                <span>{column || `column ${i + 1}`}</span>
                <Select
                  aria-label={`What ${column || `column ${i + 1}`} is`}
                  size="small"
                  style={{ width: 136 }}
                  value={mapping[i]}
                  onChange={(value) =>
                    void run(() =>
                      preview(
                        table,
                        mapping.map((m, j) => (j === i ? value : m)),
                      ),
                    )
                  }
                  options={table.targets.map((value) => ({
                    value,
                    label: TARGET_LABELS[value] ?? value,
                  }))}
                />
              </label>
            ))}
          </div>
          <div className="row">
            <Button type="primary" onClick={() => void apply()} disabled={!coming || busy}>
              Bring {count(coming, "login")} in
            </Button>
            <Button onClick={() => void leave()}>Leave it</Button>
            {n("differing") > 0 && (
              <Checkbox
                checked={alsoDiffering}
                onChange={(event) => setAlsoDiffering(event.target.checked)}
              >
                also the {n("differing")} that differ, as further logins
              </Checkbox>
            )}
            <span className="small quiet">
              {n("new")} new · {n("same")} there already · {n("differing")} differing · {n("bad")}{" "}
              that cannot come in
            </span>
          </div>
          <table className="plain small">
            <thead>
              <tr>
                <th style={{ width: 52 }}>Line</th>
                <th style={{ width: 104 }}>Status</th>
                <th>Title</th>
                <th>User name</th>
                <th>Address, or reason</th>
              </tr>
            </thead>
            <tbody>
              {[...rows]
                .sort((a, b) => Number(b.status === "bad") - Number(a.status === "bad"))
                .slice(0, SHOWN)
                .map((r) => (
                  <tr key={r.line}>
                    <td>{r.line}</td>
                    <td className={r.status === "bad" ? "grave" : undefined}>
                      {STATUS_LABELS[r.status]}
                    </td>
                    <td>{r.title}</td>
                    <td>{r.user_name}</td>
                    <td>{r.reason || r.address}</td>
                  </tr>
                ))}
            </tbody>
          </table>
          {rows.length > SHOWN && (
            <p className="small quiet">
              and {(rows.length - SHOWN).toLocaleString("en")} more rows
            </p>
          )}
        </>
      )}
    </section>
  );
}

function BackUp() {
  const { data } = useQuery(queries.safeguards());
  const [made, setMade] = useState<Schema["BackupOut"] | null>(null);
  const { problem, busy, run } = useAct();

  const make = () => run(async () => setMade(await answer(client.POST("/backups"))));
  const download = (backup: Schema["BackupOut"]) =>
    run(async () => saveAs(await backupContent(backup.name), backup.name));

  return (
    <section className="stack" aria-label="Back up">
      <h2>Back up</h2>
      <p>
        One file with the whole vault, sealed as the vault is, opened by the same passphrase:{" "}
        <code>./run serve --vault FILE</code>.
      </p>
      <p className="small quiet">
        {data?.last_backup_at
          ? `Last made ${dayAndTime(data.last_backup_at, Date.now())}.`
          : "None made yet."}
      </p>
      <div className="row">
        <Button type="primary" onClick={() => void make()} loading={busy}>
          Make a sealed backup
        </Button>
      </div>
      <ProblemNote problem={problem} />
      {made && (
        <div className="stack" role="status">
          <p>
            Written and opened once to be sure: <b>{made.name}</b>,{" "}
            {Math.ceil(made.size_bytes / 1024).toLocaleString("en")} KiB.
          </p>
          <p className="small quiet" style={{ overflowWrap: "anywhere" }}>
            {made.path}
          </p>
          <p>
            It lies on the same disk as the vault.{" "}
            <button type="button" className="link" onClick={() => void download(made)}>
              Save a copy elsewhere…
            </button>
          </p>
        </div>
      )}
    </section>
  );
}
