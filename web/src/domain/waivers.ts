import type { Schema } from "../api/client";

export type WaiverReason = Schema["WaiverReason"];

/** Why a finding is accepted, and what the reason means. */
export const REASONS: Record<WaiverReason, { label: string; means: string }> = {
  cannot: { label: "Cannot", means: "the site allows no better" },
  not_mine: { label: "Not mine", means: "someone else decides" },
  covered: { label: "Covered otherwise", means: "another barrier stands before it" },
  does_not_matter: { label: "Does not matter", means: "there is nothing to lose" },
};

/** Where a waiver stands, in a word or two. */
export function standing(waiver: Schema["WaiverOut"]): string {
  if (waiver.lifted_at) return "taken back";
  return waiver.holds ? "holds" : "its day is past";
}
