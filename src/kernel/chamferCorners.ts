import type { FaceTag } from "@/core/engine/kernel";
import { add, cross, dot, length, scale, sub, type Vec3 } from "@/core/geometry/vec";
import type { Tagged } from "./bodies";
import type { FaceCache } from "./faceCache";
import { scope, type OC } from "./oc";
import { edgesOf, facesOf, freeEdges, measureCurve, type RawEdge } from "./topology";
import { polyhedron } from "./turnedBodies";
import { COINCIDENT } from "@/core/geometry/tolerance";

interface Plane {
  normal: Vec3;
  point: Vec3;
}

/** Where three planes meet; null where two of them are parallel, or nearly. */
function meetingPoint(a: Plane, b: Plane, c: Plane): Vec3 | null {
  const [ab, bc, ca] = [cross(a.normal, b.normal), cross(b.normal, c.normal), cross(c.normal, a.normal)];
  const volume = dot(a.normal, bc);
  if (Math.abs(volume) < COINCIDENT) return null;
  const sum = add(
    add(scale(bc, dot(a.normal, a.point)), scale(ca, dot(b.normal, b.point))),
    scale(ab, dot(c.normal, c.point)),
  );
  return scale(sum, 1 / volume);
}

/**
 * What a cutter leaves where three chamfers meet and the library does not: it puts a flat across the corner, a
 * cutter's three passes
 * leave three planes that come to a point. The pieces between, as solids to be joined; for equal legs c of a square
 * corner each has c³/12.
 * @param made the part as the library chamfered it
 * @param tag of the chamfer's own faces
 */
export function cornerPieces(oc: OC, made: Tagged, cache: FaceCache, tag: FaceTag): Tagged[] {
  return scope((own) => {
    const faces = facesOf(oc, made.shape).map((f) => own(f));
    const ours = faces.map((f, i) => (made.tags[i]?.row === tag.row ? cache.flat(f) : null));
    const edges = edgesOf(oc, faces);
    const around = new Map<number, RawEdge[]>();
    for (const e of edges)
      for (const { face } of e.uses) if (ours[face]) around.set(face, [...(around.get(face) ?? []), e]);
    const pieces: Tagged[] = [];
    for (const [face, sides] of around) {
      const corner = sides.length === 3 ? pointOver(oc, face, sides, ours) : null;
      if (!corner) continue;
      const shape = polyhedron(oc, corner);
      const count = facesOf(oc, shape).map((f) => f.delete()).length;
      pieces.push({ shape, tags: Array.from({ length: count }, () => tag) });
    }
    freeEdges(edges);
    return pieces;
  });
}

/**
 * The four triangles over a corner's flat, where all three of its neighbours are chamfers that meet in a point
 * outside it.
 */
function pointOver(oc: OC, face: number, sides: RawEdge[], ours: (Plane | null)[]): Vec3[][] | null {
  const flat = ours[face]!;
  const neighbours = sides.map((e) => ours[e.uses.find((u) => u.face !== face)?.face ?? -1] ?? null);
  const [a, b, c] = neighbours;
  const apex = a && b && c ? meetingPoint(a, b, c) : null;
  if (!apex || dot(sub(apex, flat.point), flat.normal) < COINCIDENT) return null;
  const ends = sides.map((e) => measureCurve(oc, e.edge)).flatMap((m) => [m.from, m.to]);
  const corners = ends.filter((p, i) => ends.findIndex((q) => length(sub(p, q)) < 1e-7) === i);
  if (corners.length !== 3) return null;
  return [corners, ...corners.map((p, i) => [p, corners[(i + 1) % 3], apex])];
}
