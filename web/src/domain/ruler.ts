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

const UNITS: [number, string][] = [
  [60, "seconds"],
  [60, "minutes"],
  [24, "hours"],
  [365, "days"],
];

/** How long so many guesses take at a rate, in words that a person can use. */
export function timeToFall(guessesLog10: number, ratePerS: number): string {
  const log = guessesLog10 - Math.log10(ratePerS);
  if (log < 0) return "under a second";
  if (log > 17.5) return "longer than the Earth has stood";
  let value = 10 ** log;
  for (const [size, name] of UNITS) {
    if (value < size) return `${rounded(value)} ${value < 1.5 ? name.slice(0, -1) : name}`;
    value /= size;
  }
  return value < 1e6 ? `${rounded(value)} years` : `10^${Math.floor(Math.log10(value))} years`;
}

function rounded(value: number): string {
  const whole = value < 10 ? Math.round(value) : Number(value.toPrecision(2));
  return Math.max(1, whole).toLocaleString("en");
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
