import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { Fragment, useState, type ReactNode } from "react";
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

const HOUR_MS = 3_600_000;
const BEFORE =
  "before logins are brought in or merged, a backup is restored, or the vault gets a new key";
/** By so much the time on the screen may lag behind what was just done. */
const NOW_IS_WITHIN_MS = 120_000;

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
  const [restored, setRestored] = useState<{ lacked: boolean } | null>(null);
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
      const known = new Set(backups?.map((one) => one.name));
      const after = await answer(client.GET("/backups"));
      // Beside what cannot be read none can be made that gives everything back.
      setRestored({ lacked: after.every((one) => known.has(one.name)) });
    });

  return (
    <div className={backups?.length ? "two back-up" : "two back-up none-yet"}>
      <section className="stack" aria-label="Back up">
        <p>
          A backup is one file with the whole vault, sealed as the vault is and read through after
          it is written.
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
              <b>Restored.</b> What was there before lies{" "}
              {restored.lacked
                ? "beside the backups, as “….failed”: it lacked what could not be read."
                : "in the newest backup."}
            </span>
          )}
        </div>
        <ProblemNote problem={problem ?? error} />
        {backups?.length === 0 && <p className="quiet">None made yet.</p>}
        {backups && backups.length > 0 && (
          <table className="plain small">
            <thead>
              <tr>
                <th className="wide-110">Made</th>
                <th>File</th>
                <th className="right wide-56">KiB</th>
                <th className="wide-220">
                  <span className="visually-hidden">acts</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {backups.map((one) => (
                <tr key={one.name}>
                  <td>{dayAndTime(one.made_at, now)}</td>
                  <td className="quiet breaks-anywhere" title={one.path}>
                    {one.name}
                  </td>
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
                        aria-label={`Look into, restore: ${one.name}`}
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
      {safeguards && <HowTheyAreKept safeguards={safeguards} now={now} />}
    </div>
  );
}

type KeptProps = { safeguards: Schema["SafeguardsOut"]; now: number };

/** Where backups lie, when the next comes, which stay, and what opens one. */
function HowTheyAreKept({ safeguards: of, now }: KeptProps) {
  const every = of.backup_every_h;
  const last = of.last_backup_at ? Date.parse(of.last_backup_at) : 0;
  // One that is dated later was made by a clock that ran ahead, and puts nothing off.
  const next = last <= now + NOW_IS_WITHIN_MS ? last + every * HOUR_MS : now;
  const facts: [string, ReactNode][] = [
    [
      "Where",
      <>
        <span className="breaks-anywhere">{of.backup_folder}</span>
        {!of.backup_place && (
          <>
            , beside the vault. <Link to="/safeguards">Name a folder on another disk</Link>
          </>
        )}
      </>,
    ],
    [
      "When",
      every
        ? `Every ${count(every, "hour")} while the vault is open, ${
            next > now ? `next ${dayAndTime(new Date(next).toISOString(), now)}` : "next now"
          }; and ${BEFORE}.`
        : `${BEFORE.replace(/^b/, "B")}; none by schedule.`,
    ],
    [
      "Which stay",
      `All of the newest day; of the days, weeks and months before, the newest of each: ${count(of.backup_daily, "day")}, ${count(of.backup_weekly, "week")}, ${count(of.backup_monthly, "month")}.`,
    ],
    [
      "What opens one",
      <>
        The vault&apos;s passphrase of that day, or its recovery sheets:{" "}
        <StartCommand>serve --vault FILE</StartCommand>. Without New Knot,{" "}
        <code>docs/read_vault.py</code> of its source prints it.
      </>,
    ],
  ];
  return (
    <aside className="stack" aria-label="How backups are kept">
      <h2>How they are kept</h2>
      <dl className="facts">
        {facts.map(([name, says]) => (
          <Fragment key={name}>
            <dt>{name}</dt>
            <dd>
              <span>{says}</span>
            </dd>
          </Fragment>
        ))}
      </dl>
      <p className="small">
        <Link to="/safeguards">Change where, when and which</Link>
      </p>
    </aside>
  );
}
