import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { ago, dayAndTime } from "../../domain/moments";
import { STATE_SAYS, type RotationState } from "../../domain/rotation";
import { useNow } from "../../shared/useNow";

const STEPS = ["new secret drawn", "taken to the site", "the site took it", "signed in with it"];

/** How many of the steps are done. */
const DONE: Record<RotationState, number> = {
  planned: 0,
  refused: 0,
  staged: 1,
  at_site: 2,
  unsure: 2,
  accepted: 3,
  verified: 4,
  given_up: 4,
};

/** The rotations that are under way, each as a card of its steps. */
export function UnderWay({ rotations }: { rotations: Schema["RotationOut"][] }) {
  const now = useNow();
  return (
    <section
      className={rotations.length > 1 ? "below-28 several-under-way" : "below-28"}
      aria-labelledby="under-way"
    >
      <h2 id="under-way" className="below-6">
        Under way
      </h2>
      <div className="under-way">
        {rotations.map((one) => (
          <article key={one.rotation_id} className="under-way-card">
            <header className="row spread">
              <h3>
                <Link to={`/rotate/${one.rotation_id}`}>{one.title}</Link>
              </h3>
              <span className="small quiet">{one.user_name}</span>
            </header>
            <ol className="under-way-steps">
              {STEPS.map((step, at) => {
                const done = at < DONE[one.state];
                const isNow = at === DONE[one.state];
                return (
                  <li
                    key={step}
                    className={done ? "step done" : isNow ? "step now" : "step"}
                    aria-current={isNow ? "step" : undefined}
                  >
                    <span className="no" aria-hidden="true">
                      {done ? "✓" : at + 1}
                    </span>
                    <span>
                      {step}
                      {done && <span className="visually-hidden">: done</span>}
                    </span>
                  </li>
                );
              })}
            </ol>
            <p>
              {STATE_SAYS[one.state]}
              {one.is_stalled && <b> · stands still</b>}
            </p>
            <p className="small quiet">
              last step {dayAndTime(one.changed_at, now)} · begun {ago(one.began_at, now)}
            </p>
          </article>
        ))}
      </div>
    </section>
  );
}
