import { expect, test } from "vitest";
import { placesOf } from "./splice";

const WIDE = 400;

test.each<[string, [number, number][]]>([
  [
    "a secret of this minute",
    [
      [0, 98],
      [98, 240],
      [240, 400],
      [400, 400],
    ],
  ],
  [
    "several of one minute",
    [
      [0, 399.9],
      [399.9, 399.95],
      [399.95, 400],
      [400, 400],
    ],
  ],
  [
    "all of them at once",
    [
      [0, 0],
      [0, 0],
      [0, 400],
    ],
  ],
  ["one", [[0, 400]]],
  [
    "an old one that served a moment",
    [
      [0, 0.1],
      [0.1, 400],
    ],
  ],
  ["hundreds", Array.from({ length: 300 }, (_, i) => [i, i + 1])],
])("each bar of %s is seen, beside the others, on the line", (_, spans) => {
  const places = placesOf(spans, WIDE);
  expect(places).toHaveLength(spans.length);
  places.forEach(([left, width], i) => {
    expect(left).toBeGreaterThanOrEqual(0);
    expect(width).toBeGreaterThan(spans.length > 60 ? 0 : 5.9);
    const next = places[i + 1]?.[0] ?? WIDE + 0.001;
    expect(left + width).toBeLessThanOrEqual(next + 1e-9);
  });
});

test("what served long stands where it did", () => {
  expect(
    placesOf(
      [
        [0, 100],
        [100, 400],
      ],
      WIDE,
    ),
  ).toEqual([
    [0, 98.5],
    [100, 300],
  ]);
});
