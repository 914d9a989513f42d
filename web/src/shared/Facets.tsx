import type { KeyboardEvent, MouseEvent, ReactNode } from "react";
import { focusView } from "./viewFocus";

/** Facets of which one is on: one stop of the tab key, arrows go on to the next and take it. */
export function Facets({ label, children }: { label: string; children: ReactNode }) {
  const onKey = (event: KeyboardEvent<HTMLDivElement>) => {
    const all = [...event.currentTarget.querySelectorAll<HTMLElement>('[role="radio"]')].filter(
      (one) => one.checkVisibility?.() ?? true,
    );
    const at = all.findIndex((one) => one === document.activeElement);
    const places: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowRight: at + 1,
      ArrowUp: at - 1,
      ArrowLeft: at - 1,
    };
    const to = places[event.key];
    if (to === undefined || at < 0) return;
    event.preventDefault();
    const next = all.at(to % all.length);
    next?.focus();
    next?.click();
  };
  return (
    <div
      role="radiogroup"
      tabIndex={-1}
      aria-label={label}
      className="facet-list"
      onKeyDown={onKey}
    >
      {children}
    </div>
  );
}

/** Whoever takes a facet by mouse goes on in its list: the arrows are the list's. */
function onPointer(event: MouseEvent): void {
  if (event.detail > 0) focusView();
}

type FacetProps = {
  label: string;
  n: number;
  on: boolean;
  onPick: () => void;
  shape?: ReactNode;
  /** It is left out where the facets stand in a row, unless it is on. */
  folds?: boolean;
};

export function FacetButton({ label, n, on, onPick, shape, folds }: FacetProps) {
  return (
    <button
      type="button"
      role="radio"
      aria-checked={on}
      tabIndex={on ? 0 : -1}
      className={folds ? "facet folds" : "facet"}
      onClick={(event) => {
        onPick();
        onPointer(event);
      }}
    >
      {shape}
      {label}
      <span className="n">{n.toLocaleString("en")}</span>
    </button>
  );
}
