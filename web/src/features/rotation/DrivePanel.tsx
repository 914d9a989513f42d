import { useIsMutating, useMutation, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { Link } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { ProblemNote } from "../../shared/ProblemNote";
import { useKeys } from "../../shared/useKeys";
import { FaultsSaid } from "./FaultsSaid";

/** Of what drives a rotation: whichever does, its steps and its stop are shown here. */
export const driving = (rotationId: string) => ["driving", rotationId];

type Props = { rotation: Schema["RotationOut"]; driven: boolean };

/** New Knot fills the site's forms itself: the plan first, each step as it is done, a stop. */
export function DrivePanel({ rotation, driven }: Props) {
  const params = { path: { rotation_id: rotation.rotation_id } };
  const mutationKey = driving(rotation.rotation_id);
  const drive = useMutation({
    mutationKey,
    mutationFn: () => answer(client.POST("/rotations/{rotation_id}/drive", { params })),
  });
  const faults = useMutation({
    mutationKey,
    mutationFn: () => answer(client.POST("/rotations/{rotation_id}/faults", { params })),
  });
  const busy = useIsMutating({ mutationKey }) > 0;
  const { data } = useQuery({
    ...queries.drive(rotation.rotation_id),
    enabled: driven,
    refetchInterval: busy ? 400 : false,
  });
  const mayDrive = Boolean(data?.allowed) && !busy;
  useKeys({ g: () => mayDrive && drive.mutate() });

  if (!driven)
    return ["staged", "refused"].includes(rotation.state) ? (
      <p className="small quiet">
        New Knot could fill the forms of this site itself, if you{" "}
        <Link to={`/logins/${rotation.login_id}/edit`}>switch that on for this login</Link>.
      </p>
    ) : null;
  if (!data) return null;
  const mayTry = rotation.state === "verified" && !busy;
  if (!data.allowed && !busy && !mayTry && data.steps.length === 0) return null;
  const title = data.allowed || busy ? "Let New Knot do it" : "What New Knot did";
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      {data.allowed && !busy && (
        <>
          <p className="small">It would, and stop at anything unexpected:</p>
          <ol className="small drive-panel-small">
            {data.plan.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
          <Button type="primary" onClick={() => drive.mutate()}>
            Go to the site <kbd>G</kbd>
          </Button>
        </>
      )}
      {busy && (
        <Button onClick={() => void client.POST("/rotations/{rotation_id}/drive/stop", { params })}>
          Stop
        </Button>
      )}
      <ol className="small drive-panel-small-2" role="status">
        {data.steps.map((line, i) => (
          <li key={i}>{line}</li>
        ))}
      </ol>
      {mayTry && (
        <p className="small">
          <Button size="small" onClick={() => faults.mutate()}>
            Look for silent faults
          </Button>{" "}
          <span className="quiet">
            tries whether the site cuts the secret or folds its case; costs up to 8 sign-ins
          </span>
        </p>
      )}
      {faults.data && <FaultsSaid found={faults.data} rotation={rotation} />}
      <ProblemNote problem={drive.error ?? faults.error} />
    </section>
  );
}
