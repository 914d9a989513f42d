import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, type RefObject } from "react";

const ROOM_BELOW = 170;

/** Only the rows in view are in the page, so that 10,000 cost what 20 do. */
export function useVirtualRows(
  scroller: RefObject<HTMLDivElement | null>,
  count: number,
  at: number,
  size: (index: number) => number,
) {
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: size,
    overscan: 4,
    initialRect: { width: 800, height: 640 },
  });
  useEffect(() => {
    if (!count) return;
    const index = Math.min(at, count - 1);
    const row = virtual.measurementsCache[index];
    const top = virtual.scrollOffset ?? 0;
    const room = virtual.scrollRect?.height ?? 0;
    // One in view needs no look at the page's lay-out; the next row may grow when it is current.
    if (row && row.start >= top && row.end + ROOM_BELOW <= top + room) return;
    virtual.scrollToIndex(index);
  }, [at, count, virtual]);
  return {
    items: virtual.getVirtualItems(),
    height: virtual.getTotalSize(),
    /** For each row's element, with its index in `data-index`: rows are as high as they are. */
    measure: virtual.measureElement,
  };
}
