import { useState } from "react";

const FIRST = 60;
const STEP = 240;

/** The first of many rows, the next as they are asked for: 10,000 would take seconds to draw. */
export function useSome<Row>(rows: readonly Row[]) {
  const [most, setMost] = useState(FIRST);
  return {
    shown: rows.slice(0, most),
    left: Math.max(0, rows.length - most),
    more: () => setMost(Math.min(most, rows.length) + STEP),
  };
}

type Props = { some: Omit<ReturnType<typeof useSome>, "shown">; of?: string };

/** "340 more": shows some of them. Nothing where none is left. */
export function MoreButton({ some, of = "more" }: Props) {
  if (some.left === 0) return null;
  return (
    <button type="button" className="link small" onClick={some.more}>
      {some.left.toLocaleString("en")} {of}
    </button>
  );
}
