import { useLayoutEffect, useRef, type RefObject } from "react";
import { isAwaited, openDialogue } from "./typedAhead";

export type KeyMap = Record<string, (event: KeyboardEvent) => void>;

/** Key maps in the order in which their views appeared: the newest is asked first. */
const layers: RefObject<KeyMap>[] = [];

const TYPED_INTO = new Set(["checkbox", "radio", "range", "button", "submit"]);

/** The element of an event, which may be of another window's document. */
function elementOf(target: EventTarget | null): HTMLElement | null {
  return target !== null && "closest" in target ? (target as HTMLElement) : null;
}

function typing(target: HTMLElement | null): boolean {
  if (!target) return false;
  const name = target.nodeName;
  if (name === "INPUT") return !TYPED_INTO.has((target as HTMLInputElement).type);
  return target.isContentEditable || name === "TEXTAREA" || name === "SELECT";
}

/** Keys that the focused control itself answers to. */
function taken(target: HTMLElement | null, key: string): boolean {
  if (!target) return false;
  if (key === "Enter" || key === " ") return target.closest("button, a") !== null;
  return key.startsWith("Arrow") && target.closest('[role="slider"], [role="radiogroup"]') !== null;
}

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return;
  const target = elementOf(event.target);
  const page = target?.ownerDocument ?? document;
  if (event.defaultPrevented || openDialogue(page) || isAwaited()) return;
  if (target && typing(target)) {
    // Escape leaves a field, so that the keys of the view answer again.
    if (event.key === "Escape") target.blur();
    return;
  }
  if (taken(target, event.key)) return;
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
  useLayoutEffect(() => {
    latest.current = keys;
  });
  // With what is painted: a view that can be seen answers its keys.
  useLayoutEffect(() => {
    if (!enabled) return;
    if (layers.length === 0) window.addEventListener("keydown", onKey);
    layers.push(latest);
    return () => {
      layers.splice(layers.indexOf(latest), 1);
      if (layers.length === 0) window.removeEventListener("keydown", onKey);
    };
  }, [enabled]);
}

/** The same keys in another window that shows a part of this page. */
export function listenForKeys(other: Window): () => void {
  other.addEventListener("keydown", onKey);
  return () => other.removeEventListener("keydown", onKey);
}
