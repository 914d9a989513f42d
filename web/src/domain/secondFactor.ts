import type { Schema } from "../api/client";

/** Whether codes of a login are made here, accepted by its site already or not yet. */
export function makesCodes(login: { second_factor: Schema["SecondFactor"] }): boolean {
  return login.second_factor === "here" || login.second_factor === "setting_up";
}
