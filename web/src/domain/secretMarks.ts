/** How a secret is set: groups of four, a class for the mark under each character. */
export type CharacterClass = "lower" | "upper" | "digit" | "symbol";

export type MarkedCharacter = { text: string; kind: CharacterClass };

export function classOf(character: string): CharacterClass {
  if (/\p{Nd}/u.test(character)) return "digit";
  if (/\p{Lu}/u.test(character)) return "upper";
  if (/\p{L}/u.test(character)) return "lower";
  return "symbol";
}

/** Words of a text, each with its capital; then digits, and what else stands together. */
const PIECES = /\p{Lu}?\p{Ll}+|\p{Lu}+|\p{Nd}+|[^\p{L}\p{Nd}]+|\p{L}+/gu;
const WORD_LEAST = 4;
/** So much of a text is words where it is one of words. */
const WORDS_SHARE = 0.6;

function marked(text: string): MarkedCharacter[] {
  const segmenter = new Intl.Segmenter("en", { granularity: "grapheme" });
  return Array.from(segmenter.segment(text), ({ segment }) => ({
    text: segment === " " ? "\u00a0" : segment,
    kind: classOf(segment),
  }));
}

/** The pieces of a text that is made of words, or null: groups of four would hide them. What
 * chance drew is such a text only where something parts at least three words. */
function wordsOf(secret: string, chosen: boolean): string[] | null {
  const pieces = secret.match(PIECES) ?? [];
  const words = pieces.filter((p) => p.length >= WORD_LEAST && /^\p{L}+$/u.test(p));
  const covered = words.reduce((sum, word) => sum + word.length, 0);
  if (!chosen && (words.length < 3 || pieces.length === words.length)) return null;
  return covered >= WORDS_SHARE * secret.length && pieces.join("") === secret ? pieces : null;
}

/** Grapheme clusters: in its words where the text is made of words, else in groups of four. */
export function grouped(secret: string, chosen = false, size = 4): MarkedCharacter[][] {
  const words = wordsOf(secret, chosen);
  if (words) return words.map(marked);
  const all = marked(secret);
  const groups: MarkedCharacter[][] = [];
  for (let i = 0; i < all.length; i += size) groups.push(all.slice(i, i + size));
  return groups;
}
