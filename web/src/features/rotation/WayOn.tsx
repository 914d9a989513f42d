import { useMutation } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { driving } from "./DrivePanel";
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
  const drive = useMutation({
    mutationKey: driving(rotation.rotation_id),
    mutationFn: () => {
      const body = { refused, at_most: AT_ONCE };
      return answer(client.POST("/rotations/{rotation_id}/way-on/drive", { params, body }));
    },
    onSuccess: (tried) => {
      setFound(tried);
      setRefused(tried.refused);
    },
  });
  const isBusy = busy || drive.isPending;

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
            <Button type="primary" disabled={isBusy} onClick={() => void ask({ refused: [] })}>
              Try them by hand
            </Button>
            {driven && (
              <Button disabled={isBusy} loading={drive.isPending} onClick={() => drive.mutate()}>
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
            busy={isBusy}
            onCopy={() => void copyTrial(trial)}
            onAnswer={(opened) =>
              void ask(opened ? { refused, opened: trial } : { refused: [...refused, trial] })
            }
            onStop={() => setFound(null)}
          />
          {driven && (
            <p className="small above-6">
              <Button
                size="small"
                disabled={isBusy}
                loading={drive.isPending}
                onClick={() => drive.mutate()}
              >
                Let New Knot try up to {AT_ONCE}
              </Button>{" "}
              <span className="quiet">one wrong sign-in first, from where you are</span>
            </p>
          )}
        </>
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
      <ProblemNote problem={problem ?? drive.error} />
    </section>
  );
}
