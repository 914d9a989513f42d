import { useQuery } from "@tanstack/react-query";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import { dayAndTime } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { useNow } from "../../shared/useNow";

/** Every window in which the vault is open, with when each began and ends. */
export function Sessions() {
  const { data, error } = useQuery(queries.sessions());
  const { problem, run } = useAct();
  const now = useNow();
  const others = data?.filter((one) => !one.is_this).length ?? 0;
  return (
    <section className="stack" aria-label="Open windows">
      <header className="row spread">
        <h2>Windows in which the vault is open</h2>
        {others > 0 && (
          <button
            type="button"
            className="link"
            onClick={() => void run(() => answer(client.POST("/vault/sessions/end-others")))}
          >
            End all but this one
          </button>
        )}
      </header>
      <ul className="plain-list">
        {data?.map((one) => (
          <li key={`${one.began_at} ${one.is_this}`}>
            {one.is_this ? "This window" : "Another window"}, opened {dayAndTime(one.began_at, now)}
            ; it ends {dayAndTime(one.ends_at, now)} at the latest
          </li>
        ))}
      </ul>
      <ProblemNote problem={problem ?? error} />
    </section>
  );
}
