import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox } from "antd";
import { useRef, useState, type FormEvent } from "react";
import { Link } from "react-router";
import { answer, client, sessionToken, staysOpen, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count, day } from "../../domain/moments";
import { isRefusedForItsBoundAlone, judgementOf } from "../../domain/passphrase";
import { ByChance } from "../../shared/ByChance";
import { MeasureReport } from "../../shared/MeasureReport";
import { usePaperSheet } from "../../shared/PaperSheet";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { PassphraseOffer } from "./PassphraseOffer";

/** The vault's passphrase changed: drawn or thought up, measured, typed twice, put on paper. */
export default function PassphrasePage() {
  const facts = useQuery(queries.passphraseFacts());
  const current = useRef<HTMLInputElement>(null);
  const fresh = useRef<HTMLInputElement>(null);
  const again = useRef<HTMLInputElement>(null);
  const [judged, setJudged] = useState<Schema["JudgementOut"] | null>(null);
  const [shown, setShown] = useState<string | null>(null);
  const showing = useRef(false);
  const [differ, setDiffer] = useState(false);
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<"passphrase" | "key" | null>(null);
  const [newKey, setNewKey] = useState(false);
  const [byChance, setByChance] = useState(false);
  const offered = useRef<string | null>(null);
  const asked = useRef(0);
  const { sheet, print } = usePaperSheet();

  const typed = async () => {
    const passphrase = fresh.current?.value ?? "";
    setDone(null);
    setShown(showing.current ? passphrase : null);
    const mine = ++asked.current;
    if (!passphrase) return setJudged(null);
    try {
      const body = { passphrase, drawn: passphrase === offered.current };
      const found = await answer(client.POST("/vault/passphrase/judge", { body }));
      if (mine === asked.current) setJudged(found);
    } catch (error) {
      setProblem(error);
    }
  };
  const use = (text: string) => {
    offered.current = text;
    if (fresh.current) fresh.current.value = text;
    if (again.current) again.current.value = "";
    void typed();
    again.current?.focus();
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const passphrase = fresh.current?.value ?? "";
    const same = passphrase === again.current?.value;
    setDiffer(!same);
    if (!same) return;
    setBusy(true);
    setProblem(null);
    try {
      const drawn = byChance || passphrase === offered.current;
      const body = { current: current.current?.value ?? "", passphrase, drawn };
      if (newKey) {
        await staysOpen(async () => {
          const { token } = await answer(client.POST("/vault/new-key", { body }));
          sessionToken.set(token);
        });
      } else await answer(client.PUT("/vault/passphrase", { body }));
      for (const field of [current.current, again.current]) if (field) field.value = "";
      setDone(newKey ? "key" : "passphrase");
    } catch (error) {
      setProblem(error);
    } finally {
      setBusy(false);
    }
  };

  const known = facts.data;
  const allowed = judged !== null && byChance && isRefusedForItsBoundAlone(judged);
  return (
    <main className="page at-most-1180">
      <header className="below-14">
        <h1>The vault's passphrase</h1>
        <p className="small quiet">
          {known
            ? `Compared while you type with ${count(known.secrets_count, "secret")} in this vault and ${count(known.passphrases_count, "passphrase")} it has had${known.since_at ? `, the present one since ${day(known.since_at)} or before` : ""}.`
            : "Looking through the vault, so that a new one can be compared with it…"}
        </p>
      </header>
      <ProblemNote problem={problem ?? facts.error} />
      {done && (
        <section className="verdict" role="status">
          <p>
            <b>The vault now opens with the new passphrase, and no longer with the former.</b>
          </p>
          <p className="small">
            Backups made until now, and copies kept before an upgrade, still open with the former
            one: <Link to="/carry">make one</Link> and keep the old paper until you have deleted
            them. Write or print the new one now.{" "}
            {done === "key"
              ? "Recovery sheets made before are void under the new key: make new ones."
              : "Recovery sheets stay good."}
          </p>
        </section>
      )}
      <div className="two">
        <form className="stack gap-12" onSubmit={submit} autoComplete="off">
          <SecretInput ref={current} label="Present passphrase" name="present" />
          <SecretInput
            ref={fresh}
            label="New passphrase"
            name="new-passphrase"
            onChange={() => {
              // What was said of another text is not said of this one.
              setByChance(false);
              void typed();
            }}
            onShownChange={(on) => {
              showing.current = on;
              void typed();
            }}
          />
          <p className="small" aria-live="polite">
            {judged && judgementOf(judged).map((line) => <b key={line}>{line} </b>)}
          </p>
          {judged?.rests_on_a_bound && <ByChance checked={byChance} onChange={setByChance} />}
          <MeasureReport
            found={judged?.measure ?? null}
            secret={shown}
            wide={620}
            idle="Measured here while you type; nothing leaves this machine."
          />
          <SecretInput ref={again} label="The new one again" name="new-passphrase-again" />
          {differ && (
            <p className="problem" role="alert">
              The two differ. Look at both with “show”.
            </p>
          )}
          <Checkbox checked={newKey} onChange={(event) => setNewKey(event.target.checked)}>
            seal everything anew under a new key too, as if the old one were known to others: it
            makes recovery sheets void and ends other windows
          </Checkbox>
          <div className="row">
            <Button
              type="primary"
              htmlType="submit"
              loading={busy}
              disabled={!judged || (judged.verdict === "refused" && !allowed)}
            >
              Change the passphrase
            </Button>
            <Button disabled={!judged} onClick={() => print(fresh.current?.value ?? "")}>
              Print it for a safe place…
            </Button>
          </div>
          <p className="small quiet">
            The sheet shows the passphrase and lines to write on, and not what it opens. The browser
            prints it; nothing is written to a file here. It is stored nowhere: whoever forgets it
            needs a recovery sheet.
          </p>
        </form>
        <PassphraseOffer onUse={use} />
      </div>
      {sheet}
    </main>
  );
}
