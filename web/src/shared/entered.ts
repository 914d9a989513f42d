/** Where the page stood when the vault was opened: a form that is there comes back by itself. */
let place = "";

const TAKEN_MS = 2000;

export function noteEntered(): void {
  place = window.location.pathname;
}

/** Whether the vault was opened on this very page, and nobody has gone elsewhere since. */
export function justEntered(): boolean {
  const here = place !== "" && place === window.location.pathname;
  // Several forms of one page ask; one that is opened later was called for.
  setTimeout(() => (place = ""), TAKEN_MS);
  return here;
}
