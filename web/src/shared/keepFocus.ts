import { openDialogue } from "./typedAhead";
import { focusHeading } from "./viewFocus";

/** What had the focus, and what it lay in, the view last. */
type Place = { element: HTMLElement; within: Element[]; path: string };

/**
 * The focus stays where an act was done: an element that is disabled while its act runs has it
 * again afterwards; from one that its act took away it goes to the nearest heading that is left,
 * where no key does anything. Views that change and dialogues see to it by themselves.
 */
export function keepFocus(): () => void {
  let place: Place | null = null;
  let isLost = false;
  let isAsked = false;

  const settle = () => {
    isAsked = false;
    if (!place || !isLost || openDialogue(document)) return;
    const at = document.activeElement;
    const { element, within, path } = place;
    if (location.pathname !== path || (at !== null && at !== document.body && at !== element))
      place = null;
    else if (canHold(element)) element.focus({ preventScroll: true });
    else if (!element.isConnected) {
      const heading = headingIn(within);
      place = null;
      if (heading) focusHeading(heading);
    }
  };
  const onChange = () => {
    if (!place) return;
    isLost ||= !canHold(place.element);
    if (!isLost || isAsked) return;
    isAsked = true;
    // What is disabled loses the focus with the next frame.
    requestAnimationFrame(() => setTimeout(settle));
  };
  const onFocus = (event: FocusEvent) => {
    place = placeOf(event.target as HTMLElement);
    isLost = false;
  };
  // Who presses beside it wants it elsewhere, or nowhere.
  const onPointer = (event: PointerEvent) => {
    if (!place?.element.contains(event.target as Node)) place = null;
  };
  const watcher = new MutationObserver(onChange);
  watcher.observe(document.body, { childList: true, subtree: true, attributeFilter: ["disabled"] });
  document.addEventListener("focusin", onFocus);
  document.addEventListener("pointerdown", onPointer, true);
  return () => {
    watcher.disconnect();
    document.removeEventListener("focusin", onFocus);
    document.removeEventListener("pointerdown", onPointer, true);
  };
}

const canHold = (element: HTMLElement) => element.isConnected && !element.matches(":disabled");

/** Of what lies in the view alone. */
function placeOf(element: HTMLElement): Place | null {
  const view = element.closest("main");
  if (!view) return null;
  const within: Element[] = [];
  for (let up = element.parentElement; up && up !== view; up = up.parentElement) within.push(up);
  return { element, within: [...within, view], path: location.pathname };
}

function headingIn(within: Element[]): HTMLElement | null {
  for (const one of within) {
    const heading = one.isConnected ? one.querySelector<HTMLElement>("h1, h2, h3") : null;
    if (heading) return heading;
  }
  return null;
}
