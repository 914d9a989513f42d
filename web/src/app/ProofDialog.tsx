import { Button } from "antd";
import { useCallback, useRef, useState, type FormEvent } from "react";
import { answer, client, type ProofCall } from "../api/client";
import { ProblemNote } from "../shared/ProblemNote";
import { SecretInput } from "../shared/SecretInput";
import { Dialogue } from "../shared/Dialogue";

const ACTS: Record<string, string> = {
  reveal: "a secret is shown",
  copy: "a secret is copied",
  edit: "a login is changed",
  delete: "something is deleted or a safeguard changed",
  check: "the vault is checked",
  export: "a copy of the vault is made",
};

type Asked = { id: number; act: string; call: ProofCall; settle: (proof: string | null) => void };

export type ProofQueue = {
  /** The question that is shown; those behind it wait for its answer. */
  asked: Asked | null;
  ask: (act: string, call: ProofCall) => Promise<string | null>;
  done: (proof: string | null) => void;
};

/** One question at a time, in the order in which they came: each call gets its own answer. */
export function useProofQueue(): ProofQueue {
  const waiting = useRef<Asked[]>([]);
  const count = useRef(0);
  const [asked, setAsked] = useState<Asked | null>(null);
  const ask = useCallback(
    (act: string, call: ProofCall) =>
      new Promise<string | null>((settle) => {
        waiting.current.push({ id: count.current++, act, call, settle });
        setAsked(waiting.current[0] ?? null);
      }),
    [],
  );
  const done = useCallback((proof: string | null) => {
    waiting.current.shift()?.settle(proof);
    setAsked(waiting.current[0] ?? null);
  }, []);
  return { asked, ask, done };
}

export function ProofDialog({ queue }: { queue: ProofQueue }) {
  const field = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const passphrase = field.current?.value ?? "";
    setBusy(true);
    setProblem(null);
    try {
      const body = {
        passphrase,
        ...(queue.asked?.call ?? { method: "", path: "", body_sha256: "" }),
      };
      const { proof } = await answer(client.POST("/vault/proof", { body }));
      if (field.current) field.current.value = "";
      queue.done(proof);
    } catch (error) {
      setProblem(error);
      field.current?.select();
    } finally {
      setBusy(false);
    }
  };

  return (
    <Dialogue
      key={queue.asked?.id ?? "none"}
      open={queue.asked !== null}
      title="Show that it is you"
      footer={null}
      destroyOnHidden
      onCancel={() => {
        setProblem(null);
        queue.done(null);
      }}
      afterOpenChange={(open) => open && field.current?.focus()}
    >
      <form className="stack" onSubmit={submit}>
        <p>
          The vault passphrase is asked again before {ACTS[queue.asked?.act ?? ""] ?? "this act"}.
        </p>
        <SecretInput ref={field} label="Vault passphrase" name="proof" />
        <ProblemNote problem={problem} />
        <div className="row">
          <Button type="primary" htmlType="submit" loading={busy}>
            Go on
          </Button>
          <Button onClick={() => queue.done(null)}>Cancel</Button>
        </div>
      </form>
    </Dialogue>
  );
}
