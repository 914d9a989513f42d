import type { Schema } from "../../api/client";
import { count } from "../../domain/moments";

type Found = Schema["LossesOut"];
const SAID: [keyof Omit<Found, "damaged" | "formula_secrets">, string, string?][] = [
  ["histories", "history", "histories"],
  ["resets", "link to the login that resets it", "links to the login that resets them"],
  ["in_bin", "login in the bin", "logins in the bin"],
  ["waivers", "accepted finding"],
  ["policies", "policy", "policies"],
  ["open_rotations", "open rotation"],
  ["loose_ends", "loose end"],
  [
    "driven_at",
    "login whose forms may be filled at other addresses too",
    "logins whose forms may be filled at other addresses too",
  ],
  ["own_details", "line of own details", "lines of own details"],
];

/** What neither open format has a place for, counted. */
export const notCarried = (losses: Found) =>
  SAID.filter(([name]) => losses[name] > 0).map(([name, one, many]) =>
    count(losses[name], one, many),
  );

/** What neither open format carries of this vault, counted, and what is in no file at all. */
export function Losses({ losses }: { losses: Found }) {
  const left = notCarried(losses);
  return (
    <>
      {losses.damaged.length > 0 && (
        <p className="problem" role="alert">
          <b>
            {count(losses.damaged.length, "login")} cannot be read and will be in no file, a bundle
            neither:
          </b>{" "}
          {losses.damaged.join(", ")}.
        </p>
      )}
      <p>
        {left.length > 0
          ? `Neither format has a place for ${left.join(", ")} of this vault, nor for how a secret was made: a sealed bundle has.`
          : "Both formats carry all of its logins, but not how their secrets were made."}
      </p>
      {losses.formula_secrets > 0 && (
        <p>
          {count(losses.formula_secrets, "secret begins", "secrets begin")} as a formula does: do
          not open the CSV file in a spreadsheet that computes what it reads.
        </p>
      )}
    </>
  );
}
