import type { Schema } from "../api/client";
import { day } from "./moments";

export type WaiverReason = Schema["WaiverReason"];

/** Why a finding is accepted, and what the reason means. */
export const REASONS: Record<WaiverReason, { label: string; means: string }> = {
  cannot: { label: "Cannot", means: "the site allows no better" },
  not_mine: { label: "Not mine", means: "someone else decides" },
  covered: { label: "Covered otherwise", means: "another barrier stands before it" },
  does_not_matter: { label: "Does not matter", means: "there is nothing to lose" },
};

const FOUND_NOW: Record<NonNullable<Schema["WaiverOut"]["found_now"]>, string> = {
  accepted: "",
  to_do: "found again on other grounds: on the worklist",
  nothing: "no such finding now",
};

/** What is to be said of a waiver beside its day; nothing of one that covers what stands. */
export function standing(waiver: Schema["WaiverOut"]): string {
  if (waiver.lifted_at) return `taken back on ${day(waiver.lifted_at)}`;
  return waiver.found_now ? FOUND_NOW[waiver.found_now] : "its day is past";
}
