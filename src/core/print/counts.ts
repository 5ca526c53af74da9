import { dot, length, scale, sub, type Box, type Vec3 } from "../geometry/vec";
import type { EdgeInfo, FaceInfo } from "../engine/kernel";
import type { Job } from "../job/schema";
import { kindOf } from "../rows";
import { COINCIDENT, CONTACT } from "../geometry/tolerance";

/** Edges of a solid as a person counts them: the seam that closes a round face is no edge. */
export const countEdges = (edges: EdgeInfo[]): number => edges.filter((e) => e.faces[0] !== e.faces[1]).length;

interface RoundWall {
  origin: Vec3;
  direction: Vec3;
  from: number;
  to: number;
  sweep: number;
  groove: boolean;
}

/**
 * Round holes of a solid: full inside cylinders; what shares an axis and touches along it (hole and counterbore) is
 * one hole.
 * A groove alone is no hole; it joins the two ends of the bore it was cut in.
 */
export function countHoles(job: Pick<Job, "rows">, faces: FaceInfo[]): number {
  const grooves = new Set(job.rows.filter((r) => kindOf(r.body).traits?.groove).map((r) => r.id));
  const walls = faces
    .filter((f) => f.surface === "cylinder" && f.hollow && f.axis)
    .map((f): RoundWall => {
      const direction = f.axis!.direction,
        [from, to] = along(f.box, f.axis!.origin, direction);
      return {
        origin: f.axis!.origin,
        direction,
        from,
        to,
        sweep: f.sweep ?? 0,
        groove: f.tag !== null && grooves.has(f.tag.row),
      };
    });
  const groups: RoundWall[][] = [];
  for (const w of walls.sort((a, b) => b.sweep - a.sweep)) {
    const mine = groups.filter((g) => g.some((o) => sameHole(o, w)));
    if (!mine.length) groups.push([w]);
    else {
      mine[0].push(w, ...mine.slice(1).flat());
      for (const g of mine.slice(1)) groups.splice(groups.indexOf(g), 1);
    }
  }
  return groups.filter((g) => g.filter((w) => !w.groove).reduce((s, w) => s + w.sweep, 0) > 2 * Math.PI - 0.01).length;
}

function sameHole(a: RoundWall, b: RoundWall): boolean {
  if (Math.abs(Math.abs(dot(a.direction, b.direction)) - 1) > COINCIDENT) return false;
  const between = sub(b.origin, a.origin),
    t = dot(between, a.direction);
  if (length(sub(between, scale(a.direction, t))) > CONTACT) return false;
  const [from, to] = dot(a.direction, b.direction) > 0 ? [b.from + t, b.to + t] : [t - b.to, t - b.from];
  return from <= a.to + CONTACT && to >= a.from - CONTACT;
}

/** Stretch of a box along an axis, from its origin. */
function along(box: Box, origin: Vec3, direction: Vec3): [number, number] {
  let from = Infinity,
    to = -Infinity;
  for (const x of [box.min.x, box.max.x])
    for (const y of [box.min.y, box.max.y])
      for (const z of [box.min.z, box.max.z]) {
        const t = dot(sub({ x, y, z }, origin), direction);
        from = Math.min(from, t);
        to = Math.max(to, t);
      }
  return [from, to];
}

/** Area of the flats a row left as its floor, mm². */
export const floorAreaOf = (row: string, faces: FaceInfo[]): number =>
  faces.filter((f) => f.tag?.row === row && f.tag.role === "floor").reduce((s, f) => s + f.area, 0);
