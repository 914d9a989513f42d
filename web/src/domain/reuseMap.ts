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
    const isLong = spokes && knot.title.length > SPOKE_LETTERS;
    return {
      ...knot,
      x,
      y,
      radius: 3.5 + Math.min(5, Math.sqrt(knot.reach)),
      labelX: x + (right ? 13 : -13),
      labelY: y + 4,
      anchor: right ? "start" : "end",
      turn: spokes ? `rotate(${degrees.toFixed(1)} ${x.toFixed(1)} ${y.toFixed(1)})` : undefined,
      label: isLong ? `${knot.title.slice(0, SPOKE_LETTERS - 1)}…` : knot.title,
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
