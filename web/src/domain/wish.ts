import type { Schema } from "../api/client";
import type { Policy } from "./policy";

/** How words become a text; the server's `WordsShape`. */
export type WordsShape = {
  words: number;
  separator: string;
  capitals: "none" | "first" | "one";
  addition: "none" | "digit" | "symbol";
  list_size: number;
  language: Language;
};

export type Language = Schema["WordsShape"]["language"];

export type SentenceShape = {
  template: "short" | "middle" | "long" | "longest";
  joiner: string;
  stop: boolean;
  capital: boolean;
  language: Language;
};

const NO_ACCENT = "None is written with an accent, so that any keyboard types it.";
const ABROAD = {
  bits: { short: 56, middle: 63, long: 92, longest: 126 },
  grammar: `256 nouns, 128 adjectives and verbs, 64 places, 98 numbers. ${NO_ACCENT}`,
};

/** The languages of sentences, how many bits each kind of them is worth, and what it is made of. */
export const SENTENCE_LANGUAGES: Record<
  Language,
  { label: string; bits: Record<SentenceShape["template"], number>; grammar: string }
> = {
  en: {
    label: "English",
    bits: { short: 63, middle: 81, long: 92, longest: 127 },
    grammar: "1,024 nouns and adjectives, 512 verbs, 256 adverbs and places, 98 numbers.",
  },
  de: { label: "German", ...ABROAD },
  fr: { label: "French", ...ABROAD },
  es: { label: "Spanish", ...ABROAD },
  ru: {
    label: "Russian",
    bits: { short: 56, middle: 63, long: 93, longest: 127 },
    grammar:
      "256 nouns, 128 adjectives and verbs, 64 places, 127 numbers. Typed on a Russian keyboard; a site may take Latin letters alone.",
  },
};

/** The list of words of a language that is offered first. */
export function firstList(language: Language): Pick<WordsShape, "language" | "list_size"> {
  return { language, list_size: language === "en" ? 7776 : 2048 };
}

/** What is to be drawn. policy: whose rules bind; for characters the usual one where none is. */
export type Wish =
  | { kind: "characters"; length: number; policy?: Policy | undefined }
  | { kind: "words" | "answer"; shape: WordsShape; policy?: Policy | undefined }
  | { kind: "sentence"; shape: SentenceShape; policy?: Policy | undefined }
  | { kind: "pin"; length: number; policy_id?: string | undefined };

export type WishKind = Wish["kind"] | "line";

export const KINDS: { value: WishKind; label: string }[] = [
  { value: "characters", label: "Characters" },
  { value: "words", label: "Words" },
  { value: "sentence", label: "Sentence" },
  { value: "pin", label: "PIN" },
  { value: "answer", label: "Answer" },
  { value: "line", label: "From a line" },
];

export const WORDS: WordsShape = {
  words: 6,
  separator: " ",
  capitals: "none",
  addition: "none",
  list_size: 7776,
  language: "en",
};

/** Said on the telephone: common words, four are enough where guessing is slow. */
export const ANSWER: WordsShape = { ...WORDS, words: 4, list_size: 4096 };

export const SENTENCE: SentenceShape = {
  template: "short",
  joiner: " ",
  stop: true,
  capital: true,
  language: "en",
};

/** log2 of what an addition to words is worth: its character, and its place. */
export function additionBits(shape: WordsShape): number {
  if (shape.addition === "none") return 0;
  return Math.log2((shape.addition === "digit" ? 10 : 32) * (shape.words + 1));
}

export function capitalBits(shape: WordsShape): number {
  return shape.capitals === "one" ? Math.log2(shape.words) : 0;
}

export function separatorBits(shape: WordsShape): number {
  const ways = { digit: 10, symbol: 32 }[shape.separator] ?? 1;
  return Math.log2(ways) * (shape.words - 1);
}
