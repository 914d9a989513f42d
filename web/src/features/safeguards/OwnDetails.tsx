import { useQuery } from "@tanstack/react-query";
import { Button, Input, InputNumber } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { ChangedMeanwhile, isChangedMeanwhile, partedFields } from "../../shared/ChangedMeanwhile";
import { Powers } from "../../shared/Powers";
import { ProblemNote } from "../../shared/ProblemNote";
import { DraftNote, useFormDraft } from "../../shared/useFormDraft";

/** What an acquaintance could guess, and at what rates attackers are taken to guess. */
export function OwnDetails() {
  const held = useQuery(queries.ownDetails());
  const budgets = useQuery(queries.budgets());
  if (!held.data || !budgets.data) return <ProblemNote problem={held.error ?? budgets.error} />;
  return <Form held={held.data} budgets={budgets.data} />;
}

type FormProps = { held: Schema["OwnDetailsOut"]; budgets: Schema["BudgetOut"][] };

function Form({ held: opened, budgets }: FormProps) {
  // What was seen when the form was opened, whatever is asked anew meanwhile.
  const [held, setHeld] = useState(opened);
  const [saved, setSaved] = useState<Schema["OwnDetailsOut"] | null>(null);
  const [text, setText] = useState(held.lines.join("\n"));
  const [rates, setRates] = useState<Record<string, number>>(held.rates);
  const [problem, setProblem] = useState<unknown>(null);
  const lines = text.split("\n").filter((line) => line.trim());
  const changed =
    lines.join("\n") !== held.lines.join("\n") ||
    JSON.stringify(rates) !== JSON.stringify(held.rates);
  const kept = useFormDraft<{ text: string; rates: Record<string, number> }>(
    "own-details",
    () => ({ text, rates }),
    (content) => {
      setText(content.text);
      setRates(content.rates);
    },
    changed ? JSON.stringify({ text, rates }) : "",
  );

  const take = (one: Schema["OwnDetailsOut"]) => {
    setHeld(one);
    setText(one.lines.join("\n"));
    setRates(one.rates);
    setSaved(null);
  };
  const save = async (revision: string) => {
    setProblem(null);
    setSaved(null);
    try {
      take(await answer(client.PUT("/strength/own-details", { body: { lines, rates, revision } })));
      void kept.forget();
    } catch (error) {
      if (isChangedMeanwhile(error)) setSaved(await answer(client.GET("/strength/own-details")));
      else setProblem(error);
    }
  };
  const setRate = (budget: Schema["BudgetOut"], perS: number | null) =>
    setRates((now) => {
      const { [budget.code]: _, ...others } = now;
      const own = perS !== null && !isAlike(perS, budget.usual_rate_per_s);
      return own ? { ...others, [budget.code]: perS } : others;
    });

  return (
    <section className="stack own-details-own-details" aria-label="Own details">
      <header className="row spread">
        <h2>What others could guess of you</h2>
        <Button type="primary" onClick={() => void save(held.revision)} disabled={!changed}>
          Save own details
        </Button>
      </header>
      <DraftNote draft={kept} onAnew={() => take(held)} />
      <ProblemNote problem={problem} />
      {saved && (
        <ChangedMeanwhile
          fields={partedFields({ lines, rates }, saved)}
          onMine={() => void save(saved.revision)}
          onSaved={() => take(saved)}
        />
      )}
      <div className="two">
        <div className="field">
          <label htmlFor="own-lines">
            Names, dates and words, one a line ({lines.length} of {held.lines_most})
          </label>
          <Input.TextArea
            id="own-lines"
            value={text}
            onChange={(event) => setText(event.target.value)}
            rows={8}
            autoComplete="off"
            spellCheck={false}
          />
          <p className="small quiet">
            Pets, children, streets, clubs, birthdays, an old number plate. Sealed in the vault, and
            looked for in every secret that is measured: it costs a guesser next to nothing.
          </p>
        </div>
        <div>
          <table className="plain dense small">
            <thead>
              <tr>
                <th>Attack</th>
                <th>Guesses</th>
              </tr>
            </thead>
            <tbody>
              {budgets.map((b) => (
                <tr key={b.code}>
                  <td>
                    {b.label}, 10<sup>{b.guesses_log10}</sup>
                    <br />
                    <span className="quiet">
                      <Powers text={b.basis} />
                    </span>
                  </td>
                  <td className="own-details-td">
                    <RateField
                      budget={b}
                      perS={rates[b.code] ?? b.usual_rate_per_s}
                      onRate={(perS) => setRate(b, perS)}
                    />
                    {rates[b.code] !== undefined && (
                      <button
                        type="button"
                        className="link"
                        onClick={() => setRate(b, b.usual_rate_per_s)}
                      >
                        the usual
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
    </section>
  );
}

const SLOWEST_PER_S = 1e-6;

type RateProps = {
  budget: Schema["BudgetOut"];
  perS: number;
  onRate: (perS: number | null) => void;
};

/** A rate as people say it: what is usually less than one a second is counted by the day. */
function RateField({ budget, perS, onRate }: RateProps) {
  const [unitS, each] = budget.usual_rate_per_s < 1 ? [86_400, "a day"] : [1, "a second"];
  const shown = Number((perS * unitS).toPrecision(12));
  return (
    <span className="row one-line gap-4">
      <InputNumber
        aria-label={`Guesses ${each}, ${budget.label}`}
        value={shown}
        min={SLOWEST_PER_S * unitS}
        max={1e18}
        formatter={(v, typing) => (typing.userTyping ? typing.input : grouped(v))}
        parser={(v) => Number.parseFloat(v?.replaceAll(",", "") ?? "")}
        onChange={(v) => v !== shown && onRate(v && v / unitS)}
        className="wide-190"
      />
      <span className="quiet own-details-unit">{each}</span>
    </span>
  );
}

function grouped(n: number | string | undefined): string {
  return n === undefined ? "" : Number(n).toLocaleString("en", { maximumFractionDigits: 12 });
}

/** The same but for what counting by the day rounds. */
function isAlike(a: number, b: number): boolean {
  return Math.abs(a - b) <= 1e-9 * b;
}
