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
