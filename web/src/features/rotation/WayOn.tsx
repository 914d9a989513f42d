import { Button } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { TrialButtons } from "./TrialButtons";

type Trial = Schema["WayOnShape"];
/** How many a drive tries at once: a site may count wrong sign-ins. */
const AT_ONCE = 9;
type Props = { rotation: Schema["RotationOut"]; driven: boolean };

/** After "not sure": which secret opens the site, one sign-in after the other, by hand or driven. */
export function WayOn({ rotation, driven }: Props) {
  const params = { path: { rotation_id: rotation.rotation_id } };
  const { copy } = useClipboard();
  const { problem, busy, run } = useAct();
  const [refused, setRefused] = useState<Trial[]>([]);
  const [found, setFound] = useState<Schema["WayOnOut"] | null>(null);
  const trial = found?.trial ?? null;
  const isOpen = rotation.state === "unsure";

  const ask = (body: Schema["WayOnAnswers"]) =>
    run(async () => {
      setFound(await answer(client.POST("/rotations/{rotation_id}/way-on", { params, body })));
      setRefused(body.refused);
    });
  const copyTrial = (of: Trial) =>
    run(async () => {
      const body = { ...of, purpose: "copy" as const };
      const { secret } = await answer(
        client.POST("/rotations/{rotation_id}/way-on/secret", { params, body }),
      );
      await copy(`Trial ${refused.length + 1} at ${rotation.title}`, secret);
    });
  const drive = () =>
    run(async () => {
      const body = { refused, at_most: AT_ONCE };
      const driven = await answer(
        client.POST("/rotations/{rotation_id}/way-on/drive", { params, body }),
      );
      setFound(driven);
      setRefused(driven.refused);
    });

  if (!isOpen && !found) return null;
  return (
    <section aria-label="Which one opens it">
      <h2>Which one opens it?</h2>
      {isOpen && !found && (
        <>
          <p className="small">
            Signing in tells. First the new one and the old one as they are; then what a site may
            have made of the new one when it kept it: its beginning, one case alone, what is left
            without some signs, its end, and at last any part of it.
          </p>
          <div className="row">
            <Button type="primary" disabled={busy} onClick={() => void ask({ refused: [] })}>
              Try them by hand
            </Button>
            {driven && (
              <Button disabled={busy} loading={busy} onClick={() => void drive()}>
                Let New Knot try them
              </Button>
            )}
          </div>
          {driven && (
            <p className="small quiet">
              One wrong sign-in first, then up to {AT_ONCE} at a time: it stops at any sign that the
              site minds.
            </p>
          )}
        </>
      )}
      {isOpen && trial && found && (
        <>
          <p className="small">
            Try {refused.length + 1}: sign out, and in with <b>{found.says}</b>.
          </p>
          <TrialButtons
            busy={busy}
            onCopy={() => void copyTrial(trial)}
            onAnswer={(opened) =>
              void ask(opened ? { refused, opened: trial } : { refused: [...refused, trial] })
            }
            onStop={() => setFound(null)}
          />
          {driven && (
            <Button disabled={busy} loading={busy} onClick={() => void drive()}>
              Let New Knot try up to {AT_ONCE} more
            </Button>
          )}
        </>
      )}
      {found && found.steps.length > 0 && (
        <ol className="small">
          {found.steps.map((line, i) => (
            <li key={i}>{line}</li>
          ))}
        </ol>
      )}
      {found && !trial && (
        <p role="status">
          {found.found ? (
            <>
              <b>Found:</b> the site opens with {found.found}.{" "}
              {found.rotation.state === "verified"
                ? "It is current, and verified."
                : "It stays current: the site did not take the new one."}
            </>
          ) : (
            "None of them opens it. Both are kept: use the site's own way to set it anew, with the new one staged here."
          )}
        </p>
      )}
      <ProblemNote problem={problem} />
    </section>
  );
}
