/** Dates and spans as people say them. */
const DAY_MS = 86_400_000;

export function age(sinceIso: string, now: number): string {
  const days = Math.max(0, Math.floor((now - Date.parse(sinceIso)) / DAY_MS));
  if (days < 1) return "today";
  if (days < 45) return `${days} d`;
  const months = Math.floor(days / 30.44);
  if (months < 24) return `${months} mo`;
  const years = `${Math.floor(months / 12)} y`;
  return months % 12 ? `${years} ${months % 12} mo` : years;
}

export function day(iso: string): string {
  return new Date(iso).toLocaleDateString("en-GB", {
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

export function minutesAndSeconds(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

const DIGITS = new Intl.NumberFormat("en");

export function count(n: number, one: string, many = `${one}s`): string {
  return `${DIGITS.format(n)} ${n === 1 ? one : many}`;
}
