import { useQuery } from "@tanstack/react-query";
import { answer, client } from "../api/client";
import { queries } from "../api/queries";
import { hostOf } from "../domain/address";
import { keptOutPlace } from "../domain/keptOut";
import { ProblemNote } from "./ProblemNote";
import { useAct } from "./useAct";

/** One act that keeps a place out: never offered to be saved, skipped when logins are brought in. */
export function KeepOut({ address }: { address: string }) {
  const { data } = useQuery(queries.safeguards());
  const { problem, busy, run } = useAct();
  const host = hostOf(address);
  if (!data || !host) return null;
  const isOut = keptOutPlace(data.kept_out, address) !== null;
  const turn = () =>
    run(() => answer(client.POST("/addresses/kept-out", { body: { address, kept_out: !isOut } })));
  return (
    <>
      <p className="small">
        <button type="button" className="link" disabled={busy} onClick={() => void turn()}>
          {isOut ? "Let this place in again" : "Keep this place out"}
        </button>{" "}
        <span className="quiet">
          {isOut
            ? `${host} is kept out: nothing is offered to be saved for it`
            : "nothing will be offered to be saved for it, nor brought in"}
        </span>
      </p>
      <ProblemNote problem={problem} />
    </>
  );
}
