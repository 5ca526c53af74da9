import { fromFrame, type Box, type Vec2, type Vec3 } from "../geometry/vec";
import type { ViseSetup } from "../hold/vise";
import { sampleLoop } from "../outline";
import type { PathPlan } from "./plan";
import { CONTACT } from "../geometry/tolerance";

/** How finely arcs are looked at, radians: a chord leaves an arc of radius 50 mm by 0.0005 mm. */
const STEP = Math.PI / 360;

/** Where a planned move meets a jaw, and how far below the jaw's top it goes. */
interface JawMet {
  below: number;
  at: Vec3;
}

/**
 * Whether the cutter of a path, anywhere on its way, goes into a jaw: every move is looked at, the round of the
 * cutter with it.
 */
export function jawMet(p: PathPlan, vise: ViseSetup): JawMet | null {
  if (!vise.upIsTop || p.frame.normal.z < 0.999) return null;
  const lowest = p.frame.origin.z - p.depth;
  const below = vise.jawTop - lowest;
  if (below <= CONTACT) return null;
  const radius = p.cutter ? p.cutter.diameter / 2 : p.drillRadius;
  const space = (q: Vec2) => fromFrame(p.frame, q, p.depth);
  const lines = [...p.chains, ...p.clearing].map((chain) => {
    const points = sampleLoop(chain, STEP).map(space);
    // A closed chain goes back to where it began; an open one of lines ends at its last end.
    const last = chain[chain.length - 1];
    return last.kind === "line" ? [...points, space(last.to)] : [...points, points[0]];
  });
  for (const q of p.points) lines.push([space(q), space(q)]);
  for (const line of lines) {
    for (let i = 0; i + 1 < line.length; i++) {
      for (const jaw of vise.jaws)
        if (distance(line[i], line[i + 1], jaw) < radius - CONTACT) return { below, at: { ...line[i], z: lowest } };
    }
  }
  return null;
}

/** Distance of a stretch from a box, both seen from above. */
function distance(a: Vec3, b: Vec3, box: Box): number {
  const inside = (q: { x: number; y: number }) =>
    q.x > box.min.x && q.x < box.max.x && q.y > box.min.y && q.y < box.max.y;
  if (inside(a) || inside(b)) return 0;
  const corners = [
    { x: box.min.x, y: box.min.y },
    { x: box.max.x, y: box.min.y },
    { x: box.max.x, y: box.max.y },
    { x: box.min.x, y: box.max.y },
  ];
  let least = Infinity;
  corners.forEach((c, i) => {
    const d = corners[(i + 1) % 4];
    if (cross(a, b, c, d)) least = 0;
    least = Math.min(least, toStretch(c, a, b), toStretch(a, c, d), toStretch(b, c, d));
  });
  return least;
}

type Point = { x: number; y: number };
const turn = (a: Point, b: Point, c: Point): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
const cross = (a: Point, b: Point, c: Point, d: Point): boolean =>
  turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0;

function toStretch(p: Point, a: Point, b: Point): number {
  const l2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
  const t = l2 < 1e-18 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / l2));
  return Math.hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y));
}
