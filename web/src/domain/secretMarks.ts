/** How a secret is set: groups of four, a class for the mark under each character. */
export type CharacterClass = "lower" | "upper" | "digit" | "symbol";

export type MarkedCharacter = { text: string; kind: CharacterClass };

export function classOf(character: string): CharacterClass {
  if (/\p{Nd}/u.test(character)) return "digit";
  if (/\p{Lu}/u.test(character)) return "upper";
  if (/\p{L}/u.test(character)) return "lower";
  return "symbol";
}

/** Grapheme clusters in groups of four. */
export function grouped(secret: string, size = 4): MarkedCharacter[][] {
  const segmenter = new Intl.Segmenter("en", { granularity: "grapheme" });
  const marked = Array.from(segmenter.segment(secret), ({ segment }) => ({
    text: segment === " " ? "\u00a0" : segment,
    kind: classOf(segment),
  }));
  const groups: MarkedCharacter[][] = [];
  for (let i = 0; i < marked.length; i += size) groups.push(marked.slice(i, i + size));
  return groups;
}
