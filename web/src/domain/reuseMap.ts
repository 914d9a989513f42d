import type { Schema } from "../api/client";

type Knot = Schema["KnotOut"] & {
  x: number;
  y: number;
  radius: number;
  labelX: number;
  labelY: number;
  anchor: "start" | "end";
  turn: string | undefined;
  label: string;
};
type Cord = { key: string; kind: Schema["CordKind"]; path: string; of: string[] };

const WIDTH = 720;
const HEIGHT = 560;
const RING = 220;
/** Beyond so many knots the labels stand like spokes, so that they do not cover one another. */
const LEVEL_MOST = 36;
const SPOKE_RING = 165;
const SPOKE_LETTERS = 16;
const LETTER_WIDE = 7.4;

/** How many letters of a label fit. */
function lettersIn(room: number): number {
  return Math.max(6, Math.floor(room / LETTER_WIDE));
}

function cut(text: string, letters: number): string {
  return text.length > letters ? `${text.slice(0, letters - 1)}…` : text;
}

/** Knots on a ring, those of one group side by side; cords across it. */
export function laidOut(map: Schema["ReachMap"], most: number): { knots: Knot[]; cords: Cord[] } {
  const drawn = map.knots.slice(0, most);
  const byId = new Map(drawn.map((k) => [k.login_id, k]));
  const order: string[] = [];
  const put = (id: string) => byId.has(id) && !order.includes(id) && order.push(id);
  for (const group of map.groups) group.login_ids.forEach(put);
  for (const reset of map.resets) [reset.by, reset.of].forEach(put);
  const spokes = order.length > LEVEL_MOST;
  const ring = spokes ? SPOKE_RING : RING;
  const places = new Map<string, { x: number; y: number; angle: number }>();
  order.forEach((id, i) => {
    const angle = (i / order.length) * 2 * Math.PI - Math.PI / 2;
    const [x, y] = [WIDTH / 2 + ring * Math.cos(angle), HEIGHT / 2 + ring * Math.sin(angle)];
    places.set(id, { x, y, angle });
  });
  const knots = order.map((id): Knot => {
    const knot = byId.get(id)!;
    const { x, y, angle } = places.get(id)!;
    const right = Math.cos(angle) >= 0;
    const degrees = (angle * 180) / Math.PI + (right ? 0 : 180);
    const labelX = x + (right ? 13 : -13);
    const room = spokes ? SPOKE_LETTERS : lettersIn(right ? WIDTH - labelX : labelX);
    return {
      ...knot,
      x,
      y,
      radius: 3.5 + Math.min(5, Math.sqrt(knot.reach)),
      labelX,
      labelY: y + 4,
      anchor: right ? "start" : "end",
      turn: spokes ? `rotate(${degrees.toFixed(1)} ${x.toFixed(1)} ${y.toFixed(1)})` : undefined,
      label: cut(knot.title, room),
    };
  });
  const cords: Cord[] = [];
  const tie = (kind: Cord["kind"], a: string, b: string) => {
    const [from, to] = [places.get(a), places.get(b)];
    if (!from || !to) return;
    const path = `M${from.x} ${from.y}Q${WIDTH / 2} ${HEIGHT / 2} ${to.x} ${to.y}`;
    cords.push({ key: `${kind} ${a} ${b}`, kind, path, of: [a, b] });
  };
  for (const group of map.groups) {
    const here = group.login_ids.filter((id) => byId.has(id));
    here.slice(1).forEach((id, i) => tie(group.kind, here[i] ?? id, id));
  }
  for (const reset of map.resets) tie("resets", reset.by, reset.of);
  return { knots, cords };
}

/** A group of logins, or a mailbox that resets others, as one knot. */
export type Heap = {
  id: string;
  kind: Schema["CordKind"] | "mailbox";
  title: string;
  members: string[];
  /** Of a mailbox: how many it resets that stand in no group. */
  alone: number;
  x: number;
  y: number;
  radius: number;
  labelX: number;
  labelY: number;
  anchor: "start" | "middle" | "end";
  label: string;
};
export type Tie = {
  key: string;
  kind: Schema["CordKind"];
  count: number;
  path: string;
  of: string[];
};

const GROUPS_MOST = 24;
const MAILBOXES_MOST = 12;
const [MAILBOXES_AT, GROUPS_AT, TOP, BOTTOM] = [190, 440, 26, 534];

/** A large map: groups in one column and mailboxes in another, those of most logins; cords with
 * their counts. `heaps` holds all of them, the drawn ones first. */
