import { useLayoutEffect, useRef, useState, type RefObject } from "react";

/** An element's width in pixels, as it changes; until it is known, the one that is given. */
export function useWidth(first: number): [RefObject<HTMLDivElement | null>, number] {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => {
      // What is not laid out has none.
      if (element.clientWidth) setWidth(element.clientWidth);
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [box, width];
}
