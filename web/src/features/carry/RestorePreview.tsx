import type { Schema } from "../../api/client";
import { count } from "../../domain/moments";
import { ManyRows } from "../../shared/ManyRows";

type Line = Schema["RestoreLineOut"];

const KINDS: Record<string, [string, string?]> = {
  login: ["login"],
  rotation: ["rotation"],
  loose_end: ["loose end"],
  policy: ["policy", "policies"],
  waiver: ["accepted finding"],
  campaign: ["campaign"],
  own_details: ["list of own details", "lists of own details"],
};
const WHAT: Record<string, string> = {
  back: "comes back",
  gone: "goes: it was not there then",
  differs: "goes back to what it was",
  made: "a secret that was handed out since is kept as a loose end",
};

/** Everything that restoring a backup would change: counted, and each record by its name. */
export function RestorePreview({ lines }: { lines: Line[] }) {
  if (lines.length === 0) return <p>Nothing in it differs from what is here now.</p>;
  const counted = Object.entries(KINDS)
    .map(([kind, [one, many]]) => [lines.filter((l) => l.kind === kind).length, one, many] as const)
    .filter(([n]) => n > 0)
    .map(([n, one, many]) => count(n, one, many));
  const binned = lines.filter((l) => l.kind === "login" && l.what === "gone").length;
  const kept = lines.reduce((sum, line) => sum + line.kept_secrets, 0);
  const texts = lines.reduce((sum, line) => sum + line.kept_texts, 0);
  return (
    <>
      <p>
        {counted.join(", ")} would change.
        {binned > 0 &&
          ` ${count(binned, "login made since goes", "logins made since go")} to the bin.`}
        {kept > 0 &&
          ` ${count(kept, "newer secret goes", "newer secrets go")} to the history of its login.`}
        {texts > 0 &&
          ` ${count(texts, "text changed since is", "texts changed since are")} kept beside the one of then.`}{" "}
        The settings stay as they are, and the present state is backed up first.
      </p>
      <ManyRows
        label="What would change"
        columns="minmax(0, 2fr) minmax(0, 1fr) minmax(0, 3fr)"
        heads={["Record", "User name", "What happens"]}
        rows={lines}
        cells={(line) => [
          line.kind === "login"
            ? line.title
            : [KINDS[line.kind]?.[0] ?? line.kind, line.title].filter(Boolean).join(": "),
          line.user_name,
          line.kind === "login" && line.what === "gone"
            ? "goes to the bin: it was not there then"
            : (WHAT[line.what] ?? line.what),
        ]}
      />
    </>
  );
}
