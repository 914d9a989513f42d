import { useMutation } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useEffectEvent, useRef, useState, type FormEvent } from "react";
import { answer, client, type Schema } from "../../api/client";
import { restsOnABound } from "../../domain/passphrase";
import { ByChance } from "../../shared/ByChance";
import { LargeRuler } from "../../shared/GuessRuler";
import { KnotMark } from "../../shared/icons";
import { MeasureReport } from "../../shared/MeasureReport";
import { usePaperSheet } from "../../shared/PaperSheet";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { useMeasure } from "../../shared/useMeasure";
import { CopyOpener } from "./CopyOpener";

type Props = {
  state: Schema["VaultState"];
  onEntered: (token: string) => void;
  onPlaced: () => void;
};

const ENOUGH = 10;
const AMPLE = 14;

/** First start: choosing the vault passphrase, measured while it is typed, said twice. */
export function CreateVault({ state, onEntered, onPlaced }: Props) {
  const first = useRef<HTMLInputElement>(null);
  const again = useRef<HTMLInputElement>(null);
  const [differ, setDiffer] = useState(false);
  const [offered, setOffered] = useState(false);
  const [byChance, setByChance] = useState(false);
  const [words, setWords] = useState<Schema["PassphraseOut"] | null>(null);
  const [shown, setShown] = useState<string | null>(null);
  const showing = useRef(false);
  const { found: measure, problem, measureText } = useMeasure();
  const { sheet, print } = usePaperSheet();

  const measureNow = async () => {
    const secret = first.current?.value ?? "";
    setShown(showing.current ? secret : null);
    setOffered(secret === words?.words.join(" "));
    await measureText(secret);
  };

  const offer = async () => {
    setWords(await answer(client.GET("/vault/words", { params: { query: { count: 6 } } })));
  };
  const isKnown = state.knew_a_vault || state.copies.length > 0;
  const onOpened = useEffectEvent(() => {
    void offer();
    // Where a vault is missed, a new one is not the first thing to do.
    if (!isKnown) first.current?.focus();
  });
  useEffect(() => onOpened(), []);

  const create = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/vault/create", {
          body: { passphrase: first.current?.value ?? "", drawn: offered || byChance },
        }),
      ),
    onSuccess: ({ token }) => {
      for (const field of [first.current, again.current]) if (field) field.value = "";
      onEntered(token);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const same = first.current?.value === again.current?.value;
    setDiffer(!same);
    if (same) create.mutate();
  };

  const guesses = measure?.guess_number_log10 ?? null;
  const bound = !offered && guesses !== null && restsOnABound(measure, ENOUGH);
  return (
    <main className="entrance create-vault-entrance">
      <div className="brand">
        <KnotMark /> New Knot
      </div>
      <h1>{isKnown ? "No vault lies here" : "A new vault on this machine"}</h1>
      {isKnown && <CopyOpener state={state} onPlaced={onPlaced} onEntered={onEntered} />}
      {isKnown && <h2>Or a new vault</h2>}
      <p>
        Everything is sealed with one passphrase that only you know, and that is stored nowhere.
        Write it on paper and keep that in a safe place; once the vault is made, a recovery sheet is
        a second way in.
      </p>
      <form className="stack" onSubmit={submit} autoComplete="off">
        <SecretInput
          ref={first}
          label="Vault passphrase"
          name="new-passphrase"
          onChange={() => {
            // What was said of another text is not said of this one.
            setByChance(false);
            void measureNow();
          }}
          onShownChange={(on) => {
            showing.current = on;
            void measureNow();
          }}
          aria-describedby="passphrase-measure"
        />
        <div id="passphrase-measure">
          {offered && words ? (
            <>
              <LargeRuler log10={guesses} wide={720} />
              <p className="small">
                Drawn here: six words of 7,776, one of 2<sup>77</sup> equally likely (
                {words.entropy_bits} bits, by counting).
              </p>
            </>
          ) : (
            <MeasureReport
              found={measure}
              secret={shown}
              wide={720}
              idle="Measured here while you type; nothing leaves this machine."
            />
          )}
          {guesses !== null && guesses < ENOUGH && (
            <p className="small">
              <b>Too weak to guard a vault: 10¹⁰ is the least.</b>
            </p>
          )}
          {bound && <ByChance checked={byChance} onChange={setByChance} />}
          {guesses !== null && guesses >= ENOUGH && guesses < AMPLE && (
            <p className="small">
              <b>Thin: a thief with the file and fast hardware could reach it.</b>
            </p>
          )}
        </div>
        <SecretInput ref={again} label="The same again" name="new-passphrase-again" />
        {differ && (
          <p className="problem" role="alert">
            The two differ. Look at both with “show”.
          </p>
        )}
        <ProblemNote problem={create.error ?? problem} />
        <div className="row">
          <Button
            type="primary"
            htmlType="submit"
            loading={create.isPending}
            disabled={
              guesses === null ||
              guesses < ENOUGH ||
              (bound && !byChance) ||
              Boolean(measure?.breached)
            }
          >
            Make the vault
          </Button>
          <Button disabled={guesses === null} onClick={() => print(first.current?.value ?? "")}>
            Print it for a safe place…
          </Button>
        </div>
      </form>
      {words && (
        <section className="stack gap-6" aria-label="Words offered">
          <p className="small quiet">
            Or take words drawn for you: six from a list of 7,776, one of 2<sup>77</sup> equally
            likely ({words.entropy_bits} bits).
          </p>
          <p className="create-vault-p" translate="no">
            {words.words.join(" ")}
          </p>
          <div className="row small">
            <button
              type="button"
              className="link"
              onClick={() => {
                if (first.current) first.current.value = words.words.join(" ");
                void measureNow();
                again.current?.focus();
              }}
            >
              use these, then type them again
            </button>
            <button type="button" className="link" onClick={() => void offer()}>
              other words
            </button>
          </div>
        </section>
      )}
      <p className="small quiet">The vault will lie at {state.path}</p>
      {!isKnown && <CopyOpener state={state} onPlaced={onPlaced} onEntered={onEntered} />}
      {sheet}
    </main>
  );
}