export function heapsOf(map: Schema["ReachMap"]): { heaps: Heap[]; ties: Tie[]; drawn: number } {
  const titles = new Map(map.knots.map((knot) => [knot.login_id, knot.title]));
  const heapOf = new Map<string, string>();
  const heaps = new Map<string, Omit<Heap, keyof ReturnType<typeof placed>>>();
  const add = (id: string, kind: Heap["kind"], title: string, members: string[]) =>
    heaps.set(id, { id, kind, title, members, alone: 0 });
  const ties = new Map<string, { kind: Tie["kind"]; count: number; of: string[] }>();
  const tie = (kind: Tie["kind"], a: string, b: string) => {
    if (a === b) return;
    const key = `${kind} ${a} ${b}`;
    const known = ties.get(key);
    if (known) known.count += 1;
    else ties.set(key, { kind, count: 1, of: [a, b] });
  };
  const same = map.groups.filter((group) => group.kind === "same");
  same.forEach((group, i) => {
    const id = `same ${i}`;
    group.login_ids.forEach((one) => heapOf.set(one, id));
    add(id, "same", named(group.login_ids, titles), group.login_ids);
  });
  map.groups.forEach((group, i) => {
    if (group.kind !== "similar") return;
    const rest = group.login_ids.filter((one) => !heapOf.has(one));
    const touched = new Set(group.login_ids.flatMap((one) => heapOf.get(one) ?? []));
    const id = `similar ${i}`;
    if (rest.length) {
      add(id, "similar", named(rest, titles), rest);
      rest.forEach((one) => heapOf.set(one, id));
    }
    const [first, ...others] = rest.length ? [id, ...touched] : [...touched];
    others.forEach((other) => first && tie("similar", first, other));
  });
  for (const { by, of } of map.resets) {
    const id = `mailbox ${by}`;
    if (!heaps.has(id)) {
      add(id, "mailbox", titles.get(by) ?? "", [by]);
      const held = heapOf.get(by);
      if (held) tie("same", id, held);
    }
    const to = heapOf.get(of);
    const mailbox = heaps.get(id)!;
    if (to) tie("resets", id, to);
    else mailbox.alone += 1;
  }
  const size = (heap: { members: string[]; alone: number; id: string }) =>
    heap.members.length + heap.alone;
  const ordered = [...heaps.values()].sort((a, b) => size(b) - size(a) || a.id.localeCompare(b.id));
  const most = Math.max(1, ...ordered.map(size));
  const boxes = ordered.filter((heap) => heap.kind === "mailbox").slice(0, MAILBOXES_MOST);
  const groups = ordered.filter((heap) => heap.kind !== "mailbox").slice(0, GROUPS_MOST);
  const shown = [...groups, ...boxes];
  const rest = ordered.filter((heap) => !shown.includes(heap));
  const whole = [...shown, ...rest].map((heap): Heap => {
    const column = heap.kind === "mailbox" ? boxes : groups;
    return { ...heap, ...placed(heap, column.indexOf(heap), column.length, most) };
  });
  const drawn = shown.length;
  const places = new Map(whole.slice(0, drawn).map((heap) => [heap.id, heap]));
  const paths = [...ties].flatMap(([key, one]): Tie[] => {
    const [from, to] = one.of.map((id) => places.get(id));
    if (!from || !to) return [];
    const between = from.kind === to.kind ? GROUPS_AT - 90 : (MAILBOXES_AT + GROUPS_AT) / 2;
    const path = `M${from.x} ${from.y}C${between} ${from.y} ${between} ${to.y} ${to.x} ${to.y}`;
    return [{ key, ...one, path }];
  });
  return { heaps: whole, ties: paths, drawn };
}

function named(members: string[], titles: Map<string, string>): string {
  return titles.get(members[0] ?? "") ?? "";
}

function placed(
  heap: { kind: Heap["kind"]; members: string[]; alone: number; title: string },
  at: number,
  count: number,
  most: number,
) {
  const isMailbox = heap.kind === "mailbox";
  const x = isMailbox ? MAILBOXES_AT : GROUPS_AT;
  const y = count > 1 ? TOP + (at * (BOTTOM - TOP)) / (count - 1) : HEIGHT / 2;
  const size = heap.members.length + heap.alone;
  const radius = 3.5 + (isMailbox ? 14 : 6.5) * Math.sqrt(size / most);
  const labelX = x + (isMailbox ? -radius - 6 : radius + 6);
  const said = `${size.toLocaleString("en")} · ${heap.title}`;
  return {
    x,
    y,
    radius,
    labelX,
    labelY: y + 4,
    anchor: isMailbox ? ("end" as const) : ("start" as const),
    label: cut(said, lettersIn(isMailbox ? labelX : WIDTH - labelX)),
  };
}
