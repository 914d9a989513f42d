import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Input, InputNumber, Select, Switch } from "antd";
import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { dayAndTime } from "../../domain/moments";
import { sentence } from "../../domain/problems";
import { ProblemNote } from "../../shared/ProblemNote";
import { OwnDetails } from "./OwnDetails";

type Safeguards = Schema["SafeguardsIn"];
type Act = Schema["Act"];
type Rule = Schema["ProofRule"];

const ACTS: Record<Act, string> = {
  reveal: "showing a secret",
  copy: "copying a secret",
  edit: "changing or rotating a login",
  delete: "deleting, and changing safeguards",
  check: "checking the vault",
  export: "taking out a backup or a report",
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
  return <SafeguardsForm key={data.last_backup_at ?? "never"} held={data} />;
}

function SafeguardsForm({ held }: { held: Schema["SafeguardsOut"] }) {
  const queryClient = useQueryClient();
  const [wanted, setWanted] = useState<Safeguards>(() => inputOf(held));
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<Safeguards>) => setWanted((now) => ({ ...now, ...part }));
  const changed = JSON.stringify(wanted) !== JSON.stringify(inputOf(held));

  const save = async () => {
    setProblem(null);
    setBusy(true);
    try {
      const fresh = await answer(client.PUT("/safeguards", { body: wanted }));
      setWanted(inputOf(fresh));
      await queryClient.invalidateQueries();
    } catch (failure) {
      setProblem(failure);
    } finally {
      setBusy(false);
    }
  };

  const off = offOf(held);
  return (
    <main className="page" style={{ maxWidth: 980 }}>
      <header className="row spread" style={{ marginBottom: 10 }}>
        <h1>Settings and safeguards</h1>
        <div className="row">
          {changed && <span className="small quiet">not saved yet</span>}
          <Button onClick={() => setWanted(inputOf(held))} disabled={!changed}>
            As it was
          </Button>
          <Button type="primary" onClick={() => void save()} loading={busy} disabled={!changed}>
            Save
          </Button>
        </div>
      </header>
      <ProblemNote problem={problem} />
      <p style={{ marginBottom: 14 }}>
        {off.length ? (
          <>
            <b>Off or missing:</b> {off.join("; ")}.
          </>
        ) : (
          "Every safeguard is on."
        )}
      </p>
      <table className="plain dense">
        <thead>
          <tr>
            <th style={{ width: 250 }}>Safeguard</th>
            <th style={{ width: 110 }}>State</th>
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
              style={{ width: 92 }}
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
              style={{ width: 92 }}
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
                style={{ width: 260 }}
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
              style={{ width: 92 }}
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
          <Line
            name="Requests to the outside"
            on={!held.range_used && !held.feed_used}
            words={["none", "as set above"]}
          >
            only what is switched on in the two lines above; nothing else asks anything
          </Line>
          <Line name="The vault's passphrase" on words={["set", ""]}>
            <Link to="/passphrase">change it</Link>
          </Line>
          <Line name="Sealed backup" on={held.last_backup_at !== null} words={["made", "none yet"]}>
            {held.last_backup_at ? dayAndTime(held.last_backup_at, Date.now()) : ""}
            <Link to="/carry">make one</Link>
          </Line>
        </tbody>
      </table>
      <OwnDetails />
      <p className="small quiet" style={{ marginTop: 14 }}>
        Vault: {held.vault_path}
        <br />
        Backups: {held.backup_folder}
      </p>
    </main>
  );
}

/** A service outside: off until it is switched on, with what it would learn. */
function ServiceLine(props: {
  name: string;
  on: boolean;
  words: [string, string];
  act: string;
  used: boolean;
  onUse: (on: boolean) => void;
  place: string;
  address: string;
  onAddress: (address: string) => void;
  children: ReactNode;
}) {
  return (
    <Line name={props.name} on={props.on} words={props.words}>
      <Switch aria-label={props.act} checked={props.used} onChange={props.onUse} />
      <Input
        aria-label={props.place}
        value={props.address}
        placeholder="https://…"
        autoComplete="off"
        spellCheck={false}
        style={{ width: 320 }}
        onChange={(event) => props.onAddress(event.target.value)}
      />
      <span>{props.children}</span>
    </Line>
  );
}

const usable = (held: Schema["SafeguardsOut"]) => held.corpora.filter((one) => !one.reason);

/** The corpora of this machine, each with what it is, and a look at whether it is whole. */
function Corpora(props: {
  held: Schema["SafeguardsOut"];
  used: boolean;
  onUse: (on: boolean) => void;
}) {
  const [said, setSaid] = useState<Record<string, string>>({});
  const [busy, setBusy] = useState("");
  const verify = async (file_name: string) => {
    setBusy(file_name);
    let says;
    try {
      const call = client.POST("/safeguards/corpora/{file_name}/verify", {
        params: { path: { file_name } },
      });
      says = (await answer(call)).is_whole ? "whole, every byte as written" : "stopped";
    } catch (failure) {
      says = sentence(failure);
    }
    setSaid((now) => ({ ...now, [file_name]: says }));
    setBusy("");
  };
  if (!props.held.corpora.length)
    return (
      <>
        no corpus on this machine: build one with <code>./run corpus build LIST…</code>
      </>
    );
  return (
    <>
      <Switch
        aria-label="Check against the breach corpora"
        checked={props.used}
        onChange={props.onUse}
      />
      <ul className="bare">
        {props.held.corpora.map((one) => (
          <li key={one.file_name} className="row">
            {one.reason ? (
              <span>
                {one.file_name}: <b>cannot be used</b>, {one.reason}
              </span>
            ) : (
              <>
                <span>
                  {one.name} of {one.dated_on}, {one.unique_count?.toLocaleString("en")} secrets
                </span>
                {busy === one.file_name ? (
                  <Button size="small" onClick={() => void client.POST("/checks/stop")}>
                    Stop reading it
                  </Button>
                ) : (
                  <Button
                    size="small"
                    disabled={busy !== ""}
                    onClick={() => void verify(one.file_name)}
                  >
                    Verify <span className="visually-hidden">{one.name}</span>
                  </Button>
                )}
                <span role="status">{said[one.file_name]}</span>
              </>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

function Line(props: { name: string; on: boolean; words?: [string, string]; children: ReactNode }) {
  const [yes, no] = props.words ?? ["on", "off"];
  return (
    <tr>
      <td>{props.name}</td>
      <td>{props.on ? yes : <b className={props.words ? undefined : "grave"}>{no}</b>}</td>
      <td>
        <span className="row small">{props.children}</span>
      </td>
    </tr>
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
  if (!held.last_backup_at) off.push("no backup was made");
  return off;
}
