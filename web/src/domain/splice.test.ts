import { expect, test } from "vitest";
import { placesOf } from "./splice";

const WIDE = 400;
/** One after the other, from the times at which each began and the end of the last. */
const spans = (at: number[]) => at.slice(1).map((to, i): [number, number] => [at[i]!, to]);

test.each<[string, number[]]>([
  ["a secret of this minute", [0, 98, 240, 400, 400]],
  ["several of one minute", [0, 399.9, 399.95, 400, 400]],
  ["all of them at once", [0, 0, 0, 400]],
  ["one", [0, 400]],
  ["an old one that served a moment", [0, 0.1, 400]],
  ["hundreds", Array.from({ length: 301 }, (_, i) => i)],
])("each bar of %s is seen, beside the others, on the line", (_, at) => {
  const places = placesOf(spans(at), WIDE);
  expect(places).toHaveLength(at.length - 1);
  places.forEach(([left, width], i) => {
    expect(left).toBeGreaterThanOrEqual(0);
    expect(width).toBeGreaterThan(at.length > 60 ? 0 : 5.9);
    expect(left + width).toBeLessThanOrEqual((places[i + 1]?.[0] ?? WIDE) + 1e-9);
  });
});

test("what served long stands where it did", () => {
  expect(placesOf(spans([0, 100, 400]), WIDE).flat()).toEqual([0, 98.5, 100, 300]);
});
