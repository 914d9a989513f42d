import { Button } from "antd";
import { useRef, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { MeasureReport } from "../../shared/MeasureReport";
import { Powers } from "../../shared/Powers";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { useMeasure } from "../../shared/useMeasure";

const IDLE = "Type or paste a secret: it is measured here and kept nowhere.";

/** A text of one's own measured, and another beside it. */
export default function MeasurePage() {
  const first = useRef<HTMLInputElement>(null);
  const second = useRef<HTMLInputElement>(null);
  const one = useMeasure();
  const [beside, setBeside] = useState(false);
  const [shown, setShown] = useState<string | null>(null);
  const [both, setBoth] = useState<Schema["CompareOut"] | null>(null);
  const [shownSecond, setShownSecond] = useState<string | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const showing = useRef({ first: false, second: false });
  const asked = useRef(0);

  const typed = async () => {
    const texts = { first: first.current?.value ?? "", second: second.current?.value ?? "" };
    setShown(showing.current.first ? texts.first : null);
    setShownSecond(showing.current.second ? texts.second : null);
    const mine = ++asked.current;
    if (!texts.second) {
      setBoth(null);
      await one.measureText(texts.first);
      return;
    }
    try {
      const found = await answer(client.POST("/strength/compare", { body: texts }));
      if (mine === asked.current) {
        setBoth(found);
        setProblem(null);
      }
    } catch (error) {
      setProblem(error);
    }
  };
  const show = (which: "first" | "second") => (on: boolean) => {
    showing.current[which] = on;
    void typed();
  };
  const forget = () => {
    for (const field of [first.current, second.current]) if (field) field.value = "";
    void typed();
  };

  return (
    <main className="page at-most-1180">
      <header className="row spread below-14">
        <h1>Measure a secret of your own</h1>
        <div className="row">
          <Button onClick={() => setBeside(!beside)} aria-expanded={beside}>
            {beside ? "One alone" : "Compare with another"}
          </Button>
          <Button onClick={forget}>Forget what was typed</Button>
        </div>
      </header>
      <ProblemNote problem={problem ?? one.problem} />
      {both && (
        <section className="verdict" aria-live="polite" aria-label="Which is better, and why">
          <p>
            <b>
              <Powers text={verdictOf(both)} />
            </b>
          </p>
          <ul className="small">
            {both.reasons.map((r) => (
              <li key={r}>
                <Powers text={r} />
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className={beside ? "beside" : undefined}>
        <section className="stack gap-10" aria-label="First secret">
          <SecretInput
            ref={first}
            label={beside ? "First secret" : "Secret"}
            onChange={() => void typed()}
            onShownChange={show("first")}
          />
          <MeasureReport
            found={both?.first ?? one.found}
            secret={shown}
            wide={beside ? 540 : 760}
            idle={IDLE}
          />
        </section>
        {beside && (
          <section className="stack gap-10" aria-label="Second secret">
            <SecretInput
              ref={second}
              label="Second secret"
              onChange={() => void typed()}
              onShownChange={show("second")}
            />
            <MeasureReport
              found={both?.second ?? null}
              secret={shownSecond}
              wide={540}
              idle="The one to compare it with."
            />
          </section>
        )}
      </div>
    </main>
  );
}

function verdictOf(both: Schema["CompareOut"]): string {
  if (both.better === "neither") return "Neither is better: they stand about as many guesses.";
  const name = both.better === "first" ? "The first" : "The second";
  const times = both.orders < 3 ? Math.round(10 ** both.orders).toLocaleString("en") : null;
  return times
    ? `${name} is better: it stands ${times} times as many guesses.`
    : `${name} is better: it stands 10^${both.orders.toFixed(0)} times as many guesses.`;
}
