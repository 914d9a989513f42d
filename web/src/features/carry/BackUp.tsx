import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { answer, backupContent, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count, dayAndTime } from "../../domain/moments";
import { sentence } from "../../domain/problems";
import { saveAs } from "../../shared/saveAs";
import { ProblemNote } from "../../shared/ProblemNote";
import { RestorePreview } from "./RestorePreview";
import { StartCommand } from "../../shared/StartCommand";
import { useAct } from "../../shared/useAct";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { Dialogue } from "../../shared/Dialogue";

/** Sealed copies of the vault: made by hand or by schedule, looked into, restored. */
export function BackUp() {
  const safeguards = useQuery(queries.safeguards()).data;
  const { data: backups, error } = useQuery(queries.backups());
  const { problem, busy, run } = useAct();
  const [made, setMade] = useState<string | null>(null);
  const [looked, setLooked] = useState<{
    backup: Schema["BackupOut"];
    lines: Schema["RestoreLineOut"][];
  } | null>(null);
  const [restored, setRestored] = useState<string | null>(null);
  const now = useNow();

  const make = () => run(async () => setMade((await answer(client.POST("/backups"))).name));
  useKeys({ n: () => !busy && void make() });
  const save = (backup: Schema["BackupOut"]) =>
    run(async () => saveAs(await backupContent(backup.name), backup.name));
  const look = (backup: Schema["BackupOut"]) =>
    run(async () => {
      const params = { path: { name: backup.name } };
      const lines = await answer(client.POST("/backups/{name}/look", { params }));
      setLooked({ backup, lines });
    });
  const restore = (name: string) =>
    run(async () => {
      await answer(client.POST("/backups/{name}/restore", { params: { path: { name } } }));
      setRestored(name);
    });

  return (
    <section className="stack" aria-label="Back up">
      <p>
        A backup is one file with the whole vault, sealed as the vault is and read through after it
        is written; the vault's passphrase of that day opens it:{" "}
        <StartCommand>serve --vault FILE</StartCommand>.{" "}
        {safeguards &&
          (safeguards.backup_every_h
            ? `One is made every ${count(safeguards.backup_every_h, "hour")} while the vault is open, and before logins are brought in or merged.`
            : "None is made by schedule.")}{" "}
        <Link to="/safeguards">Change that</Link>.
      </p>
      {safeguards?.backup_problem && (
        <p className="problem" role="alert">
          The last one by schedule failed:{" "}
          {sentence({ code: safeguards.backup_problem, data: safeguards.backup_problem_data })}
        </p>
      )}
      <div className="row">
        <Button type="primary" onClick={() => void make()} loading={busy}>
          Make a sealed backup <kbd>N</kbd>
        </Button>
        {made && (
          <span role="status" className="small">
            Written, and read through to the last record: <b>{made}</b>
          </span>
        )}
        {restored && (
          <span role="status" className="small">
            <b>Restored.</b> What was there before lies in the newest backup.
          </span>
        )}
      </div>
      <ProblemNote problem={problem ?? error} />
      {backups?.length === 0 && <p className="quiet">None made yet.</p>}
      {backups && backups.length > 0 && (
        <table className="plain small">
          <thead>
            <tr>
              <th className="wide-210">Made</th>
              <th>File</th>
              <th className="right wide-90">KiB</th>
              <th className="wide-260">
                <span className="visually-hidden">acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {backups.map((one) => (
              <tr key={one.name}>
                <td>{dayAndTime(one.made_at, now)}</td>
                <td className="quiet breaks-anywhere">{one.path}</td>
                <td className="right">{Math.ceil(one.size_bytes / 1024).toLocaleString("en")}</td>
                <td className="right">
                  <span className="row back-up-row">
                    <button
                      type="button"
                      className="link"
                      aria-label={`Save a copy of ${one.name} elsewhere`}
                      onClick={() => void save(one)}
                    >
                      save a copy…
                    </button>
                    <button
                      type="button"
                      className="link"
                      aria-label={`Look into ${one.name}, to restore it`}
                      onClick={() => void look(one)}
                    >
                      look into, restore…
                    </button>
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Dialogue
        open={looked !== null}
        width={620}
        title={looked ? `As it was ${dayAndTime(looked.backup.made_at, now)}` : ""}
        okText="Restore it"
        cancelText="Cancel"
        okButtonProps={{ disabled: looked?.lines.length === 0 }}
        onCancel={() => setLooked(null)}
        onOk={() => {
          const name = looked?.backup.name;
          setLooked(null);
          if (name) void restore(name);
        }}
      >
        {looked && <RestorePreview lines={looked.lines} />}
      </Dialogue>
    </section>
  );
}
