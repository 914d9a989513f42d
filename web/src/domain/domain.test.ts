import { heapsOf } from "./reuseMap";
import { describe, expect, test, vi } from "vitest";
import { isDue, put, said, type Clip } from "./clipboard";
import { age, ago, day, isoDay, minutesAndSeconds } from "./moments";
import { policySentence, power, withClass, type Policy } from "./policy";
import { sentence } from "./problems";
import { described, labelPlaces, position, stretches } from "./ruler";
import { inKinds, pieceOf, unread } from "./segments";
import { matches } from "./search";
import { classOf, grouped } from "./secretMarks";

describe("secret marks", () => {
  test.each([
    ["a", "lower"],
    ["É", "upper"],
    ["7", "digit"],
    ["_", "symbol"],
    [" ", "symbol"],
  ])("%s is %s", (character, kind) => expect(classOf(character)).toBe(kind));

  test.each([
    ["FollowSpot!1979", ["Follow", "Spot", "!", "1979"]],
    ["lantern-orchard 7", ["lantern", "-", "orchard", "\u00a0", "7"]],
    ["aBc7Xy_qRst", ["aBc7", "Xy_q", "Rst"]],
    ["rope1", ["rope", "1"]],
  ])("chosen, %s is set as %j", (secret, pieces) =>
    expect(grouped(secret, true).map((g) => g.map((c) => c.text).join(""))).toEqual(pieces),
  );

  test.each([
    ["kfjslqpwoe", ["kfjs", "lqpw", "oe"]],
    ["quarry saddle pepper", ["quarry", "\u00a0", "saddle", "\u00a0", "pepper"]],
  ])("drawn, %s is set as %j", (secret, pieces) =>
    expect(grouped(secret).map((g) => g.map((c) => c.text).join(""))).toEqual(pieces),
  );

  test("groups of four keep combined characters whole", () => {
    const groups = grouped("ab1de\u0301f👩‍🚀");
    expect(groups.map((g) => g.map((c) => c.text).join(""))).toEqual(["ab1d", "e\u0301f👩‍🚀"]);
  });
});

describe("guess ruler", () => {
  const marks = [
    { label: "at the form", log10: 6 },
    { label: "a state", log10: 20 },
  ];
  test("positions stay on the ruler", () => {
    expect([-1, 0, 20, 40, 99].map(position)).toEqual([0, 0, 50, 100, 100]);
    expect(stretches(marks).map((s) => s.to)).toEqual([6, 20, 40]);
  });
  test("one sentence says where it stands", () => {
    expect(described(5.7, marks)).toBe("About 10 to the 5 guesses: falls to “at the form”.");
    // As it is shown beside: what is just below a power is about that power.
    expect(described(5.9, marks)).toBe("About 10 to the 6 guesses: falls to “at the form”.");
    // What was counted beyond is no more than it is: 9.0 × 10^37.
    expect(described(37.95, marks)).toContain("About 10 to the 37 guesses");
    expect(described(9, marks)).toContain("falls to “a state”, beyond “at the form”");
    expect(described(30, marks)).toContain("beyond every attack");
  });
  test.each([
    [[6, 10, 14, 20], 420],
    [[6, 10, 14, 20], 760],
    [[2, 3, 4, 5], 420],
    [[9, 10, 30, 40], 540],
  ])("no label of marks at %j meets another or another's line, %i wide", (powers, wide) => {
    const labels = ["at the form", "stolen, slow", "stolen, fast", "a state"];
    const at = powers.map((log10) => 14 + (position(log10) / 100) * (wide - 28));
    const boxes = labelPlaces(labels, at, wide).map(({ row, side }, i) => {
      const [x = 0, long] = [at[i], (labels[i] ?? "").length * 5];
      return { x, row, from: side === "end" ? x - long : x, to: side === "end" ? x : x + long };
    });
    for (const one of boxes) {
      expect(one.from).toBeGreaterThanOrEqual(0);
      for (const other of boxes.filter((box) => box !== one)) {
        const apart = one.to <= other.from || other.to <= one.from;
        expect(one.row !== other.row || apart).toBe(true);
        const passes = other.x <= one.from || other.x >= one.to || other.row < one.row;
        expect(passes).toBe(true);
      }
    }
  });
});

describe("segments", () => {
  const of = (start: number, end: number) => ({
    start,
    end,
    kind: "word",
    label: "word",
    one_in: "9",
  });
  test("a piece is cut by characters of the composed text", () => {
    expect(pieceOf("mu\u0308nchen\u{1f9ff}1972", of(0, 7))).toBe("m\u00fcnchen");
    expect(pieceOf("mu\u0308nchen\u{1f9ff}1972", of(8, 12))).toBe("1972");
  });
  test("a long piece keeps its ends, and what is not read is counted", () => {
    expect(pieceOf("ab".repeat(40), of(0, 80))).toBe(`${"ab".repeat(15)}…${"ab".repeat(5)}`);
    expect(unread("x".repeat(1100), 1024)).toBe(76);
  });
  test("held back, only kinds and lengths are said", () => {
    expect(inKinds([of(0, 6), { ...of(6, 7), label: "symbol" }])).toBe(
      "word, 6 characters · symbol, 1 character",
    );
  });
});

