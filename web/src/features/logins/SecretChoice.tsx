import { useQuery } from "@tanstack/react-query";
import { Button, InputNumber, Radio } from "antd";
import { forwardRef, useEffect, useImperativeHandle, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { answer, client, Problem, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { hostOf } from "../../domain/address";
import { policySentence, type Policy } from "../../domain/policy";
import { useClipboard } from "../../shared/clipboard";
import { Outgoing } from "../../shared/Outgoing";
import { MeasureReport } from "../../shared/MeasureReport";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { SecretText } from "../../shared/SecretText";
import { useDraw } from "../../shared/useDraw";
import { useMeasure } from "../../shared/useMeasure";

export type SecretChoiceHandle = {
  /** What the form sends; throws a `Problem` where the two typings differ. */
  chosen: () => Promise<Schema["SecretIn"] | null>;
  /** What is typed of one's own, to be kept sealed; null where another kind is chosen. */
  typed: () => string | null;
  /** What was typed is there again. */
  restore: (own: string) => void;
};

type Kind = "keep" | "drawn" | "own" | "loose_end" | "none";

type Props = {
  address: string;
  /** Title and user name: what others know of this login. */
  known: string[];
  hasSecret: boolean;
  looseEndId: string | null;
};

/** Where the login's secret comes from: drawn to the site's policy, one's own, or a loose end. */
export const SecretChoice = forwardRef<SecretChoiceHandle, Props>(function SecretChoice(
  { address, known, hasSecret, looseEndId },
  ref,
) {
  const { data } = useQuery(queries.policies());
  const [kind, setKind] = useState<Kind>(looseEndId ? "loose_end" : hasSecret ? "keep" : "drawn");
  const [length, setLength] = useState(20);
  const [shown, setShown] = useState(false);
  const first = useRef<HTMLInputElement>(null);
  const again = useRef<HTMLInputElement>(null);
  const { drawn, problem, draw, settled, setProblem } = useDraw();
  const { copy } = useClipboard();
  const own = useMeasure();
  const [typed, setTyped] = useState("");

  const host = hostOf(address);
  const named = data?.policies.find((p) =>
    p.domains.some((d) => host === d || host.endsWith(`.${d}`)),
  );
  const policy = (named?.policy ?? data?.default) as Policy | undefined;
  const held = policy ? Math.max(policy.min_length, Math.min(policy.max_length, length)) : length;

  useEffect(() => {
    if (kind === "drawn" && policy)
      void draw({ kind: "characters", length: held, policy }, { passing: true });
  }, [kind, policy, held, draw]);

  useImperativeHandle(
    ref,
    () => ({
      typed: () => (kind === "own" ? (first.current?.value ?? "") : null),
      restore: (text) => {
        flushSync(() => setKind("own"));
        for (const field of [first.current, again.current]) if (field) field.value = text;
        setTyped(text);
        void own.measureText(text, [...known, host]);
      },
      chosen: async () => {
        switch (kind) {
          case "keep":
          case "none":
            return null;
          case "loose_end":
            return { loose_end_id: looseEndId };
          case "drawn": {
            const current = await settled();
            if (!current)
              throw new Problem("field_invalid", {
                field: "secret",
                reason: "could not be drawn to this policy",
              });
            return { draw_id: current.draw_id };
          }
          case "own": {
            const own = first.current?.value ?? "";
            if (!shown && own !== (again.current?.value ?? ""))
              throw new Problem("field_invalid", {
                field: "secret",
                reason: "was typed in two different ways",
              });
            return own ? { own } : null;
          }
        }
      },
    }),
    [kind, settled, shown, looseEndId, own, known, host],
  );

  /** What leaves the form before it is saved is a loose end until it is. */
  const keep = async () => {
    if (!drawn) return;
    try {
      const params = { path: { draw_id: drawn.draw_id } };
      await answer(client.POST("/draws/{draw_id}/keep", { params, body: { address } }));
    } catch (error) {
      setProblem(error);
      throw error;
    }
  };

  const options = [
    hasSecret && { value: "keep", label: "as it is" },
    looseEndId && { value: "loose_end", label: "the loose end" },
    { value: "drawn", label: "drawn" },
    { value: "own", label: "my own" },
    !hasSecret && { value: "none", label: "none yet" },
  ].filter((o) => o !== false && o !== null && o !== "");

  return (
    <section className="stack gap-10" aria-label="Secret">
      <div className="field">
        <span>Secret</span>
        <Radio.Group
          value={kind}
          onChange={(event) => setKind(event.target.value as Kind)}
          options={options as { value: string; label: string }[]}
          optionType="button"
          aria-label="Where the secret comes from"
        />
      </div>
      {kind === "drawn" && (
        <>
          <div className="secret-choice-div">
            {drawn && (
              <Outgoing
                secret={drawn.secret}
                onCopy={() => {
                  keep()
                    .then(
                      () => copy("New secret", drawn.secret),
                      () => undefined,
                    )
                    .catch(setProblem);
                }}
                onDrag={() => {
                  keep().catch(() => undefined);
                }}
              >
                <SecretText secret={drawn.secret} />
              </Outgoing>
            )}
          </div>
          <ProblemNote problem={problem} />
          <div className="row">
            <InputNumber
              aria-label="Length in characters"
              value={held}
              min={policy?.min_length ?? 4}
              max={policy?.max_length ?? 128}
              onChange={(value) => typeof value === "number" && setLength(value)}
              className="wide-70"
            />
            <Button
              onClick={() => policy && void draw({ kind: "characters", length: held, policy })}
            >
              Draw again
            </Button>
            {drawn && <span className="small">{drawn.entropy_bits} bits</span>}
          </div>
          <p className="small quiet">
            {named ? `${named.name}: ` : "No policy known for this site: "}
            {policy && policySentence(policy)}
          </p>
        </>
      )}
      {kind === "own" && (
        <>
          <SecretInput
            ref={first}
            label="Own secret"
            onShownChange={setShown}
            onChange={() => {
              setTyped(first.current?.value ?? "");
              void own.measureText(first.current?.value ?? "", [...known, host]);
            }}
          />
          {!shown && <SecretInput ref={again} label="The same again" canShow={false} />}
          <ProblemNote problem={own.problem} />
          {own.found?.breached && (
            <p className="problem" role="alert">
              This secret is in the breach corpus, {own.found.breached}: whoever holds such a list
              tries it first.
            </p>
          )}
          <MeasureReport
            found={own.found}
            secret={shown ? typed : null}
            wide={560}
            idle="Measured and looked up in the breach corpus before it is saved."
          />
        </>
      )}
      {kind === "loose_end" && (
        <p className="small">The secret that you copied becomes this login's secret.</p>
      )}
      {hasSecret && kind !== "keep" && (
        <p className="small quiet">
          The present secret goes to the history. To change it at the site too, rotate instead.
        </p>
      )}
    </section>
  );
});
