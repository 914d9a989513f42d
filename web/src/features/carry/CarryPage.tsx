import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { queries } from "../../api/queries";
import { dayAndTime } from "../../domain/moments";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { BackUp } from "./BackUp";
import { BringIn } from "./BringIn";
import { TakeOut } from "./TakeOut";
import { WayBackIn } from "./WayBackIn";

const PARTS = ["Bring in", "Take out", "Back up", "Way back in"] as const;
type Part = (typeof PARTS)[number];
const KEYS: Record<Part, string> = {
  "Bring in": "B",
  "Take out": "O",
  "Back up": "K",
  "Way back in": "W",
};

const inAddress = (part: Part) => part.toLowerCase().replaceAll(" ", "-");

/** Carrying the vault: in and out by open formats, merged, backed up, and recovered. */
export default function CarryPage() {
  const [params, setParams] = useSearchParams();
  const part = PARTS.find((one) => inAddress(one) === params.get("part")) ?? "Bring in";
  const states = useStates();
  const go = (to: Part) => setParams({ part: inAddress(to) });
  useKeys({
    b: () => go("Bring in"),
    o: () => go("Take out"),
    k: () => go("Back up"),
    w: () => go("Way back in"),
  });
  return (
    <main className="page at-most-1180">
      <h1 className="below-14">Carry and recover</h1>
      <div role="radiogroup" aria-label="Part" className="carry-parts">
        {PARTS.map((one) => (
          <label key={one} className="carry-part">
            <input
              type="radio"
              name="part"
              className="visually-hidden"
              checked={one === part}
              onChange={() => go(one)}
            />
            <span className="row gap-6 carry-part-head">
              <span className="carry-part-name">{one}</span>
              <kbd>{KEYS[one]}</kbd>
            </span>
            <span className="small quiet">{states[one]}</span>
          </label>
        ))}
      </div>
      {part === "Bring in" && <BringIn />}
      {part === "Take out" && <TakeOut />}
      {part === "Back up" && <BackUp />}
      {part === "Way back in" && <WayBackIn />}
    </main>
  );
}

/** How each part stands, in half a line. */
function useStates(): Record<Part, string> {
  const backups = useQuery(queries.backups()).data;
  const problem = useQuery(queries.safeguards()).data?.backup_problem ?? "";
  const recovery = useQuery(queries.recovery());
  const now = useNow();
  const newest = backups?.[0];
  const sheets = recovery.data;
  return {
    "Bring in": "a file of logins, or another copy of this vault",
    "Take out": "a sealed bundle, or files in the clear",
    "Back up": problem
      ? "the last one failed"
      : newest
        ? `last ${dayAndTime(newest.made_at, now)}${newest.is_read_through ? ", every record read" : ""}`
        : "none yet",
    "Way back in": !recovery.isSuccess
      ? ""
      : sheets
        ? `${sheets.threshold} of ${sheets.count} sheets, ${
            sheets.practised_at
              ? `practised ${dayAndTime(sheets.practised_at, now)}`
              : "never practised"
          }`
        : "no sheet yet",
  };
}