describe("clipboard", () => {
  const clip = put("Secret", 1000, 30);
  test("it is due only while it can still be ours", () => {
    expect([1000, 30_999, 31_000].map((now) => isDue(clip, now))).toEqual([false, false, true]);
    const states: Clip["state"][] = ["there", "waiting", "emptied", "replaced"];
    expect(states.map((state) => isDue({ ...clip, state }, 99_000))).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect(isDue(put("Secret", 1000, 0), 1e9)).toBe(false);
  });
  test("it says what was put there and when, never what is on it", () => {
    expect(said(clip, 13_000)).toBe("Secret put on the clipboard 12 s ago; emptied in 18 s");
    expect(said({ ...clip, state: "waiting" }, 60_000)).toContain("as soon as this window");
    expect(said({ ...clip, state: "replaced" }, 60_000)).toContain("something else was copied");
  });
});

describe("policies", () => {
  const policy: Policy = {
    min_length: 8,
    max_length: 16,
    classes: [
      { name: "lower", characters: "abcdefghijklmnopqrstuvwxyz", minimum: 0 },
      { name: "symbol", characters: "-_", minimum: 1 },
    ],
    min_classes: 0,
    excluded: "l",
    max_age_days: 90,
  };
  test("one sentence says it all", () =>
    expect(policySentence(policy)).toBe(
      "8 to 16 characters: lower case, symbols - _ (at least 1); without l; changed every 90 days.",
    ));
  test("classes keep their order when one comes back", () => {
    const without = withClass(policy, "lower", null);
    expect(without.classes.map((c) => c.name)).toEqual(["symbol"]);
    const back = withClass(without, "lower", policy.classes[0] ?? null);
    expect(back.classes.map((c) => c.name)).toEqual(["lower", "symbol"]);
  });
  test("counts are set as powers", () => {
    for (const [size, isBound, mantissa, exponent] of [
      [6.3e34, true, "6.3", 34],
      [6.37e34, true, "6.3", 34],
      [6.37e34, false, "6.4", 34],
      [9.97e34, true, "9.9", 34],
      [9.97e34, false, "1.0", 35],
    ] as const)
      expect(power(Math.log10(size), isBound)).toEqual({ mantissa, exponent });
  });
});

describe("finding", () => {
  test("every word has to stand somewhere, accents aside", () => {
    const hay = "Gantry Rentals Zoë stage";
    expect(["gant stage", "ZOE", "rent zoë"].every((typed) => matches(hay, typed))).toBe(true);
    expect(matches(hay, "gantry lumen")).toBe(false);
  });
});

test("times are said as people say them", () => {
  const now = Date.parse("2026-11-25T12:00:00Z");
  const ages = ["2026-11-25", "2026-11-01", "2026-01-25", "2023-10-01", "2023-11-01"].map((d) =>
    age(d, now),
  );
  expect(ages).toEqual(["today", "24 d", "9 mo", "3 y 1 mo", "3 y"]);
  expect(["2026-11-25", "2026-11-01"].map((d) => ago(d, now))).toEqual(["today", "24 d ago"]);
  expect([0, 59.2, 600].map(minutesAndSeconds)).toEqual(["0:00", "1:00", "10:00"]);
});

test("a day is that of whoever reads it", () => {
  vi.stubEnv("TZ", "Etc/GMT+8");
  const [eve, midnight] = ["2026-11-30T23:00-08:00", "2026-12-01T01:00-08:00"];
  expect([day("2026-12-01"), day(eve), age(eve, Date.parse(midnight))]).toEqual([
    "1 Dec 2026",
    "30 Nov 2026",
    "1 d",
  ]);
  expect([isoDay(new Date(eve)), age("2026-11-30", Date.parse(eve))]).toEqual([
    "2026-11-30",
    "today",
  ]);
  vi.unstubAllEnvs();
});

test("a problem's sentence names the field", () => {
  const data = { field: "title", reason: "is empty" };
  expect(sentence({ code: "field_invalid", data })).toBe("Title is empty.");
  expect(sentence(new Error("?"))).toContain("Something went wrong");
});

test("a large map has groups and mailboxes as one knot each, with counted cords", () => {
  const ids = (from: number, n: number) => Array.from({ length: n }, (_, i) => `l${from + i}`);
  const knot = (login_id: string) => ({
    login_id,
    title: `Login ${login_id}`,
    user_name: "",
    importance: "normal",
    reach: 1,
  });
  const map = {
    knots: [...ids(0, 90), "box"].map(knot),
    groups: [
      { kind: "same" as const, login_ids: ids(0, 40) },
      { kind: "same" as const, login_ids: ids(40, 3) },
      // Some of them are in the first group too.
      { kind: "similar" as const, login_ids: ["l0", ...ids(43, 4)] },
    ],
    resets: [...ids(0, 10), ...ids(60, 30)].map((of) => ({ by: "box", of, is_guess: true })),
  };
  const { heaps, ties, drawn } = heapsOf(map);
  expect(heaps.map((h) => [h.kind, h.members.length, h.alone])).toEqual([
    ["same", 40, 0],
    ["similar", 4, 0],
    ["same", 3, 0],
    ["mailbox", 1, 30],
  ]);
  expect(drawn).toBe(4);
  expect(ties.map((t) => [t.kind, t.count])).toEqual([
    ["similar", 1],
    ["resets", 10],
  ]);
  const many = {
    knots: ids(0, 400).map(knot),
    groups: Array.from({ length: 80 }, (_, i) => ({
      kind: "same" as const,
      login_ids: ids(5 * i, 5),
    })),
    resets: [],
  };
  const large = heapsOf(many);
  expect(large.heaps).toHaveLength(80);
  expect(large.drawn).toBe(24);
  for (const heap of large.heaps.slice(0, 24)) {
    const wide = heap.label.length * 7.4;
    const end = heap.anchor === "start" ? heap.labelX + wide : heap.labelX - wide;
    expect(end).toBeGreaterThan(-8);
    expect(end).toBeLessThan(728);
  }
});
