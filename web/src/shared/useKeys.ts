import { useEffect, useRef, type RefObject } from "react";

export type KeyMap = Record<string, (event: KeyboardEvent) => void>;

/** Key maps in the order in which their views appeared: the newest is asked first. */
const layers: RefObject<KeyMap>[] = [];

const TYPED_INTO = new Set(["checkbox", "radio", "range", "button", "submit"]);

function typing(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return (
    target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLInputElement && !TYPED_INTO.has(target.type)) ||
    target instanceof HTMLSelectElement
  );
}

/** Keys that the focused control itself answers to. */
function taken(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (key === "Enter" || key === " ") return target.closest("button, a") !== null;
  return key.startsWith("Arrow") && target.closest('[role="slider"], [role="radiogroup"]') !== null;
}

/** A closed dialogue may stay in the page, unseen. */
function dialogueOpen(): boolean {
  const found = document.querySelectorAll('[role="dialog"]');
  return [...found].some((dialogue) => dialogue.getClientRects().length > 0);
}

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return;
  if (event.defaultPrevented || dialogueOpen()) return;
  if (typing(event.target)) {
    // Escape leaves a field, so that the keys of the view answer again.
    if (event.key === "Escape") (event.target as HTMLElement).blur();
    return;
  }
  if (taken(event.target, event.key)) return;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const act = layers.map((layer) => layer.current[key]).findLast((found) => found !== undefined);
  if (act) {
    event.preventDefault();
    act(event);
  }
}

/** Single keys of a view; not while typing, not while a dialogue is open above it. */
export function useKeys(keys: KeyMap, enabled = true): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    if (!enabled) return;
    if (layers.length === 0) window.addEventListener("keydown", onKey);
    layers.push(latest);
    return () => {
      layers.splice(layers.indexOf(latest), 1);
      if (layers.length === 0) window.removeEventListener("keydown", onKey);
    };
  }, [enabled]);
}
