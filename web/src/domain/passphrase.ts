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
  if (lines.length === 0 && judged.verdict === "warned")
    lines.push("Allowed, but thin: a thief with the file and fast hardware could reach it.");
  if (lines.length === 0) lines.push("Good: nothing in this vault is like it.");
  return lines;
}
