import type { NumberText, Quantity } from "../number";
import { gridPlaces, linePlaces, roundAngles } from "../geometry/arrays";
import { v2, type Vec2 } from "../geometry/vec";
import type { RepeatPattern } from "./lines/repeat";
import type { Segment } from "./outline";
import { moved } from "./shapes";

/** Where one copy of a repeat stands: turned about a point, then moved. */
export interface Placed {
  turn: number;
  about: Vec2;
  by: Vec2;
}
/** A chain turned about a point and then moved. */
export function moveAbout(chain: Segment[], p: Placed): Segment[] {
  const [back] = moved([chain], v2(-p.about.x, -p.about.y), 0);
  return moved([moved([back], v2(0, 0), p.turn)[0]], v2(p.about.x + p.by.x, p.about.y + p.by.y), 0)[0];
}
/** Places of a repeat; null where a number of it fails. */
export function placesOf(
  p: RepeatPattern,
  num: (t: NumberText, q: Quantity) => number | null,
  spot: (p: { x: NumberText; y: NumberText }) => Vec2 | null,
): Placed[] | null {
  const zero = v2(0, 0);
  if (p.kind === "around") {
    const n = num(p.n, "count"),
      about = p.centre ? spot(p.centre) : zero,
      step = p.step === undefined ? undefined : num(p.step, "angle");
    return n === null || !about || step === null
      ? null
      : roundAngles(n, 0, step).map((turn) => ({ turn, about, by: zero }));
  }
  if (p.kind === "line") {
    const n = num(p.n, "count"),
      by = num(p.by, "coordinate"),
      turn = p.turn === undefined ? 0 : num(p.turn, "angle");
    return n === null || by === null || turn === null
      ? null
      : linePlaces(n, by, turn).map((q) => ({ turn: 0, about: zero, by: q }));
  }
  const nx = num(p.nx, "count"),
    ny = num(p.ny, "count"),
    dx = num(p.dx, "coordinate"),
    dy = num(p.dy, "coordinate");
  if (nx === null || ny === null || dx === null || dy === null || nx * ny > 5000) return null;
  return gridPlaces(nx, ny, dx, dy).map((by) => ({ turn: 0, about: zero, by }));
}
