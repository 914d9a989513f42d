import {
  observeElementOffset,
  useVirtualizer,
  type Range,
  type Virtualizer,
} from "@tanstack/react-virtual";
import { useCallback, useEffect, type RefObject } from "react";

const ROOM_BELOW = 170;

/** Where it is scrolled to, without that it is being scrolled: nothing here shows that, and each
 * beginning and end of it would draw all anew. */
const observeOffset: typeof observeElementOffset<HTMLDivElement> = (instance, tell) =>
  observeElementOffset(instance, (offset) => tell(offset, false));

/** What a row takes once it is laid out, and until then what it is expected to: to ask for it while
 * rows are put in would lay all out once more. */
function heightOf(
  row: HTMLDivElement,
  entry: ResizeObserverEntry | undefined,
  { itemSizeCache, options, indexFromElement }: Virtualizer<HTMLDivElement, HTMLDivElement>,
): number {
  const box = entry?.borderBoxSize[0];
  if (box) return Math.round(box.blockSize);
  const index = indexFromElement(row);
  return itemSizeCache.get(options.getItemKey(index)) ?? options.estimateSize(index);
}

/** Rows come and go by so many, so that most steps of the keys draw none. */
const BLOCK = 8;
const NEAR = 2;

function inBlocks({ startIndex, endIndex, count }: Range): number[] {
  const from = Math.floor(Math.max(0, startIndex - NEAR) / BLOCK) * BLOCK;
  const to = Math.min(count, Math.ceil((endIndex + 1 + NEAR) / BLOCK) * BLOCK);
  return Array.from({ length: to - from }, (_, i) => from + i);
}

/** Only the rows in view are in the page, so that 10,000 cost what 20 do. */
export function useVirtualRows(
  scroller: RefObject<HTMLDivElement | null>,
  count: number,
  at: number,
  size: (index: number) => number,
) {
  // The current row is named as the one that has the focus, so it is there wherever one scrolls.
  const withCurrent = useCallback(
    (range: Range) => {
      const rows = inBlocks(range);
      const index = Math.min(at, range.count - 1);
      return rows.includes(index) ? rows : [...rows, index].sort((a, b) => a - b);
    },
    [at],
  );
  const virtual = useVirtualizer<HTMLDivElement, HTMLDivElement>({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: size,
    rangeExtractor: withCurrent,
    observeElementOffset: observeOffset,
    measureElement: heightOf,
    // Rows that grow move the others without drawing any anew.
    directDomUpdates: true,
    directDomUpdatesMode: "transform",
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
    const element = virtual.scrollElement;
    if (row && element && virtual.getVirtualItems().some((item) => item.index === index))
      // A row that is drawn has its place; a far one is found by what its neighbours come to.
      element.scrollTop = row.start < top ? row.start : row.end + ROOM_BELOW - room;
    else virtual.scrollToIndex(index);
  }, [at, count, virtual]);
  return {
    items: virtual.getVirtualItems(),
    /** For the element that holds the rows: as high as all of them. */
    container: virtual.containerRef,
    /** For each row's element, with its index in `data-index` and as its key: by that the place of
     * a row is set, whatever stands in it. Rows are as high as they are. */
    measure: virtual.measureElement,
  };
}
