import type { Schema } from "../api/client";

export type RotationState = Schema["RotationState"];

export const STATE_SAYS: Record<RotationState, string> = {
  planned: "begun, no new secret yet",
  staged: "new secret staged, not yet taken to the site",
  at_site: "at the site: did it take the new secret?",
  unsure: "not sure which secret holds; both are kept",
  refused: "refused by the site: draw another",
  accepted: "changed, not yet signed in with it",
  verified: "changed, and known to work",
  given_up: "given up; the secret stayed as it was",
};

export type Step = "current" | "open" | "new" | "answer" | "verify" | "ended";

/** Which step is the one to do now. */
export function stepOf(rotation: Schema["RotationOut"], opened: boolean): Step {
  switch (rotation.state) {
    case "planned":
    case "refused":
      return "new";
    case "staged":
      if (!rotation.is_sign_up && !rotation.current_copied_at) return "current";
      return opened ? "new" : "open";
    case "at_site":
    case "unsure":
      return "answer";
    case "accepted":
      return "verify";
    case "verified":
    case "given_up":
      return "ended";
  }
}
