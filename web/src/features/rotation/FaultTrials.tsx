import { Button } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { FaultsSaid } from "./FaultsSaid";
import { TrialButtons } from "./TrialButtons";

type Trial = Schema["TrialShape"];
type Tried = Schema["TriedIn"];

/** Silent faults found by the person's own sign-ins: each trial is copied, each answer is told. */
export function FaultTrials({ rotation }: { rotation: Schema["RotationOut"] }) {
  const params = { path: { rotation_id: rotation.rotation_id } };
  const { copy } = useClipboard();
  const { problem, busy, run } = useAct();
  const [tried, setTried] = useState<Tried[]>([]);
  const [standing, setStanding] = useState<Schema["StandingOut"] | null>(null);
  const trial = standing?.trial ?? null;

  const ask = (answers: Tried[]) =>
    run(async () => {
      const body = { tried: answers };
      setStanding(await answer(client.POST("/rotations/{rotation_id}/trials", { params, body })));
      setTried(answers);
    });
  const copyTrial = (of: Trial) =>
    run(async () => {
      const body = { ...of, purpose: "copy" as const };
      const { secret } = await answer(
        client.POST("/rotations/{rotation_id}/trials/secret", { params, body }),
      );
      await copy(`Trial ${tried.length + 1} at ${rotation.title}`, secret);
    });

  return (
    <section aria-label="Silent faults">
      <h2>Silent faults</h2>
      {!standing && (
        <p className="small">
          <Button size="small" disabled={busy} onClick={() => void ask([])}>
            Look for them
          </Button>{" "}
          <span className="quiet">
            does the site cut the secret, or take its case as one? Told by at most 7 sign-ins of
            yours; stop at any sign that it minds
          </span>
        </p>
      )}
      {trial && (
        <>
          <p className="small">
            Try {tried.length + 1}: sign out, and in with{" "}
            {trial.other_case
              ? "the secret, its capitals and small letters turned"
              : `the first ${trial.characters} characters alone`}
            .
          </p>
          <TrialButtons
            busy={busy}
            onCopy={() => void copyTrial(trial)}
            onAnswer={(opened) => void ask([...tried, { ...trial, opened }])}
            onStop={() => setStanding(null)}
          />
        </>
      )}
      {standing?.faults && <FaultsSaid found={standing.faults} rotation={rotation} />}
      <ProblemNote problem={problem} />
    </section>
  );
}
