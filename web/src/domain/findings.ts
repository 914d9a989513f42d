import type { Schema } from "../api/client";

export type FindingKind = Schema["FindingKind"];

export const FINDING_KINDS: FindingKind[] = [
  "breached",
  "unexplained_change",
  "notice",
  "like_passphrase",
  "weak",
  "reused",
  "similar",
  "unfinished",
  "off_policy",
  "no_second_factor",
  "overdue",
  "plain_http",
];

export type Need = Schema["Need"];

/** What is to be done, in the order in which it is done. */
export const NEEDS: Need[] = ["new_secret", "field", "second_factor", "address", "finish"];

export const NEED_LABELS: Record<Need, string> = {
  new_secret: "New secret",
  field: "Further secret",
  second_factor: "Second factor",
  address: "Correct the address",
  finish: "Finish what is open",
};

/** As acts. */
export const NEED_ACTS: Record<Need, string> = {
  new_secret: "Rotate",
  field: "Change its further secret",
  second_factor: "Set up its codes",
  address: "Correct the address",
  finish: "See to it",
};

export const FINDING_LABELS: Record<FindingKind, string> = {
  breached: "Breached",
  unexplained_change: "Unexplained change",
  notice: "Breach notice",
  like_passphrase: "Like the passphrase",
  weak: "Weak",
  reused: "Reused",
  similar: "Similar",
  unfinished: "Unfinished",
  off_policy: "Off policy",
  no_second_factor: "No second factor",
  overdue: "Overdue",
  plain_http: "Address without https",
};

/** By what one login falls after another. */
export const CORD_LABELS: Record<Schema["CordKind"], string> = {
  same: "same secret",
  similar: "similar secret",
  resets: "reset through it",
};
