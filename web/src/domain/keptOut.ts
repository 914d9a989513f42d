import { hostOf } from "./address";

/** The place on the list that an address belongs to, or null. */
export function keptOutPlace(kept_out: string[], address: string): string | null {
  const host = hostOf(address);
  return kept_out.find((place) => host === place || host.endsWith(`.${place}`)) ?? null;
}
