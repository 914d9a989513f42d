import { useQuery } from "@tanstack/react-query";
import { Button, InputNumber, Select, Switch } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count, dayAndTime } from "../../domain/moments";
import { ChangedMeanwhile, isChangedMeanwhile, partedFields } from "../../shared/ChangedMeanwhile";
import { ProblemNote } from "../../shared/ProblemNote";
import { BackupLines } from "./BackupLines";
import { Corpora } from "./Corpora";
import { usable } from "../../domain/corpora";
import { HistoryLine, KeptOutLine } from "./KeepingLines";
import { Line, ServiceLine } from "./Lines";
import { OwnDetails } from "./OwnDetails";
import { Sessions } from "./Sessions";
import { DraftNote, useFormDraft } from "../../shared/useFormDraft";
import { useNow } from "../../shared/useNow";

type Safeguards = Omit<Schema["SafeguardsIn"], "revision">;
type Act = Schema["Act"];
type Rule = Schema["ProofRule"];

const ACTS: Record<Act, string> = {
  reveal: "showing a secret",
  copy: "copying a secret",
  edit: "changing or rotating a login",
  delete: "deleting, and changing safeguards",
  check: "checking the vault",
  export: "taking anything out, and recovery sheets",
};

/** Every safeguard with its state: those that are off are said first. */
export default function SafeguardsPage() {
  const { data, error } = useQuery(queries.safeguards());
  if (!data)
    return (
      <main className="page" aria-busy={!error}>
        <ProblemNote problem={error} />
      </main>
    );
  return <SafeguardsForm held={data} />;
}

