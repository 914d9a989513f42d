import { useMutation } from "@tanstack/react-query";
import { Button } from "antd";
import { useRef, useState, type FormEvent } from "react";
import { answer, client } from "../../api/client";
import { isOnlyABound } from "../../domain/problems";
import { ByChance } from "../../shared/ByChance";
import { KnotMark } from "../../shared/icons";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { SheetsField } from "../../shared/SheetsField";

/** The passphrase is forgotten: the sheets open the vault, and a new passphrase is set at once. */
export function RecoverVault(props: { onEntered: (token: string) => void; onLeave: () => void }) {
  const sheets = useRef<string[]>([]);
  const [enough, setEnough] = useState(false);
  const [differ, setDiffer] = useState(false);
  const [byChance, setByChance] = useState(false);
  const fresh = useRef<HTMLInputElement>(null);
  const again = useRef<HTMLInputElement>(null);
  const recover = useMutation({
    mutationFn: () => {
      const passphrase = fresh.current?.value ?? "";
      const body = { sheets: sheets.current, passphrase, drawn: byChance };
      return answer(client.POST("/vault/recover", { body }));
    },
    onSuccess: ({ token }) => props.onEntered(token),
  });
  const [noteSheets] = useState(() => (found: string[], are: boolean) => {
    sheets.current = found;
    setEnough(are);
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const same = fresh.current?.value === again.current?.value;
    setDiffer(!same);
    if (same) recover.mutate();
  };
  return (
    <main className="entrance at-most-620">
      <div className="brand">
        <KnotMark /> New Knot
      </div>
      <h1>A way back in</h1>
      <p>
        The recovery sheets open the vault without its passphrase. Type their words, or read a
        picture of them; then choose a new passphrase. The sheets stay good.
      </p>
      <form className="stack" onSubmit={submit} autoComplete="off">
        <SheetsField onSheets={noteSheets} />
        <SecretInput ref={fresh} label="New vault passphrase" name="new-passphrase" />
        <SecretInput ref={again} label="The new one again" name="new-passphrase-again" />
        {differ && (
          <p className="problem" role="alert">
            The two differ. Look at both with “show”.
          </p>
        )}
        <ProblemNote problem={recover.error} />
        {(byChance || isOnlyABound(recover.error)) && (
          <ByChance checked={byChance} onChange={setByChance} />
        )}
        <div className="row">
          <Button type="primary" htmlType="submit" disabled={!enough} loading={recover.isPending}>
            Open it with the sheets
          </Button>
          <Button onClick={props.onLeave}>Back to the passphrase</Button>
        </div>
      </form>
    </main>
  );
}
