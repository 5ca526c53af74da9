import { v2, type Vec2 } from "../geometry/vec";
import type { Region } from "./boolean";

/**
 * Centroid of a region by Green's theorem; an arc adds its circular segment at (4/3) r sin³(φ/2)/(φ − sin φ) from
 * its centre.
 */
export function centroidOf(loops: Region, area: number): Vec2 {
  let x = 0,
    y = 0;
  for (const s of loops.flat()) {
    const a =
      s.kind === "line"
        ? s.from
        : v2(s.centre.x + s.radius * Math.cos(s.start), s.centre.y + s.radius * Math.sin(s.start));
    const b =
      s.kind === "line"
        ? s.to
        : v2(s.centre.x + s.radius * Math.cos(s.start + s.sweep), s.centre.y + s.radius * Math.sin(s.start + s.sweep));
    const c = (a.x * b.y - b.x * a.y) / 2;
    x += (c * (a.x + b.x)) / 3;
    y += (c * (a.y + b.y)) / 3;
    if (s.kind === "arc") {
      const phi = s.sweep,
        part = (s.radius * s.radius * (phi - Math.sin(phi))) / 2;
      if (Math.abs(part) > 1e-15) {
        const d = (4 * s.radius * Math.sin(phi / 2) ** 3) / (3 * (phi - Math.sin(phi))),
          m = s.start + phi / 2;
        x += part * (s.centre.x + d * Math.cos(m));
        y += part * (s.centre.y + d * Math.sin(m));
      }
    }
  }
  return v2(x / area, y / area);
}
