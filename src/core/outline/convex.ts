import { distance2, v2, type Vec2 } from "../geometry/vec";
import { circle, endOf, loopArea, roundedLoop, startOf, type Arc, type Loop } from "./outline";

/** A convex loop as straight walls with rounds between them; every pocket shape of the first rows is one. */
export interface ConvexShape {
  corners: Vec2[];
  radius: number;
}

/**
 * Area a round cutter cannot reach in an inside corner of two straight walls.
 * A = r² (1 / tan(φ/2) - (π - φ)/2), φ the angle between the walls.
 * @param radius cutter radius, mm   @param angle φ, radians, 0 < φ < π   @returns mm²
 * @source elementary geometry: kite of the tangent points less the sector
 */
export function cornerRest(radius: number, angle: number): number {
  return radius * radius * (1 / Math.tan(angle / 2) - (Math.PI - angle) / 2);
}

/** Corners moved inwards by `d` along both their walls. Null when nothing is left. */
export function insetCorners(corners: Vec2[], d: number): Vec2[] | null {
  const n = corners.length;
  const inward = corners.map((c, i) => {
    const e = corners[(i + 1) % n];
    const l = distance2(c, e);
    return { c, dx: (e.x - c.x) / l, dy: (e.y - c.y) / l };
  });
  const moved = corners.map((_, i) => {
    const a = inward[(i + n - 1) % n],
      b = inward[i];
    const pa = v2(a.c.x - a.dy * d, a.c.y + a.dx * d),
      pb = v2(b.c.x - b.dy * d, b.c.y + b.dx * d);
    const det = a.dx * b.dy - a.dy * b.dx;
    const t = ((pb.x - pa.x) * b.dy - (pb.y - pa.y) * b.dx) / det;
    return v2(pa.x + a.dx * t, pa.y + a.dy * t);
  });
  // Every wall must keep its direction and every corner its distance, or the shape has collapsed.
  for (let i = 0; i < n; i++) {
    const a = moved[i],
      b = moved[(i + 1) % n],
      w = inward[i];
    if ((b.x - a.x) * w.dx + (b.y - a.y) * w.dy <= 1e-9) return null;
  }
  return moved;
}

/** Cutter centre path inside a convex shape: walls move in by the cutter's radius. Null: the cutter does not go in. */
export function insideOffset(shape: ConvexShape, cutterRadius: number): Loop | null {
  const corners = insetCorners(shape.corners, cutterRadius);
  return corners && roundedLoop(corners, Math.max(0, shape.radius - cutterRadius));
}

/** What a cutter leaves standing in the corners of a convex shape: the loops, and their area in all. */
export function insideRest(shape: ConvexShape, cutterRadius: number): { area: number; loops: Loop[] } {
  const { corners, radius } = shape;
  if (radius >= cutterRadius - 1e-9) return { area: 0, loops: [] };
  const cut = roundedLoop(corners, cutterRadius);
  const whole = roundedLoop(corners, radius);
  if (!whole) return { area: 0, loops: [] };
  if (!cut) return { area: loopArea(whole), loops: [whole] };
  const outerArcs = arcsByCorner(cut),
    innerArcs = radius > 0 ? arcsByCorner(whole) : null;
  const loops = corners.map((c, i): Loop => {
    const far = outerArcs[i];
    const from = startOf(far),
      to = endOf(far);
    const back: Arc = { ...far, start: far.start + far.sweep, sweep: -far.sweep };
    if (!innerArcs) return [{ kind: "line", from, to: c }, { kind: "line", from: c, to }, back];
    const near = innerArcs[i];
    return [{ kind: "line", from, to: startOf(near) }, near, { kind: "line", from: endOf(near), to }, back];
  });
  return { area: loopArea(whole) - loopArea(cut), loops };
}

const arcsByCorner = (loop: Loop): Arc[] => loop.filter((s): s is Arc => s.kind === "arc");

/** Cutter centre path round the outside of a loop: lines move out, corners become arcs, arcs grow. Exact. */
export function outsideOffset(loop: Loop, cutterRadius: number): Loop {
  const out: Loop = [];
  const n = loop.length;
  if (n === 1 && loop[0].kind === "arc") return circle(loop[0].radius + cutterRadius, loop[0].centre);
  for (let i = 0; i < n; i++) {
    const s = loop[i];
    if (s.kind === "line") {
      const l = distance2(s.from, s.to),
        nx = (s.to.y - s.from.y) / l,
        ny = -(s.to.x - s.from.x) / l;
      out.push({
        kind: "line",
        from: v2(s.from.x + nx * cutterRadius, s.from.y + ny * cutterRadius),
        to: v2(s.to.x + nx * cutterRadius, s.to.y + ny * cutterRadius),
      });
    } else out.push({ ...s, radius: s.radius + cutterRadius });
    const corner = endOf(s),
      next = loop[(i + 1) % n];
    const a = heading(s, 1),
      b = heading(next, 0);
    let turn = b - a;
    while (turn <= -Math.PI) turn += 2 * Math.PI;
    while (turn > Math.PI) turn -= 2 * Math.PI;
    if (turn > 1e-9)
      out.push({ kind: "arc", centre: corner, radius: cutterRadius, start: a - Math.PI / 2, sweep: turn });
  }
  return out;
}

function heading(s: Loop[number], t: 0 | 1): number {
  if (s.kind === "line") return Math.atan2(s.to.y - s.from.y, s.to.x - s.from.x);
  return s.start + s.sweep * t + (s.sweep > 0 ? Math.PI / 2 : -Math.PI / 2);
}
