import { useState } from "react";
import { Link } from "react-router";
import { answer, client, type Schema } from "../api/client";
import { count } from "../domain/moments";
import { Dialogue } from "../shared/Dialogue";
import { ProblemNote } from "../shared/ProblemNote";
import { useAct } from "../shared/useAct";

const NAMED_MOST = 6;
const BECAME: Record<Schema["LostPartOut"]["became"], string> = {
  new_card: "what can be read of its secrets and history is in a new login, called after it",
  without_secret: "its secret is gone, all else of it that can be read is there",
  without_history: "its history begins anew",
  loose_end: "its secrets are among the loose ends",
  gone: "gone",
};

/** What cannot be read, by name; and, where nothing brings it back, the way on without it. */
export function LostParts({ damaged }: { damaged: string[] }) {
  const [asking, setAsking] = useState(false);
  const [became, setBecame] = useState<Schema["LostPartOut"][] | null>(null);
  const { problem, busy, run } = useAct();
  const goOn = () =>
    run(async () => {
      setAsking(false);
      const parts = await answer(client.POST("/vault/go-on-without-lost"));
      // Nothing was lost any more where another window brought it back.
      setBecame(parts.length ? parts : null);
    });
  if (became)
    return (
      <div className="warning" role="status">
        <b>Let go of.</b>{" "}
        {became
          .slice(0, NAMED_MOST)
          .map((one) => `${one.named}: ${BECAME[one.became]}`)
          .join("; ")}
        {became.length > NAMED_MOST && `; and ${count(became.length - NAMED_MOST, "more record")}`}.
        The vault as it was lies beside the backups, as “….failed”.{" "}
        <button type="button" className="link" onClick={() => setBecame(null)}>
          Close
        </button>
      </div>
    );
  if (!damaged.length) return null;
  return (
    <div className="warning" role="alert">
      <b>{count(damaged.length, "record")} not as written</b>, so not shown:{" "}
      {damaged.slice(0, NAMED_MOST).join("; ")}
      {damaged.length > NAMED_MOST && " …"}. A backup, or another copy of the vault, may still hold
      them: <Link to="/carry">look there first</Link>. No whole backup can be made until then.{" "}
      <button type="button" className="link" disabled={busy} onClick={() => setAsking(true)}>
        Go on without them…
      </button>
      <ProblemNote problem={problem} />
      <Dialogue
        open={asking}
        title={`Go on without what cannot be read of ${count(damaged.length, "record")}?`}
        okText="Go on without it"
        cancelText="Look for it first"
        onCancel={() => setAsking(false)}
        onOk={() => void goOn()}
      >
        <p>
          All of a login that can be read stays: one of which the card is lost is given a new one,
          with its secrets and history; a secret whose place is lost becomes a loose end. The rest
          is let go of, and backups can be made again.
        </p>
        <p>
          A backup or another copy that turns up later still brings it back. The vault as it is now
          is copied first.
        </p>
      </Dialogue>
    </div>
  );
}
