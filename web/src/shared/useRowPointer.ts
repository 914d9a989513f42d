import { useEffect, useEffectEvent, type RefObject } from "react";

type Acts = {
  /** A row was pressed. */
  choose: (index: number) => void;
  /** A row was pressed twice. */
  open?: (index: number) => void;
  /** The pointer moved over a row. */
  over?: (index: number) => void;
};

/** The mouse's way to what the keys of a list do; rows say which they are by `data-index`. */
export function useRowPointer(list: RefObject<HTMLElement | null>, acts: Acts): void {
  const onChoose = useEffectEvent(acts.choose);
  const onOpen = useEffectEvent((index: number) => acts.open?.(index));
  const onOver = useEffectEvent((index: number) => acts.over?.(index));
  useEffect(() => {
    const element = list.current;
    if (!element) return;
    const at = (act: (index: number) => void) => (event: Event) => {
      const row = (event.target as Element).closest<HTMLElement>("[data-index]");
      if (row?.dataset.index !== undefined) act(Number(row.dataset.index));
    };
    const press = at((index) => onChoose(index));
    const twice = at((index) => onOpen(index));
    const over = at((index) => onOver(index));
    element.addEventListener("click", press);
    element.addEventListener("dblclick", twice);
    element.addEventListener("pointermove", over);
    return () => {
      element.removeEventListener("click", press);
      element.removeEventListener("dblclick", twice);
      element.removeEventListener("pointermove", over);
    };
  });
}
