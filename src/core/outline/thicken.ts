import { problems } from "./problems";
import { distance2, v2, type Vec2 } from "../geometry/vec";
import { COINCIDENT, MEET } from "../geometry/tolerance";
import { fail, ok, type Result } from "../base/result";
import { carriers, directionAt, parallel, reversed } from "./meet";
import { endOf, loopArea, startOf, type Loop, type Segment } from "./outline";

/** Parts of a chain's thickness to the left and to the right of its walk. */
export interface Thickness {
  left: number;
  right: number;
}

const shifted = (p: Vec2, d: Vec2, by: number): Vec2 => v2(p.x + d.x * by, p.y + d.y * by);

/** A segment of the same carrier between two points of it, gone the same way. */
function between(s: Segment, from: Vec2, to: Vec2): Segment {
  if (s.kind === "line") return { kind: "line", from, to };
  const angle = (p: Vec2) => Math.atan2(p.y - s.centre.y, p.x - s.centre.x);
  const start = angle(from);
  let sweep = angle(to) - start;
  const turn = 2 * Math.PI * Math.sign(s.sweep);
  while (sweep * Math.sign(s.sweep) < -COINCIDENT) sweep += turn;
  while (Math.abs(sweep) > 2 * Math.PI) sweep -= turn;
  return { ...s, start, sweep };
}

/** Where two neighbours moved aside meet: the crossing of their carriers nearest to where they met before. */
function corner(a: Segment, b: Segment, before: Vec2): Vec2 | null {
  if (distance2(endOf(a), startOf(b)) < MEET) return endOf(a);
  const found = carriers(a, b).sort((p, q) => distance2(p, before) - distance2(q, before));
  return found[0] ?? null;
}

/** An open chain moved to the left of its walk by a distance, its corners met anew; arcs stay exact. */
export function chainBeside(chain: Segment[], by: number): Result<Segment[]> {
  const moved = chain.map((s) => parallel(s, by, COINCIDENT));
  const gone = moved.findIndex((s) => s === null);
  if (gone >= 0) return fail(problems.thicknessOverRadius(gone + 1), { path: "outline" });
  const all = moved as Segment[];
  const points = [startOf(all[0])];
  for (let i = 0; i + 1 < all.length; i++) {
    const p = corner(all[i], all[i + 1], endOf(chain[i]));
    if (!p) return fail(problems.stepsDoNotMeet(i + 1, i + 2), { path: "outline" });
    points.push(p);
  }
  points.push(endOf(all[all.length - 1]));
  const fresh = all.map((s, i) => between(s, points[i], points[i + 1]));
  const turned = fresh.findIndex(
    (s, i) =>
      distance2(points[i], points[i + 1]) > COINCIDENT &&
      s.kind === "line" &&
      dotted(directionAt(s, 0), directionAt(chain[i], 0)) < 0,
  );
  if (turned >= 0) return fail(problems.stepTooShort(turned + 1), { path: "outline" });
  return ok(fresh.filter((s, i) => distance2(points[i], points[i + 1]) > COINCIDENT || s.kind === "arc"));
}
const dotted = (a: Vec2, b: Vec2): number => a.x * b.x + a.y * b.y;

/** An open chain with a thickness: square ends, arcs exact, corners sharp on both sides. */
export function thickened(chain: Segment[], { left, right }: Thickness): Result<Loop> {
  const one = chainBeside(chain, left);
  if (!one.ok) return one;
  const other = chainBeside(chain, -right);
  if (!other.ok) return other;
  const back = [...one.value].reverse().map(reversed);
  const cap = (from: Vec2, to: Vec2): Segment => ({ kind: "line", from, to });
  const [go, last] = [other.value, other.value[other.value.length - 1]];
  const loop: Loop = [
    ...go,
    cap(endOf(last), startOf(back[0])),
    ...back,
    cap(endOf(back[back.length - 1]), startOf(go[0])),
  ];
  return ok(loopArea(loop) > 0 ? loop : [...loop].reverse().map(reversed));
}

/** A chain whose straight or round ends go on: lines as lines, arcs by their tangent. */
export function prolonged(chain: Segment[], by: number): Segment[] {
  const first = chain[0];
  const last = chain[chain.length - 1];
  const d0 = directionAt(first, 0);
  const d1 = directionAt(last, 1);
  const head: Segment = { kind: "line", from: shifted(startOf(first), d0, -by), to: startOf(first) };
  const tail: Segment = { kind: "line", from: endOf(last), to: shifted(endOf(last), d1, by) };
  return [head, ...chain, tail];
}

/** Whether a chain runs on without a corner. */
export const isSmooth = (chain: Segment[]): boolean =>
  chain.every((s, i) => i === 0 || dotted(directionAt(chain[i - 1], 1), directionAt(s, 0)) > 1 - MEET * MEET);
