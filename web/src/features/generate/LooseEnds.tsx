import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { dayAndTime } from "../../domain/moments";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { useNow } from "../../shared/useNow";
import { Dialogue } from "../../shared/Dialogue";

/** Secrets that were handed out and belong to no login yet: none is lost. */
export function LooseEnds({ onPlace }: { onPlace: (looseEndId: string) => void }) {
  const { data } = useQuery(queries.looseEnds());
  const { copy } = useClipboard();
  const [asking, setAsking] = useState<Schema["LooseEndOut"] | null>(null);
  const { problem, run } = useAct();
  const now = useNow();
  if (!data?.length) return null;

  const path = (one: Schema["LooseEndOut"]) => ({ path: { loose_end_id: one.loose_end_id } });
  const copyIt = (one: Schema["LooseEndOut"]) =>
    run(async () => {
      const { secret } = await answer(
        client.POST("/loose-ends/{loose_end_id}/secret", {
          params: path(one),
          body: { purpose: "copy" },
        }),
      );
      await copy("Loose end", secret);
    });
  const dismiss = (one: Schema["LooseEndOut"]) =>
    run(() => answer(client.DELETE("/loose-ends/{loose_end_id}", { params: path(one) })));

  return (
    <section className="strip" aria-label="Loose ends">
      <b>Loose ends</b>
      {data.map((one) => (
        <span key={one.loose_end_id} className="row gap-7">
          <span>
            {one.length} characters, copied {dayAndTime(one.handed_out_at, now)}
            {one.address ? ` for ${one.address.replace(/^https?:\/\//, "")}` : ", no address"}
          </span>
          <button type="button" className="link" onClick={() => onPlace(one.loose_end_id)}>
            place
          </button>
          <button type="button" className="link" onClick={() => void copyIt(one)}>
            copy
          </button>
          <button type="button" className="link" onClick={() => setAsking(one)}>
            dismiss
          </button>
        </span>
      ))}
      <ProblemNote problem={problem} />
      <Dialogue
        open={asking !== null}
        title="Let this secret go for good?"
        okText="Let it go"
        cancelText="Keep it"
        onCancel={() => setAsking(null)}
        onOk={() => {
          const one = asking;
          setAsking(null);
          if (one) void dismiss(one);
        }}
      >
        <p>If a site has it already, it cannot be had back.</p>
      </Dialogue>
    </section>
  );
}
