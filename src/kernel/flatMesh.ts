import earcut from "earcut";
import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { cross, distance2, dot, unit, v2, v3, type Vec2, type Vec3 } from "@/core/geometry/vec";
import type { FaceMesh } from "./meshing";
import { scope, type OC } from "./oc";
import { MEET, ROUNDING } from "@/core/geometry/tolerance";

/** Points of an edge in its curve's own sense. */
type PointsOf = (edge: TopoDS_Edge) => Vec3[];
const apart = (a: Vec3, b: Vec3) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);

/** Stretches put end to end, turned where they must be; null where they do not close. */
function ring(stretches: Vec3[][]): Vec3[] | null {
  const left = [...stretches];
  const way = [...(left.shift() ?? [])];
  while (left.length) {
    const end = way[way.length - 1];
    const i = left.findIndex((s) => apart(s[0], end) < MEET || apart(s[s.length - 1], end) < MEET);
    if (i < 0) return null;
    const [next] = left.splice(i, 1);
    way.push(...(apart(next[0], end) < MEET ? next : [...next].reverse()).slice(1));
  }
  if (way.length < 4 || apart(way[0], way[way.length - 1]) > MEET) return null;
  return way.slice(0, -1);
}

function shapesIn<T extends TopoDS_Shape>(
  oc: OC,
  shape: TopoDS_Shape,
  kind: "WIRE" | "EDGE",
  as: (s: TopoDS_Shape) => T,
): T[] {
  return scope((own) => {
    const { TopAbs_WIRE, TopAbs_EDGE, TopAbs_SHAPE } = oc.TopAbs_ShapeEnum;
    const ex = own(new oc.TopExp_Explorer(shape, kind === "WIRE" ? TopAbs_WIRE : TopAbs_EDGE, TopAbs_SHAPE));
    const list: T[] = [];
    for (; ex.More(); ex.Next()) list.push(as(own(ex.Current())));
    return list;
  });
}

/**
 * Triangles of a flat face from the points of its edges, by ear clipping: the library's own triangles of a flat with
 * hundreds of holes take seconds.
 * @returns null where its wires do not close
 */
export function flatMesh(oc: OC, face: TopoDS_Face, normal: Vec3, pointsOf: PointsOf): FaceMesh | null {
  const rings = scope((own) => {
    const wires = shapesIn(oc, face, "WIRE", (s) => own(oc.TopoDS.Wire(s)));
    return wires.map((w) => ring(shapesIn(oc, w, "EDGE", (s) => own(oc.TopoDS.Edge(s))).map(pointsOf)));
  });
  if (!rings.length || rings.some((r) => r === null)) return null;
  const x = unit(cross(Math.abs(normal.z) > 0.9 ? v3(0, 1, 0) : v3(0, 0, 1), normal));
  const y = cross(normal, x);
  const flat = (rings as Vec3[][]).map((r) => r.map((p) => v2(dot(p, x), dot(p, y))));
  const sizes = flat.map((r) => Math.abs(ringArea(r)));
  const outer = sizes.indexOf(Math.max(...sizes));
  const order = [outer, ...flat.keys()].filter((i, k) => k === 0 || i !== outer);
  const count = flat.reduce((sum, r) => sum + r.length, 0);
  const [positions, normals] = [new Float32Array(count * 3), new Float32Array(count * 3)];
  const coordinates: number[] = [];
  const starts: number[] = [];
  let n = 0;
  for (const i of order) {
    if (n) starts.push(n);
    for (const [k, p] of (rings as Vec3[][])[i].entries()) {
      positions.set([p.x, p.y, p.z], n * 3);
      normals.set([normal.x, normal.y, normal.z], n * 3);
      coordinates.push(flat[i][k].x, flat[i][k].y);
      n++;
    }
  }
  // x, y and the normal are right-handed: what runs counter-clockwise in them looks along the normal.
  return { positions, normals, triangles: counterClockwise(earcut(coordinates, starts), coordinates) };
}

const ringArea = (r: Vec2[]): number =>
  r.reduce((sum, p, i) => sum + p.x * r[(i + 1) % r.length].y - p.y * r[(i + 1) % r.length].x, 0) / 2;

function counterClockwise(triangles: number[], at: number[]): Uint32Array {
  const out = new Uint32Array(triangles);
  for (let i = 0; i < out.length; i += 3) {
    const [a, b, c] = [out[i] * 2, out[i + 1] * 2, out[i + 2] * 2];
    const area = (at[b] - at[a]) * (at[c + 1] - at[a + 1]) - (at[b + 1] - at[a + 1]) * (at[c] - at[a]);
    if (area < 0) [out[i + 1], out[i + 2]] = [out[i + 2], out[i + 1]];
  }
  return out;
}

/** Every k-th point of a finely sampled arc: as many as a chord error allows. */
export function thinned(points: Vec3[], deflection: number): Vec3[] {
  if (points.length < 5) return points;
  const [a, b, c] = [points[0], points[1], points[2]];
  const chord = apart(a, c);
  const sag = apart(b, v3((a.x + c.x) / 2, (a.y + c.y) / 2, (a.z + c.z) / 2));
  if (sag < ROUNDING) return points;
  // The sag grows with the square of the step; a turn of a sixteenth and more would show.
  const radius = (chord * chord) / (8 * sag);
  const perStep = distance2(v2(0, 0), v2(a.x - b.x, Math.hypot(a.y - b.y, a.z - b.z))) / radius;
  const most = Math.min(0.22, 2 * Math.acos(Math.max(0, 1 - deflection / radius)));
  const stride = Math.max(1, Math.floor(most / perStep));
  const last = points.length - 1;
  const n = Math.max(2, Math.ceil(last / stride));
  return Array.from({ length: n + 1 }, (_, i) => points[Math.round((i * last) / n)]);
}
