/** What a measure found in a secret, set out for the eye. */
export type Stretch = { start: number; end: number; label: string; one_in: string; kind: string };

const LONGEST = 48;
const HEAD = 30;
const TAIL = 10;

/** The text of a stretch; measures count characters of the text in NFC. */
export function pieceOf(secret: string, stretch: Stretch): string {
  const characters = Array.from(secret.normalize("NFC")).slice(stretch.start, stretch.end);
  if (characters.length <= LONGEST) return characters.join("");
  return `${characters.slice(0, HEAD).join("")}…${characters.slice(-TAIL).join("")}`;
}

/** Characters that the measure does not look at. */
export function unread(secret: string, measured: number): number {
  return Math.max(0, Array.from(secret.normalize("NFC")).length - measured);
}

/** Kind and length of each stretch, for a secret that is held back. */
export function inKinds(stretches: Stretch[]): string {
  return stretches
    .map((s) => {
      const size = s.end - s.start;
      return `${s.label}, ${size} ${size === 1 ? "character" : "characters"}`;
    })
    .join(" · ");
}
