const GAP = 1.5;
const LEAST = 6;

/**
 * Where the bars of a time line stand: (left, width) of each, from (begins, ends), the oldest
 * first. Each is seen, however short it served, none lies on another or beyond the line.
 */
export function placesOf(spans: [number, number][], wide: number): [number, number][] {
  const each = wide / spans.length;
  const gap = Math.min(GAP, each / 2);
  const least = Math.min(LEAST, each - gap);
  const places: [number, number][] = [];
  let end = wide;
  // From the newest on: what is too short takes its room from what went before it.
  for (let i = spans.length - 1; i >= 0; i--) {
    const [begins, ends] = spans[i]!;
    const room = i * (least + gap);
    const left = Math.max(room, Math.min(begins, end - least));
    places.unshift([left, Math.max(least, Math.min(ends, end) - left)]);
    end = left - gap;
  }
  return places;
}
