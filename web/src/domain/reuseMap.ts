import type { Schema } from "../api/client";

type Knot = Schema["KnotOut"] & {
  x: number;
  y: number;
  radius: number;
  labelX: number;
  labelY: number;
  anchor: "start" | "end";
};
type Cord = { key: string; kind: Schema["CordKind"]; path: string; of: string[] };

const WIDTH = 720;
const HEIGHT = 560;
const RING = 220;

/** Knots on a ring, those of one group side by side; cords across it. */
export function laidOut(map: Schema["ReachMap"], most: number): { knots: Knot[]; cords: Cord[] } {
  const drawn = map.knots.slice(0, most);
  const byId = new Map(drawn.map((k) => [k.login_id, k]));
  const order: string[] = [];
  const put = (id: string) => byId.has(id) && !order.includes(id) && order.push(id);
  for (const group of map.groups) group.login_ids.forEach(put);
  for (const reset of map.resets) [reset.by, reset.of].forEach(put);
  const places = new Map<string, { x: number; y: number; angle: number }>();
  order.forEach((id, i) => {
    const angle = (i / order.length) * 2 * Math.PI - Math.PI / 2;
    const [x, y] = [WIDTH / 2 + RING * Math.cos(angle), HEIGHT / 2 + RING * Math.sin(angle)];
    places.set(id, { x, y, angle });
  });
  const knots = order.map((id): Knot => {
    const knot = byId.get(id)!;
    const { x, y, angle } = places.get(id)!;
    const right = Math.cos(angle) >= 0;
    return {
      ...knot,
      x,
      y,
      radius: 3.5 + Math.min(5, Math.sqrt(knot.reach)),
      labelX: x + (right ? 13 : -13),
      labelY: y + 4,
      anchor: right ? "start" : "end",
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
