import { useQuery } from "@tanstack/react-query";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import { dayAndTime } from "../../domain/moments";
import { KINDS } from "../../domain/wish";
import { useAct } from "../../shared/useAct";
import { ProblemNote } from "../../shared/ProblemNote";
import { useNow } from "../../shared/useNow";

const SHOWN = 6;

type Props = {
  /** The draw that is shown now: a new one is another list. */
  current: string | undefined;
  onTake: (drawId: string) => void;
};

/** The draws before this one that are still kept, by kind and time; a secret only when taken. */
export function EarlierDraws({ current, onTake }: Props) {
  const { data, refetch } = useQuery(queries.draws(current));
  const { problem, run } = useAct();
  const now = useNow();
  const draws = (data ?? []).filter((one) => one.draw_id !== current);
  return (
    <section aria-label="Earlier draws" className="earlier-draws">
      <h2>Earlier draws</h2>
      <p className="small quiet">The newest 20, sealed; written into the vault at a lock</p>
      {draws.length === 0 && <p className="small quiet">None yet.</p>}
      <ul className="bare">
        {draws.slice(0, SHOWN).map((one) => {
          const says = `${KINDS.find((k) => k.value === one.kind)?.label ?? one.kind}, ${one.length} characters`;
          return (
            <li key={one.draw_id} className="row spread one-line small">
              <span>
                {says}
                <span className="quiet">
                  {" "}
                  {one.entropy_bits === null ? "chosen" : `${one.entropy_bits} bits`},{" "}
                  {dayAndTime(one.drawn_at, now)}
                </span>
              </span>
              <button
                type="button"
                className="link"
                aria-label={`Take ${says}, ${dayAndTime(one.drawn_at, now)}`}
                onClick={() => onTake(one.draw_id)}
              >
                take
              </button>
            </li>
          );
        })}
      </ul>
      {draws.length > SHOWN && <p className="small quiet">and {draws.length - SHOWN} more, by ←</p>}
      {draws.length > 0 && (
        <button
          type="button"
          className="link small"
          onClick={() =>
            void run(async () => {
              await answer(client.DELETE("/draws"));
              await refetch();
            })
          }
        >
          Let all of them go
        </button>
      )}
      <ProblemNote problem={problem} />
    </section>
  );
}
