import { Button } from "antd";
import type { Schema } from "../../api/client";
import { ProblemNote } from "../../shared/ProblemNote";
import { Power } from "../../shared/GuessRuler";
import { useRotate } from "../../shared/useRotate";

/** What the site was found to do to the secret, and what it is really worth there. */
export function FaultsSaid(props: { found: Schema["FaultsOut"]; rotation: Schema["RotationOut"] }) {
  const { found, rotation } = props;
  const again = useRotate();
  const worth = (
    <>
      about <Power log10={found.guess_number_log10} /> guesses
    </>
  );
  if (found.keeps_first === null && !found.folds_case)
    return (
      <p className="small" role="status">
        It keeps the whole secret and tells its case apart: {worth}.
      </p>
    );
  return (
    <div className="small" role="status">
      <p>
        <b>
          {found.keeps_first !== null &&
            `It keeps ${found.is_exact ? "only" : "at most"} the first ${found.keeps_first} characters. `}
          {found.folds_case && "It takes capitals and small letters for the same. "}
        </b>
        What the site keeps of this secret stands {worth}. Its policy has learned it, and the next
        draw is made for that.
      </p>
      {rotation.state === "verified" ? (
        <Button size="small" className="above-6" onClick={() => again.mutate(rotation.login_id)}>
          Draw a better one
        </Button>
      ) : (
        <p className="quiet">End this rotation first; then a better one can be drawn.</p>
      )}
      <ProblemNote problem={again.error} />
    </div>
  );
}
