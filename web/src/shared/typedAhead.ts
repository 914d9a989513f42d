/**
 * Keys typed while a box, dialogue or view is opening: no command answers to them, and what is
 * typed waits for the field that takes the focus. Where none does, it goes nowhere.
 */

const HELD = new Set(["Enter", "Delete", "Backspace", "Home", "End", "PageUp", "PageDown"]);
const NOT_TYPED = new Set(["checkbox", "radio", "range", "button", "submit", "file"]);

let calls = 0;
let arrivedAt: string | null = null;
let typed = "";

/** From the call of something that opens, until it stands. Ends with the answer, good or bad. */
export async function opening<T>(what: Promise<T>): Promise<T> {
  calls += 1;
  try {
    return await what;
  } finally {
    calls -= 1;
  }
}

/** The view of this path stands, its own field in focus where it has one. */
export function viewArrived(pathname: string): void {
  arrivedAt = pathname;
  if (!isOpening(document)) deliverTo(document.activeElement);
}

/** No view is there any more: the page is locked, and nothing that was typed is kept. */
export function viewsLeft(): void {
  arrivedAt = null;
  typed = "";
}

/** The topmost dialogue; a closed one may stay in the page, unseen. */
export function openDialogue(page: Document): Element | undefined {
  const found = page.querySelectorAll('[role="dialog"], dialog[open]');
  return [...found].findLast((dialogue) => dialogue.getClientRects().length > 0);
}

/** Whether something was called that does not stand yet, or has not taken the focus. */
export function isOpening(page: Document): boolean {
  const dialogue = openDialogue(page);
  if (dialogue !== undefined) return !dialogue.contains(page.activeElement);
  return isAwaited();
}

/** The same where no dialogue is open. */
export function isAwaited(): boolean {
  return calls > 0 || (arrivedAt !== null && window.location.pathname !== arrivedAt);
}

/** Holds back the keys of a window's page while something opens in it. */
export function holdKeysWhileOpening(page: Document): () => void {
  const onKey = (event: KeyboardEvent) => {
    if (!isOpening(page)) {
      typed = "";
      return;
    }
    const chord = event.ctrlKey || event.metaKey || event.altKey;
    const character = event.key.length === 1;
    if (chord || !(character || HELD.has(event.key) || event.key.startsWith("Arrow"))) return;
    if (character) typed += event.key;
    else if (event.key === "Backspace") typed = typed.slice(0, -1);
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  const onFocus = (event: FocusEvent) => {
    if (!isOpening(page)) deliverTo(event.target);
  };
  page.addEventListener("keydown", onKey, true);
  page.addEventListener("focusin", onFocus, true);
  return () => {
    page.removeEventListener("keydown", onKey, true);
    page.removeEventListener("focusin", onFocus, true);
  };
}

function deliverTo(target: EventTarget | null): void {
  const text = typed;
  typed = "";
  if (text === "" || !isTextField(target)) return;
  const end = target.value.length;
  target.setRangeText(text, end, end, "end");
  target.dispatchEvent(new Event("input", { bubbles: true }));
}

function isTextField(target: EventTarget | null): target is HTMLInputElement {
  if (target === null || !("nodeName" in target)) return false;
  const element = target as HTMLInputElement;
  if (element.nodeName === "TEXTAREA") return true;
  return element.nodeName === "INPUT" && !NOT_TYPED.has(element.type);
}
