import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";

type Steps = Schema["FirstHourOut"];
type Step = { done: boolean; name: string; act: ReactNode; why: string };

function stepsOf(steps: Steps): Step[] {
  return [
    {
      done: steps.has_logins,
      name: "Your logins",
      act: (
        <>
          <Link to="/carry">bring a file in</Link>, or{" "}
          <Link to="/logins/new">add the first one</Link>
        </>
      ),
      why: "From a CSV or a Credential Exchange file: you see every row first.",
    },
    {
      done: steps.is_checked,
      name: "A first check",
      act: <>key C, once there are logins</>,
      why: "It measures and compares every secret; nothing leaves this machine unless you switch that on.",
    },
    {
      done: steps.has_recovery_sheet,
      name: "A recovery sheet",
      act: <Link to="/carry?part=way-back-in">make one, on paper</Link>,
      why: "A second way in. Without one, a forgotten passphrase is the end of the vault.",
    },
    {
      done: steps.has_backup_place,
      name: "A place for backups",
      act: <Link to="/safeguards">name a folder on another disk</Link>,
      why: "Until then they lie beside the vault, and go with its disk.",
    },
    {
      done: steps.has_corpus,
      name: "A breach corpus",
      act: <Link to="/safeguards">how to build one</Link>,
      why: "Without one, or a list held elsewhere, no secret can be found breached; all else is checked.",
    },
  ];
}

/** What a new vault does not have yet, each with its act, until it is done or dismissed. */
export function FirstHour({ inALine = false }: { inALine?: boolean }) {
  const { data } = useQuery(queries.firstHour());
  const { problem, run } = useAct();
  if (!data || data.is_over) return null;
  const steps = stepsOf(data);
  const left = steps.filter((step) => !step.done);
  const dismiss = (
    <button
      type="button"
      className="link"
      onClick={() => void run(() => answer(client.POST("/first-hour/end")))}
    >
      dismiss this list
    </button>
  );
  if (inALine)
    return (
      <p className="small first-hour-line" aria-label="First hour" role="note">
        <b>Not there yet:</b>{" "}
        {left.map((step, i) => (
          <span key={step.name}>
            {i > 0 && "; "}
            {step.name.toLowerCase()} ({step.act})
          </span>
        ))}
        . {dismiss}
        <ProblemNote problem={problem} />
      </p>
    );
  return (
    <section aria-label="First hour" className="first-hour">
      <h2>The first hour</h2>
      <ul className="bare">
        {steps.map((step) => (
          <li key={step.name} className={step.done ? "step done" : "step"}>
            <span className="tick" aria-hidden="true">
              {step.done ? "✓" : ""}
            </span>
            <div>
              <b>{step.name}</b>
              {step.done ? <span className="quiet">: done</span> : <>: {step.act}</>}
              {!step.done && <p className="small quiet">{step.why}</p>}
            </div>
          </li>
        ))}
      </ul>
      <p className="small">{dismiss}</p>
      <ProblemNote problem={problem} />
    </section>
  );
}
