import { CONTACT, ROUNDING } from "./tolerance";
import { add, cross, length, scale, sub, unit, type Vec3 } from "./vec";

/** A circle in space: its axis is square to it, right-handed to the way its points go round. */
export interface CircleInSpace {
  centre: Vec3;
  axis: Vec3;
  radius: number;
}

/**
 * The circle that points along a curve lie on, all of them; null where they lie on none. A curve that the solid kernel
 * knows only by its poles may be a circle all the same.
 * @param points in order along the curve, three at least, the last perhaps where the first is
 */
export function circleThroughAll(points: Vec3[]): CircleInSpace | null {
  const n = points.length;
  if (n < 3) return null;
  const [a, b, c] = [points[0], points[Math.floor(n / 3)], points[Math.floor((2 * n) / 3)]];
  const [u, v] = [sub(b, a), sub(c, a)];
  const normal = cross(u, v);
  const square = length(normal) ** 2;
  // Three points in a line are on no circle.
  if (square < ROUNDING ** 2) return null;
  // The circumcentre of a triangle, from its corner a.
  const out = add(scale(cross(v, normal), length(u) ** 2), scale(cross(normal, u), length(v) ** 2));
  const centre = add(a, scale(out, 1 / (2 * square)));
  const axis = unit(normal);
  const radius = length(sub(a, centre));
  const isOn = (p: Vec3) => {
    const d = sub(p, centre);
    const off = d.x * axis.x + d.y * axis.y + d.z * axis.z;
    return Math.abs(length(d) - radius) < CONTACT && Math.abs(off) < CONTACT;
  };
  return points.every(isOn) ? { centre, axis, radius } : null;
}
