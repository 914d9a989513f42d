import { useMutation } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useRef, useState, type FormEvent } from "react";
import { answer, client, type Problem } from "../../api/client";
import { KnotMark } from "../../shared/icons";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { RecoverVault } from "./RecoverVault";

type Props = { path: string; onEntered: (token: string) => void };

export function UnlockVault({ path, onEntered }: Props) {
  const [forgotten, setForgotten] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const unlock = useMutation({
    mutationFn: () =>
      answer(client.POST("/vault/unlock", { body: { passphrase: field.current?.value ?? "" } })),
    onSuccess: ({ token }) => {
      if (field.current) field.current.value = "";
      onEntered(token);
    },
    onError: (problem: Problem) => {
      if (problem.code === "wrong_passphrase") field.current?.select();
    },
  });
  useEffect(() => field.current?.focus(), []);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    unlock.mutate();
  };
  if (forgotten) return <RecoverVault onEntered={onEntered} onLeave={() => setForgotten(false)} />;
  return (
    <main className="entrance">
      <div className="brand">
        <KnotMark /> New Knot
      </div>
      <h1>The vault is locked</h1>
      <form className="stack" onSubmit={submit} autoComplete="off">
        <SecretInput ref={field} label="Vault passphrase" name="vault-passphrase" />
        <ProblemNote problem={unlock.error} />
        <div className="row">
          <Button type="primary" htmlType="submit" loading={unlock.isPending}>
            Unlock <kbd>↵</kbd>
          </Button>
          {unlock.isPending && (
            <span className="quiet small">the key is being worked out: about half a second</span>
          )}
        </div>
      </form>
      <p className="small">
        <button type="button" className="link" onClick={() => setForgotten(true)}>
          The passphrase is forgotten
        </button>
      </p>
      <p className="small quiet">{path}</p>
    </main>
  );
}