function SafeguardsForm({ held: current }: { held: Schema["SafeguardsOut"] }) {
  // What was seen when the page was opened, whatever is asked anew meanwhile.
  const [seen, setSeen] = useState(current);
  const [saved, setSaved] = useState<Schema["SafeguardsOut"] | null>(null);
  const held = { ...current, ...inputOf(seen) };
  const [wanted, setWanted] = useState<Safeguards>(() => inputOf(held));
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const session = useQuery(queries.session()).data;
  const now = useNow();
  const set = (part: Partial<Safeguards>) => setWanted((now) => ({ ...now, ...part }));
  const changed = JSON.stringify(wanted) !== JSON.stringify(inputOf(held));
  const kept = useFormDraft<Safeguards>(
    "safeguards",
    () => wanted,
    setWanted,
    changed ? JSON.stringify(wanted) : "",
  );

  const take = (fresh: Schema["SafeguardsOut"]) => {
    setSeen(fresh);
    setWanted(inputOf(fresh));
    setSaved(null);
  };
  const save = async (revision: string) => {
    setProblem(null);
    setSaved(null);
    setBusy(true);
    try {
      take(await answer(client.PUT("/safeguards", { body: { ...wanted, revision } })));
      void kept.forget();
    } catch (failure) {
      if (isChangedMeanwhile(failure)) setSaved(await answer(client.GET("/safeguards")));
      else setProblem(failure);
    } finally {
      setBusy(false);
    }
  };

  const off = offOf(held);
  return (
    <main className="page at-most-980">
      <header className="row spread below-10">
        <h1>Settings and safeguards</h1>
        <div className="row">
          {changed && <span className="small quiet">not saved yet</span>}
          <Button
            onClick={() => {
              setWanted(inputOf(held));
              void kept.forget();
            }}
            disabled={!changed}
          >
            Undo changes
          </Button>
          <Button
            type="primary"
            onClick={() => void save(seen.revision)}
            loading={busy}
            disabled={!changed}
          >
            Save
          </Button>
        </div>
      </header>
      <DraftNote draft={kept} onAnew={() => setWanted(inputOf(held))} />
      <ProblemNote problem={problem} />
      {saved && (
        <ChangedMeanwhile
          fields={partedFields(wanted, inputOf(saved))}
          busy={busy}
          onMine={() => void save(saved.revision)}
          onSaved={() => take(saved)}
        />
      )}
      <p className="below-14">
        {off.length ? (
          <>
            <b>Off or missing:</b> {off.join("; ")}.
          </>
        ) : (
          "Every safeguard is on."
        )}{" "}
        {session &&
          (session.read_count < session.record_count
            ? `The vault is reading itself through: ${session.read_count.toLocaleString("en")} of ${count(session.record_count, "part")}.`
            : `The vault was read through since it was opened: ${count(session.record_count, "part")}, ${session.damaged.length ? `${session.damaged.length} damaged` : "none damaged"}.`)}
      </p>
      <table className="plain dense in-lines">
        <thead>
          <tr>
            <th className="wide-250">Safeguard</th>
            <th className="wide-110">State</th>
            <th>Setting</th>
          </tr>
        </thead>
        <tbody>
          <Line name="Locks itself when idle" on>
            after
            <InputNumber
              aria-label="Lock after so many seconds"
              value={wanted.lock_after_s}
              min={30}
              max={28800}
              onChange={(v) => v !== null && set({ lock_after_s: v })}
              className="wide-92"
            />
            seconds without a key or a click; also by the key L
          </Line>
          <Line name="Empties the clipboard" on={held.clipboard_clear_s > 0}>
            after
            <InputNumber
              aria-label="Empty the clipboard after so many seconds"
              value={wanted.clipboard_clear_s}
              min={0}
              max={3600}
              onChange={(v) => v !== null && set({ clipboard_clear_s: v })}
              className="wide-92"
            />
            seconds (0: never); once the window is in front again, if it is not
          </Line>
          <Line name="Secrets can be shown" on={!held.reveal_allowed} words={["no", "yes"]}>
            <Switch
              aria-label="Secrets can be shown"
              checked={wanted.reveal_allowed}
              onChange={(on) => set({ reveal_allowed: on })}
            />
            buttons that show a secret on the screen; copying works without them
          </Line>
          {(Object.keys(ACTS) as Act[]).map((act) => (
            <Line
              key={act}
              name={`Passphrase before ${ACTS[act]}`}
              on={held.proof_before[act] !== "unlock"}
            >
              <Select
                aria-label={`Passphrase before ${ACTS[act]}`}
                value={wanted.proof_before[act]}
                className="wide-260"
                onChange={(rule: Rule) =>
                  set({ proof_before: { ...wanted.proof_before, [act]: rule } })
                }
                options={[
                  { value: "each", label: "asked each time" },
                  { value: "minutes", label: `asked after ${wanted.proof_minutes} minutes` },
                  { value: "unlock", label: "not asked again after unlocking" },
                ]}
              />
            </Line>
          ))}
          <Line name="“After minutes” means" on words={["set", ""]}>
            <InputNumber
              aria-label="Proof is good for so many minutes"
              value={wanted.proof_minutes}
              min={1}
              max={240}
              onChange={(v) => v !== null && set({ proof_minutes: v })}
              className="wide-92"
            />
            minutes since the passphrase was last given
          </Line>
          <Line name="Checks against breaches" on={usable(held).length > 0 && held.corpus_used}>
            <Corpora
              held={held}
              used={wanted.corpus_used}
              onUse={(on) => set({ corpus_used: on })}
            />
          </Line>
          <ServiceLine
            name="List held elsewhere"
            on={held.range_used}
            words={["asked", "not asked"]}
            act="Ask the list held elsewhere"
            used={wanted.range_used}
            onUse={(on) => set({ range_used: on })}
            place="Address of the list held elsewhere"
            address={wanted.range_address}
            onAddress={(range_address) => set({ range_address })}
          >
            What leaves at a check: for each secret not asked before, the first 12 to 20 bits of its
            SHA-1, and when. Whoever runs the list could narrow a guess by that: prefer a corpus on
            this machine.
          </ServiceLine>
          <ServiceLine
            name="Breach notices"
            on={held.feed_used}
            words={["fetched", "not fetched"]}
            act="Fetch breach notices"
            used={wanted.feed_used}
            onUse={(on) => set({ feed_used: on })}
            place="Address of the notice feed"
            address={wanted.feed_address}
            onAddress={(feed_address) => set({ feed_address })}
          >
            A JSON Feed, fetched whole while the worklist is open. Nothing of the vault leaves.
          </ServiceLine>
          <ServiceLine
            name="Mail tray"
            on={held.mail_used}
            words={["watched", "not watched"]}
            act="Watch the mail tray"
            used={wanted.mail_used}
            onUse={(on) => set({ mail_used: on })}
            place="Address of the mail tray"
            address={wanted.mail_address}
            onAddress={(mail_address) => set({ mail_address })}
          >
            Looked into while a new secret is at a site: a mail of a change that no rotation
            explains is a warning. Only such mails are kept. Nothing of the vault leaves.
          </ServiceLine>
          <Line
            name="Requests to the outside"
            on={!held.range_used && !held.feed_used && !held.mail_used}
            words={["none", "as set above"]}
          >
            only what is switched on in the three lines above, and the sites of logins that New Knot
            may drive
          </Line>
          <HistoryLine
            keepDays={wanted.history_keep_days}
            heldDays={held.history_keep_days}
            onKeep={(history_keep_days) => set({ history_keep_days })}
          />
          <KeptOutLine keptOut={wanted.kept_out} onChange={(kept_out) => set({ kept_out })} />
          <Line name="The vault's passphrase" on words={["set", ""]}>
            <Link to="/passphrase">change it</Link>
          </Line>
          <Line name="Sealed backup" on={held.last_backup_at !== null} words={["made", "none yet"]}>
            {held.last_backup_at ? `last good one ${dayAndTime(held.last_backup_at, now)}` : ""}
            <Link to="/carry">make one</Link>
          </Line>
          <BackupLines held={held} wanted={wanted} onChange={set} />
        </tbody>
      </table>
      <Sessions />
      <OwnDetails />
      <p className="small quiet above-14">
        Vault: {held.vault_path}
        <br />
        Backups: {held.backup_folder}
      </p>
    </main>
  );
}

function inputOf(held: Schema["SafeguardsOut"]): Safeguards {
  return {
    lock_after_s: held.lock_after_s,
    clipboard_clear_s: held.clipboard_clear_s,
    reveal_allowed: held.reveal_allowed,
    proof_minutes: held.proof_minutes,
    proof_before: held.proof_before,
    corpus_used: held.corpus_used,
    range_address: held.range_address,
    range_used: held.range_used,
    feed_address: held.feed_address,
    feed_used: held.feed_used,
    mail_address: held.mail_address,
    mail_used: held.mail_used,
    history_keep_days: held.history_keep_days,
    kept_out: held.kept_out,
    backup_every_h: held.backup_every_h,
    backup_place: held.backup_place,
    backup_daily: held.backup_daily,
    backup_weekly: held.backup_weekly,
    backup_monthly: held.backup_monthly,
  };
}

function offOf(held: Schema["SafeguardsOut"]): string[] {
  const off: string[] = [];
  if (!held.clipboard_clear_s) off.push("the clipboard is never emptied");
  const open = (Object.keys(ACTS) as Act[]).filter((act) => held.proof_before[act] === "unlock");
  if (open.length)
    off.push(`the passphrase is not asked again before ${open.map((a) => ACTS[a]).join(", ")}`);
  if (!usable(held).length) off.push("no breach corpus");
  else if (!held.corpus_used) off.push("the breach corpora are not used");
  if (!held.backup_every_h) off.push("no backup by schedule");
  if (!held.last_backup_at) off.push("no backup was made");
  return off;
}
