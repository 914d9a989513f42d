import { Segmented } from "antd";
import { useSearchParams } from "react-router";
import { BackUp } from "./BackUp";
import { BringIn } from "./BringIn";
import { TakeOut } from "./TakeOut";
import { WayBackIn } from "./WayBackIn";

const PARTS = ["Bring in", "Take out", "Back up", "Way back in"] as const;
type Part = (typeof PARTS)[number];

const inAddress = (part: Part) => part.toLowerCase().replaceAll(" ", "-");

/** Carrying the vault: in and out by open formats, merged, backed up, and recovered. */
export default function CarryPage() {
  const [params, setParams] = useSearchParams();
  const part = PARTS.find((one) => inAddress(one) === params.get("part")) ?? "Bring in";
  return (
    <main className="page at-most-1180">
      <header className="row spread below-20">
        <h1>Carry and recover</h1>
        <Segmented<Part>
          aria-label="Part"
          value={part}
          onChange={(one) => setParams({ part: inAddress(one) })}
          options={PARTS.map((value) => ({ value, label: value }))}
        />
      </header>
      {part === "Bring in" && <BringIn />}
      {part === "Take out" && <TakeOut />}
      {part === "Back up" && <BackUp />}
      {part === "Way back in" && <WayBackIn />}
    </main>
  );
}
