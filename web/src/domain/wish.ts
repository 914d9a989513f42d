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
};

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
