/** Dates and spans as people say them, by the calendar of whoever reads them. */
const DAY_MS = 86_400_000;
const ONLY_A_DAY = /^\d{4}-\d\d-\d\d$/;

/** A day begins at midnight here; a moment is the same everywhere. */
export function momentOf(iso: string): Date {
  return new Date(ONLY_A_DAY.test(iso) ? `${iso}T00:00` : iso);
}

export function age(sinceIso: string, now: number): string {
  const days = Math.max(0, dayNumber(new Date(now)) - dayNumber(momentOf(sinceIso)));
  if (days < 1) return "today";
  if (days < 45) return `${days} d`;
  const months = Math.floor(days / 30.44);
  if (months < 24) return `${months} mo`;
  const years = `${Math.floor(months / 12)} y`;
  return months % 12 ? `${years} ${months % 12} mo` : years;
}

/** The same of what happened then. */
export function ago(iso: string, now: number): string {
  const since = age(iso, now);
  return since === "today" ? since : `${since} ago`;
}

export function day(iso: string): string {
  return momentOf(iso).toLocaleDateString("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
  });
}

export function dayAndTime(iso: string, now: number): string {
  const at = new Date(iso);
  const time = at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  if (at.toDateString() === new Date(now).toDateString()) return `today at ${time}`;
  return `${day(iso)} at ${time}`;
}

/** As YYYY-MM-DD. */
export function isoDay(at: Date): string {
  return new Date(dayNumber(at) * DAY_MS).toISOString().slice(0, 10);
}

/** Days since 1970 in the calendar, in which each has as many hours as any other. */
function dayNumber(at: Date): number {
  return Date.UTC(at.getFullYear(), at.getMonth(), at.getDate()) / DAY_MS;
}

export function minutesAndSeconds(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

const DIGITS = new Intl.NumberFormat("en");

export function count(n: number, one: string, many = `${one}s`): string {
  return `${DIGITS.format(n)} ${n === 1 ? one : many}`;
}
