import type { Schema } from "../api/client";

/** How an address resembles a site that is known, in words. */
export const HOW_ALIKE: Record<Schema["Likeness"], string> = {
  other_alphabet: "letters of another alphabet that look the same",
  look_alike: "letters that look alike",
  one_letter: "one letter differs",
  other_ending: "the same name with another ending",
  letters_off: "letters of its name are doubled or left out",
  name_joined: "its name is joined with other words",
  name_inside: "its name stands inside the address of another site",
};

/** An address as it can be opened: typed without its scheme, it is taken for https. */
export function openable(address: string): string {
  return /^https?:\/\//i.test(address) ? address : `https://${address}`;
}

/** Its host in lower case, or nothing where there is none yet. */
export function hostOf(address: string): string {
  try {
    return new URL(openable(address)).hostname;
  } catch {
    return "";
  }
}

/** The well-known address of its site's change page (a W3C draft); many sites have it. */
export function changePageOf(address: string): string {
  try {
    return new URL("/.well-known/change-password", openable(address)).href;
  } catch {
    return openable(address);
  }
}

/** Whether a text that was typed or pasted may be an address: asked of the server, which reads it. */
export function maybeAddress(text: string): boolean {
  return /^\s*https?:|^\S+[.。．]\S{2,}$/i.test(text.trim());
}
