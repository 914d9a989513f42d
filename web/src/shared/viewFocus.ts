import { openDialogue } from "./typedAhead";

const LIST = '[role="grid"], [role="listbox"]';
const OWN = "input, textarea, select, [contenteditable]";
const WAITS_MS = 10_000;

/** To the view's list, whose rows are then announced, or to its heading. */
export function focusView(): boolean {
  const main = document.querySelector<HTMLElement>("main:not([aria-busy='true'])");
  const heading = main?.querySelector<HTMLElement>("h1");
  if (!main || !heading) return false;
  const list = main.querySelector<HTMLElement>(LIST);
  if (list && list.tabIndex >= 0) list.focus({ preventScroll: true });
  else focusHeading(heading);
  return true;
}

/** To the heading, which no key leads to by itself. */
export function focusHeading(heading: HTMLElement): void {
  heading.tabIndex = -1;
  heading.focus({ preventScroll: true });
}

/** Once the view stands; where it takes the focus by itself, or its user did, it is left there. */
export function focusViewOnceThere(): () => void {
  const before = document.activeElement;
  const isElsewhere = () => {
    const at = document.activeElement;
    if (openDialogue(document)) return true;
    return at !== null && at !== before && at !== document.body && at.matches(OWN);
  };
  const isOwn = before !== null && before.closest("main") !== null && before.matches(OWN);
  if (isOwn || isElsewhere() || focusView()) return () => {};
  const watcher = new MutationObserver(() => {
    if (isElsewhere() || focusView()) watcher.disconnect();
  });
  watcher.observe(document.body, {
    childList: true,
    subtree: true,
    attributeFilter: ["aria-busy"],
  });
  const timer = setTimeout(() => watcher.disconnect(), WAITS_MS);
  return () => {
    clearTimeout(timer);
    watcher.disconnect();
  };
}
