import type { Schema } from "../api/client";

/** What is to be said of a passphrase beside its measure, worst first. */
export function judgementOf(judged: Schema["JudgementOut"]): string[] {
  const { measure } = judged;
  const lines: string[] = [];
  if (measure.breached) lines.push("Refused: it stands in the breach corpus.");
  if (judged.resembles_earlier) lines.push("Refused: it is like a passphrase this vault has had.");
  if (judged.resembles_logins.length > 0) {
    const titles = judged.resembles_logins.slice(0, 3).join(", ");
    lines.push(`Refused: it is like the secret of ${titles}.`);
  }
  if (measure.guess_number_log10 < 10) lines.push("Refused: within 10¹⁰ guesses.");
  if (judged.rests_on_a_bound) lines.push("Enough only if nobody guesses how it was made.");
  if (lines.length === 0 && judged.verdict === "warned")
    lines.push("Allowed, but thin: a thief with the file and fast hardware could reach it.");
  if (lines.length === 0) lines.push("Good: nothing in this vault is like it.");
  return lines;
}

/** Whether a text is worth so many orders only if nobody guesses how it was made. */
export function restsOnABound(measure: Schema["MeasureOut"] | null, enough: number): boolean {
  if (!measure?.is_bound) return false;
  return measure.guess_number_log10 >= enough && measure.least_log10 < enough;
}

/** Whether nothing else forbids it, so that it may be taken where chance drew it. */
export function isRefusedForItsBoundAlone(judged: Schema["JudgementOut"]): boolean {
  const alike = judged.resembles_earlier || judged.resembles_logins.length > 0;
  return judged.rests_on_a_bound && !alike && !judged.measure.breached;
}
