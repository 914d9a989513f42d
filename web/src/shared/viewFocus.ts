import { openDialogue } from "./typedAhead";

const LIST = '[role="grid"], [role="listbox"]';
const OWN = "input, textarea, select, [contenteditable]";

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

/**
 * Once the view stands, however long that takes; where it takes the focus by itself, or its user
 * goes elsewhere first, it is left there.
 */
export function focusViewOnceThere(): () => void {
  const before = document.activeElement;
  const isElsewhere = () => {
    const at = document.activeElement;
    if (openDialogue(document)) return true;
    return at !== null && at !== before && at !== document.body && at.matches(OWN);
  };
  const isOwn = before !== null && before.closest("main") !== null && before.matches(OWN);
  if (isOwn || isElsewhere() || focusView()) return () => {};
  const end = () => {
    watcher.disconnect();
    document.removeEventListener("pointerdown", end, true);
    document.removeEventListener("keydown", onKey, true);
  };
  const onKey = (event: KeyboardEvent) => event.key === "Tab" && end();
  const watcher = new MutationObserver(() => {
    if (isElsewhere() || focusView()) end();
  });
  watcher.observe(document.body, {
    childList: true,
    subtree: true,
    attributeFilter: ["aria-busy"],
  });
  document.addEventListener("pointerdown", end, true);
  document.addEventListener("keydown", onKey, true);
  return end;
}
