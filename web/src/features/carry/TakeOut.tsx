import { Button, Input, Radio } from "antd";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { queries } from "../../api/queries";
import { answer, client, exportContent } from "../../api/client";
import { isoDay } from "../../domain/moments";
import { isOnlyABound } from "../../domain/problems";
import { ByChance } from "../../shared/ByChance";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { saveAs } from "../../shared/saveAs";
import { useAct } from "../../shared/useAct";
import { Losses } from "./Losses";
import { Dialogue } from "../../shared/Dialogue";

type Kind = "csv" | "cxf";

const CLEAR: Record<Kind, { title: string; says: string; file: string }> = {
  csv: {
    title: "CSV",
    says: "A table of all logins, for another program or a spreadsheet. Titles, notes and fields are written so that none is taken for a formula; secrets stand as they are.",
    file: "logins.csv",
  },
  cxf: {
    title: "Credential Exchange Format",
    says: "JSON of the open standard (version 1.0), for programs that read it.",
    file: "logins.cxf.json",
  },
};

/** The vault out of New Knot: sealed for another device, or in the clear by open formats. */
export function TakeOut() {
  const { problem, busy, run } = useAct();
  const [asking, setAsking] = useState<Kind | null>(null);
  const [saved, setSaved] = useState<string | null>(null);
  const passphrase = useRef<HTMLInputElement>(null);
  const again = useRef<HTMLInputElement>(null);
  const [forKey, setForKey] = useState(false);
  const [byChance, setByChance] = useState(false);
  const [recipient, setRecipient] = useState("");
  const [differ, setDiffer] = useState(false);
  const { data: losses } = useQuery(queries.losses());

  const bundle = () => {
    const text = passphrase.current?.value ?? "";
    const same = forKey || text === again.current?.value;
    setDiffer(!same);
    if (!same) return;
    void run(async () => {
      const body = forKey ? { recipient } : { passphrase: text, drawn: byChance };
      saveAs(await exportContent("bundles/take-out", body), `newknot-${isoDay(new Date())}.jwe`);
      for (const field of [passphrase.current, again.current]) if (field) field.value = "";
    });
  };
  const write = (kind: Kind) =>
    run(() => answer(client.POST("/exports/files", { body: { kind } })));
  const save = (kind: Kind) =>
    run(async () => {
      saveAs(await exportContent(`exports/${kind}`), CLEAR[kind].file);
      setSaved(CLEAR[kind].file);
    });
  const chosen = (act: (kind: Kind) => Promise<void>) => {
    const kind = asking;
    setAsking(null);
    if (kind) void act(kind);
  };

  return (
    <div className="two">
      <section className="stack" aria-label="Sealed bundle">
        <h2>A sealed bundle, for another device</h2>
        <p>
          One file with everything, histories and accepted findings too, sealed under a passphrase
          of its own. New Knot on the other device brings it in and merges it; later bundles go both
          ways. It is a JWE (RFC 7516): the documents say how to open it with other tools.
        </p>
        <form
          className="stack"
          onSubmit={(event) => {
            event.preventDefault();
            bundle();
          }}
        >
          <Radio.Group
            value={forKey}
            onChange={(event) => setForKey(event.target.value as boolean)}
          >
            <Radio value={false}>under a passphrase</Radio>
            <Radio value={true}>for the key of another vault</Radio>
          </Radio.Group>
          {forKey ? (
            <label className="field">
              <span>Public key of that vault (there: Bring in, Copy this vault&apos;s key)</span>
              <Input.TextArea
                rows={3}
                value={recipient}
                autoComplete="off"
                spellCheck={false}
                onChange={(event) => setRecipient(event.target.value)}
              />
            </label>
          ) : (
            <>
              <SecretInput
                ref={passphrase}
                label="Passphrase of the bundle"
                name="bundle-passphrase"
              />
              <SecretInput ref={again} label="The same again" name="bundle-passphrase-again" />
              {(byChance || isOnlyABound(problem)) && (
                <ByChance checked={byChance} onChange={setByChance} />
              )}
            </>
          )}
          {differ && (
            <p className="problem" role="alert">
              The two differ. Look at both with “show”.
            </p>
          )}
          <div>
            <Button type="primary" htmlType="submit" loading={busy}>
              Seal and save it…
            </Button>
          </div>
        </form>
      </section>
      <section className="stack" aria-label="In the clear">
        <h2>In the clear, for other programs</h2>
        {losses && <Losses losses={losses} />}
        {(Object.keys(CLEAR) as Kind[]).map((kind) => (
          <div key={kind}>
            <p>
              <b>{CLEAR[kind].title}.</b> {CLEAR[kind].says}
            </p>
            <Button className="above-6" onClick={() => setAsking(kind)}>
              Write {CLEAR[kind].title}…
            </Button>
          </div>
        ))}
        <div>
          <p>
            <b>History.</b> When each secret served and how long it was: no secret is in it.
          </p>
          <Button
            className="above-6"
            onClick={() =>
              void run(async () => saveAs(await exportContent("exports/history"), "history.csv"))
            }
          >
            Write the history…
          </Button>
        </div>
        <ProblemNote problem={problem} />
        {saved && (
          <div className="problem copper-edge" role="status">
            <b>{saved} lies where your browser saves files, with every secret in the clear.</b>{" "}
            Delete it for good once it is used, and empty the bin.{" "}
            <button type="button" className="link" onClick={() => setSaved(null)}>
              It is gone
            </button>
          </div>
        )}
      </section>
      <Dialogue
        open={asking !== null}
        title="Write every secret in the clear?"
        onCancel={() => setAsking(null)}
        footer={
          <div className="row take-out-row">
            <Button onClick={() => setAsking(null)}>Cancel</Button>
            <Button onClick={() => chosen(save)}>Let the browser save it</Button>
            <Button type="primary" onClick={() => chosen(write)}>
              Write it beside the vault
            </Button>
          </div>
        }
      >
        <p>
          Whoever reads the file has all your secrets and keys of codes. Beside the vault it is
          written for you alone, and New Knot reminds you until it is gone; what the browser saves
          it cannot watch. For another device of yours, a sealed bundle is the better way.
        </p>
      </Dialogue>
    </div>
  );
}
