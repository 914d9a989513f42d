/** The guess ruler: a scale of log10 guesses from 10^0 to 10^40. */
export const RULER_END = 40;

export type Mark = { label: string; log10: number };

/** Position along the ruler in percent; beyond its end it stays at the end. */
export function position(log10: number): number {
  return (Math.max(0, Math.min(RULER_END, log10)) / RULER_END) * 100;
}

/** Stretches between marks, from light to dark. */
export function stretches(marks: Mark[]): { from: number; to: number }[] {
  const ends = [0, ...marks.map((m) => m.log10), RULER_END];
  return ends.slice(1).map((to, i) => ({ from: ends[i] ?? 0, to }));
}

/** Up to here a number in doubt is said to be just below a power of ten, and is about that power. */
const DOUBTED = 10;
const ABOUT = 0.2;

/** The power of ten that a number is about. */
export function exponentOf(log10: number): number {
  return Math.floor(log10 < DOUBTED ? log10 + ABOUT : log10);
}

/** One sentence for those who do not see the ruler. */
export function described(log10: number, marks: Mark[]): string {
  const beyond = marks.filter((m) => log10 > m.log10).map((m) => m.label);
  const within = marks.find((m) => log10 <= m.log10);
  const head = `About 10 to the ${exponentOf(log10)} guesses`;
  if (!within) return `${head}: beyond every attack on the ruler.`;
  const tail = beyond.length ? `, beyond “${beyond.at(-1)}”` : "";
  return `${head}: falls to “${within.label}”${tail}.`;
}

/** Room that a letter of a mark's label takes, in pixels at 12. */
const LETTER = 5.3;

/** Where a mark's label stands: its row above the ruler, from 0, and on which side of its line it ends. */
export type Place = { row: number; side: "end" | "start" };

/** Rows for the labels of marks, in their order, so that no label meets another or another's line.
 *
 * @param at the marks' places in pixels, rising. */
export function labelPlaces(labels: string[], at: number[], wide: number): Place[] {
  const span = (i: number, side: Place["side"]): [number, number] => {
    const [x = 0, long] = [at[i], (labels[i] ?? "").length * LETTER];
    return side === "end" ? [x - long, x + 2] : [x - 2, x + long];
  };
  const meet = (i: number, a: Place, j: number, b: Place) => {
    const [[from, to], [start, end]] = [span(i, a.side), span(j, b.side)];
    const crosses = (x: number, row: number, low: number, high: number, own: number) =>
      x > low - 2 && x < high + 2 && row >= own;
    return (
      (a.row === b.row && from < end + 3 && start < to + 3) ||
      crosses(at[i] ?? 0, a.row, start, end, b.row) ||
      crosses(at[j] ?? 0, b.row, from, to, a.row)
    );
  };
  const choose = (placed: Place[], rows: number): Place[] | null => {
    const i = placed.length;
    if (i === labels.length) return placed;
    for (let row = 0; row < rows; row++)
      for (const side of ["end", "start"] as const) {
        const [from, to] = span(i, side);
        if (from < 0 || to > wide) continue;
        if (placed.some((one, j) => meet(j, one, i, { row, side }))) continue;
        const found = choose([...placed, { row, side }], rows);
        if (found) return found;
      }
    return null;
  };
  for (let rows = 1; rows <= labels.length; rows++) {
    const found = choose([], rows);
    if (found) return found;
  }
  return labels.map((_, row) => ({ row, side: "end" }));
}
