import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { policySentence, type Policy } from "./policy";

const table = "../tests/vectors/policy_sentences.json";
const rows = JSON.parse(readFileSync(table, "utf8")) as { policy: Policy; sentence: string }[];

test("a policy is said in the sentence that is read back to it", () => {
  for (const { policy, sentence } of rows) expect(policySentence(policy)).toBe(sentence);
});
