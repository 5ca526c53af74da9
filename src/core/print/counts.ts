import { dot, length, scale, sub, type Box, type Vec3 } from "../geometry/vec";
import type { EdgeInfo, FaceInfo, FaceTag } from "../engine/kernel";
import type { Job } from "../job/schema";
import { kindOf } from "../rows";
import type { Traits } from "../rows/feature";
import { COINCIDENT, CONTACT, DISPLAY } from "../geometry/tolerance";

/** Edges of a solid as a person counts them: the seam that closes a round face is no edge. */
export const countEdges = (edges: EdgeInfo[]): number => edges.filter((e) => e.faces[0] !== e.faces[1]).length;

interface RoundWall {
  origin: Vec3;
  direction: Vec3;
  from: number;
  to: number;
  sweep: number;
  radius: number;
  tag: FaceTag | null;
  groove: boolean;
}
/** A bore that a keyway or a window has opened is still a bore; less than this of its round is a corner or a slot's end (our own figure). */
const MOSTLY_ROUND = 1.2 * Math.PI;

/**
 * Holes of a solid as a machinist counts them: what shares an axis and touches along it (hole and counterbore) is one,
 * a bore with a keyway, a taper and a bent bore are one each. A groove alone is none, nor is a ring with an island in
 * it; a groove joins the two ends of the bore it was cut in.
 */
export function countHoles(job: Pick<Job, "rows">, faces: FaceInfo[]): number {
  const rowsThat = (is: (t: Traits) => unknown) =>
    new Set(job.rows.filter((r) => is(kindOf(r.body).traits ?? {})).map((r) => r.id));
  const [grooves, bent, conical] = [rowsThat((t) => t.groove), rowsThat((t) => t.bent), rowsThat((t) => t.conical)];
  const isOf = (rows: Set<string>) => (f: { tag: FaceTag | null }) => f.tag !== null && rows.has(f.tag.row);
  const walls = roundWalls(faces, isOf(grooves));
  const islands = walls.filter((w) => !w.hollow);
  const straight = walls.filter((w) => w.hollow && !isOf(bent)(w) && !islands.some((o) => isIslandOf(o, w)));
  const holes = joinedHoles(straight).filter((g) => sweepOf(g) > MOSTLY_ROUND);
  const copies = (list: FaceInfo[]) => new Set(list.map((f) => `${f.tag!.row}/${f.tag!.instance}`)).size;
  const cones = faces.filter((f) => f.surface === "cone" && isOf(conical)(f));
  const alone = cones.filter((f) => !holes.some((g) => g.some((w) => offAxis(w, middleOf(f.box)) < DISPLAY)));
  return holes.length + copies(faces.filter(isOf(bent))) + copies(alone);
}

function roundWalls(faces: FaceInfo[], isGroove: (f: FaceInfo) => boolean): (RoundWall & { hollow: boolean })[] {
  return faces.flatMap((f) => {
    if (f.surface !== "cylinder" || !f.axis) return [];
    const { origin, direction } = f.axis;
    const [from, to] = along(f.box, origin, direction);
    const { radius, hollow, tag } = f;
    const groove = isGroove(f);
    return [
      { origin, direction, from, to, sweep: f.sweep ?? 0, radius: radius!, tag, groove, hollow: hollow === true },
    ];
  });
}

/** Walls that share an axis and touch along it, together. */
function joinedHoles<W extends RoundWall>(walls: W[]): W[][] {
  const groups: W[][] = [];
  for (const w of [...walls].sort((a, b) => b.sweep - a.sweep)) {
    const mine = groups.filter((g) => g.some((o) => sameHole(o, w)));
    if (!mine.length) groups.push([w]);
    else {
      mine[0].push(w, ...mine.slice(1).flat());
      for (const g of mine.slice(1)) groups.splice(groups.indexOf(g), 1);
    }
  }
  return groups;
}
/** How far round a hole goes at one radius: pieces that a keyway parts count together. */
function sweepOf(walls: RoundWall[]): number {
  const byRadius = new Map<string, number>();
  for (const w of walls) {
    const key = w.radius.toFixed(4);
    if (!w.groove) byRadius.set(key, (byRadius.get(key) ?? 0) + w.sweep);
  }
  return Math.max(0, ...byRadius.values());
}
/** An island that the same row left within a round wall. */
const isIslandOf = (o: RoundWall, w: RoundWall): boolean =>
  o.tag?.row === w.tag?.row && o.tag?.instance === w.tag?.instance && o.radius < w.radius && sameHole(o, w);

const middleOf = ({ min, max }: Box): Vec3 => ({
  x: (min.x + max.x) / 2,
  y: (min.y + max.y) / 2,
  z: (min.z + max.z) / 2,
});
function offAxis({ origin, direction }: RoundWall, p: Vec3): number {
  const d = sub(p, origin);
  return length(sub(d, scale(direction, dot(d, direction))));
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
