import type { Schema } from "../api/client";

export type FindingKind = Schema["FindingKind"];

export const FINDING_KINDS: FindingKind[] = [
  "breached",
  "like_passphrase",
  "weak",
  "reused",
  "similar",
  "unfinished",
  "off_policy",
  "overdue",
  "plain_http",
];

export const FINDING_LABELS: Record<FindingKind, string> = {
  breached: "Breached",
  like_passphrase: "Like the passphrase",
  weak: "Weak",
  reused: "Reused",
  similar: "Similar",
  unfinished: "Unfinished",
  off_policy: "Off the site's policy",
  overdue: "Overdue",
  plain_http: "Plain http",
};

/** Why this finding stands first, in one sentence. */
export function whyHere(row: Schema["FindingRow"]): string {
  const marked = row.importance === "normal" ? "" : `, and marked ${row.importance}`;
  const shared = row.others.length > 1 ? `; ${row.others.length} logins share it` : "";
  return `Ordered by kind (${FINDING_LABELS[row.kind].toLowerCase()})${marked}${shared}.`;
}
