import { useSyncExternalStore } from "react";

/** What a view remembers while the page is open: in memory alone, and nothing after a lock. */
const held = new Map<string, unknown>();
const listeners = new Set<() => void>();

function changed(): void {
  for (const listener of listeners) listener();
}

/** Like state, but as it was when the view is come back to. */
export function useRemembered<T>(name: string, initial: T): [T, (value: T) => void] {
  const value = useSyncExternalStore(subscribe, () =>
    held.has(name) ? (held.get(name) as T) : initial,
  );
  return [value, (next: T) => remember(name, next)];
}

/** The same from a view that does not show it. */
export function remember(name: string, value: unknown): void {
  if (held.has(name) && Object.is(held.get(name), value)) return;
  held.set(name, value);
  changed();
}

/** At a lock. */
export function forgetRemembered(): void {
  held.clear();
  changed();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
