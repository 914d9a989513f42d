import { useEffect, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import type { Policy } from "../../domain/policy";
import { sentence } from "../../domain/problems";
import { KINDS, type WordsShape } from "../../domain/wish";
import { ProblemNote } from "../../shared/ProblemNote";

type Props = {
  bits: number;
  policy: Policy | undefined;
  shape: WordsShape;
  onTake: (drawId: string) => void;
};

/** What stands there, and for how many bits: until others come, those that were asked before. */
type Shown = { bits: number; sides: Schema["SideOut"][] };

/** The same worth in each kind, in numbers: memorable against short. */
export function SideBySide({ bits, policy, shape, onTake }: Props) {
  const [shown, setShown] = useState<Shown | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  useEffect(() => {
    let isLatest = true;
    answer(client.POST("/draws/side-by-side", { body: { bits, policy, shape } })).then(
      (sides) => {
        if (!isLatest) return;
        setShown({ bits, sides });
        setProblem(null);
      },
      (error: unknown) => isLatest && setProblem(error),
    );
    return () => {
      isLatest = false;
    };
  }, [bits, policy, shape]);
  return (
    <section aria-label="Side by side">
      <ProblemNote problem={problem} />
      <h2>
        The same worth in each kind <kbd>B</kbd>
      </h2>
      <table className="plain sides" aria-busy={shown?.bits !== bits}>
        <caption className="small quiet side-by-side-small">
          At least {shown?.bits ?? bits} bits; length, presses and taps are means over 24 draws
        </caption>
        <thead>
          <tr>
            <th>Kind, and an example</th>
            <th className="right wide-92">Bits</th>
            <th className="right wide-64">Length</th>
            <th className="right wide-64">Presses</th>
            <th className="right wide-64">Taps</th>
            <th className="wide-64">
              <span className="visually-hidden">acts</span>
            </th>
          </tr>
        </thead>
        {(shown?.sides ?? []).map((side) => (
          <tbody key={side.kind}>
            {side.draw ? (
              <>
                <tr className="side-facts">
                  <td>{side.says}</td>
                  <td className="right">{side.draw.entropy_bits}</td>
                  <td className="right">{side.length.toFixed(0)}</td>
                  <td className="right">{side.key_presses.toFixed(0)}</td>
                  <td className="right">{side.phone_taps.toFixed(0)}</td>
                  <td className="right">
                    <button
                      type="button"
                      className="link"
                      onClick={() => side.draw && onTake(side.draw.draw_id)}
                    >
                      take<span className="visually-hidden"> the {side.kind}</span>
                    </button>
                  </td>
                </tr>
                <tr>
                  <td colSpan={6} className="sample" translate="no">
                    {side.draw.secret}
                  </td>
                </tr>
              </>
            ) : (
              <tr>
                <td>{KINDS.find((k) => k.value === side.kind)?.label}</td>
                <td colSpan={5} className="quiet">
                  {side.problem_code &&
                    sentence({ code: side.problem_code, data: side.problem_data })}
                </td>
              </tr>
            )}
          </tbody>
        ))}
      </table>
    </section>
  );
}
