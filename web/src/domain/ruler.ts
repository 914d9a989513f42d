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

/** One sentence for those who do not see the ruler. */
export function described(log10: number, marks: Mark[]): string {
  const beyond = marks.filter((m) => log10 > m.log10).map((m) => m.label);
  const within = marks.find((m) => log10 <= m.log10);
  const head = `About 10 to the ${log10.toFixed(0)} guesses`;
  if (!within) return `${head}: beyond every attack on the ruler.`;
  const tail = beyond.length ? `, beyond “${beyond.at(-1)}”` : "";
  return `${head}: falls to “${within.label}”${tail}.`;
}
