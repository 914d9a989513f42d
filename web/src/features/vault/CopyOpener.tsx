import { Button } from "antd";
import { useRef, useState } from "react";
import { answer, client, sendCopy, type Schema } from "../../api/client";
import { dayAndTime } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { useAct } from "../../shared/useAct";
import { useNow } from "../../shared/useNow";
import { FilePicker } from "../../shared/FilePicker";

type Props = {
  state: Schema["VaultState"];
  /** A backup lies in the vault's place now. */
  onPlaced: () => void;
  /** A bundle was opened into a new vault. */
  onEntered: (token: string) => void;
};

/** Where the vault's file is not there: a backup or a bundle takes its place. */
export function CopyOpener({ state, onPlaced, onEntered }: Props) {
  const { problem, busy, run } = useAct();
  const picker = useRef<HTMLInputElement>(null);
  const passphrase = useRef<HTMLInputElement>(null);
  const [bundle, setBundle] = useState("");
  const now = useNow();

  const place = (file: File) =>
    run(async () => {
      if ((await sendCopy(file)).kind === "bundle") setBundle(file.name);
      else onPlaced();
    });
  const placeBeside = (name: string) =>
    run(async () => {
      await answer(client.POST("/vault/place-beside", { body: { name } }));
      onPlaced();
    });
  const open = () =>
    run(async () => {
      const body = { passphrase: passphrase.current?.value ?? "" };
      const { token } = await answer(client.POST("/vault/open-bundle", { body }));
      if (passphrase.current) passphrase.current.value = "";
      onEntered(token);
    });

  return (
    <section className="stack" aria-label="Open a backup or a bundle">
      {(state.knew_a_vault || state.copies.length > 0) && (
        <p className="problem" role="alert">
          <b>
            {state.knew_a_vault
              ? "A vault was opened on this machine before, and none lies here now:"
              : "Backups of a vault lie here, and no vault:"}
          </b>{" "}
          {state.path}
        </p>
      )}
      {state.copies.length > 0 && (
        <ul className="plain-list">
          {state.copies.map((copy) => (
            <li key={copy.name} className="row">
              <span className="breaks-anywhere small">
                {dayAndTime(copy.made_at, now)}, {copy.name}
              </span>
              <button
                type="button"
                className="link"
                aria-label={`Open ${copy.name}`}
                onClick={() => void placeBeside(copy.name)}
              >
                open it
              </button>
            </li>
          ))}
        </ul>
      )}
      {bundle ? (
        <form
          className="stack"
          autoComplete="off"
          onSubmit={(event) => {
            event.preventDefault();
            void open();
          }}
        >
          <SecretInput
            ref={passphrase}
            label={`Passphrase of ${bundle}: the new vault will have it too`}
            name="bundle-passphrase"
          />
          <div className="row">
            <Button type="primary" htmlType="submit" loading={busy}>
              Open it
            </Button>
            <Button onClick={() => setBundle("")}>Another file</Button>
          </div>
        </form>
      ) : (
        <div className="row">
          <Button loading={busy} onClick={() => picker.current?.click()}>
            Open a backup or a bundle…
          </Button>
          <span className="small quiet">
            by the passphrase it was sealed with, or its recovery sheets
          </span>
        </div>
      )}
      <FilePicker
        ref={picker}
        label="Backup or bundle to open"
        accept=".vault,.jwe"
        onFile={(file) => void place(file)}
      />
      <ProblemNote problem={problem} />
    </section>
  );
}
