/** Which answers rest on what a call changes, so that no more than these is asked again. */

/** Keys of `queries` that ask this machine alone: what asks outside is asked when it is wanted. */
export const WITHIN = (
  "session sessions logins login bin loose-ends policies worklist waivers reach progress " +
  "rotations rotation drive campaigns past-retention events own-details login-measure " +
  "passphrase-facts word-list first-hour clear-files losses backups recovery safeguards report"
).split(" ");

/** All of what stands to be done. */
const STANDING = ["worklist", "waivers", "report"];
const LOGIN = [
  ...STANDING,
  ..."logins login bin reach events policies past-retention campaigns rotations rotation".split(
    " ",
  ),
];
const ROTATION = [
  ...STANDING,
  ..."rotations rotation drive login logins campaigns events policies loose-ends past-retention reach".split(
    " ",
  ),
];
const FOUND = [...STANDING, "reach", "logins", "login", "events"];
const LOOSE = [...STANDING, "loose-ends"];
const NOTHING: string[] = [];

/** Method and path, `*` for one part of it, `**` for the rest; the first line that fits holds. */
const RENEWED: [string, string[]][] = [
  ["POST /logins/rows", NOTHING],
  ["POST /logins/find", NOTHING],
  ["POST /logins/known", NOTHING],
  ["POST /logins/*/secret", NOTHING],
  ["POST /logins/*/secret-field", NOTHING],
  ["POST /logins/*/code", NOTHING],
  ["POST /logins/*/measure", NOTHING],
  ["POST /logins/*/backup-codes", NOTHING],
  ["POST /logins/*/history/compare", NOTHING],
  ["POST /logins/*/history/*/secret", NOTHING],
  ["POST /logins", [...LOGIN, ...LOOSE]],
  ["PUT /logins/*", [...LOGIN, ...LOOSE]],
  ["* /logins/**", LOGIN],
  ["* /history/**", LOGIN],
  ["POST /rotations/*/change-page", NOTHING],
  ["POST /rotations/*/former", NOTHING],
  ["POST /rotations/*/trials/secret", NOTHING],
  ["POST /rotations/*/way-on/secret", NOTHING],
  ["POST /rotations/*/current", ["rotation", "rotations"]],
  ["* /rotations/**", ROTATION],
  ["POST /campaigns/choices", NOTHING],
  ["POST /campaigns/chosen", NOTHING],
  ["* /campaigns/**", ROTATION],
  ["POST /checks/stop", NOTHING],
  ["POST /checks/worklist/*", NOTHING],
  ["POST /checks", FOUND],
  ["* /waivers/**", FOUND],
  ["POST /notices/fetch", STANDING],
  ["POST /mails", STANDING],
  ["POST /draws/*/keep", LOOSE],
  ["POST /draws/**", NOTHING],
  ["DELETE /draws", NOTHING],
  ["PUT /draws/list", ["word-list"]],
  ["POST /loose-ends/*/secret", NOTHING],
  ["* /loose-ends/**", LOOSE],
  ["POST /policies/read", NOTHING],
  ["* /policies/**", ["policies", "login", "logins", "past-retention"]],
  ["POST /addresses", NOTHING],
  ["* /addresses/**", ["safeguards"]],
  ["POST /reports/**", NOTHING],
  ["PUT /strength/own-details", ["own-details", "login-measure"]],
  ["POST /strength/**", NOTHING],
  ["POST /exports/history", ["clear-files", "events"]],
  ["* /exports/**", ["clear-files", "events", "safeguards"]],
  ["POST /imports/*/preview", NOTHING],
  ["POST /imports", NOTHING],
  ["DELETE /imports/*", NOTHING],
  ["POST /bundles/key", NOTHING],
  ["POST /bundles/take-out", ["events"]],
  ["POST /bundles/*/open", NOTHING],
  ["POST /bundles", NOTHING],
  ["DELETE /bundles/*", NOTHING],
  ["POST /backups/*/look", NOTHING],
  ["POST /backups", ["backups", "safeguards", "events"]],
  ["POST /recovery/practice", ["recovery", "events"]],
  ["* /recovery/**", ["recovery", "safeguards", "events"]],
  ["* /drafts/*", NOTHING],
  ["POST /first-hour/end", ["first-hour"]],
  ["POST /vault/touch", NOTHING],
  ["POST /vault/proof", NOTHING],
  ["POST /vault/lock", NOTHING],
  ["POST /vault/recover/**", NOTHING],
  ["POST /vault/passphrase/judge", NOTHING],
  ["POST /safeguards/corpora/*/verify", NOTHING],
];

/** Keys to be asked again after a call that succeeded; whatever is not named here, all of them. */
export function renewedBy(method: string, path: string): string[] {
  if (method === "GET") return NOTHING;
  const found = RENEWED.find(([pattern]) => fits(pattern, method, path));
  return found ? [...new Set(found[1])] : WITHIN;
}

/** A site may have been changed though the call that drove it failed. */
export function changesThoughFailed(path: string): boolean {
  return /^\/(rotations|campaigns)\/[^/]+\/((way-on\/)?drive|faults)$/.test(path);
}

function fits(pattern: string, method: string, path: string): boolean {
  const [wanted = "", route = ""] = pattern.split(" ");
  if (wanted !== "*" && wanted !== method) return false;
  const open = route.endsWith("/**");
  const parts = (open ? route.slice(0, -3) : route).split("/");
  const given = path.split("/");
  if (open ? given.length < parts.length : given.length !== parts.length) return false;
  return parts.every((part, i) => part === "*" || part === given[i]);
}
