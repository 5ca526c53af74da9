import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { cross, distance2, dot, unit, v2, v3, type Vec3 } from "@/core/geometry/vec";
import { betterSides, cutOut, earsOf, ringArea } from "./flatCut";
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

/** Axes across a normal: x, y and the normal are right-handed, so what runs counter-clockwise in them looks along it. */
function axesAcross(normal: Vec3): { x: Vec3; y: Vec3 } {
  const x = unit(cross(Math.abs(normal.z) > 0.9 ? v3(0, 1, 0) : v3(0, 0, 1), normal));
  return { x, y: cross(normal, x) };
}

/** Points of each wire of a shape, way by way; null where one does not close. */
export function ringsOfWires(oc: OC, shape: TopoDS_Shape, pointsOf: PointsOf): Vec3[][] | null {
  const rings = scope((own) => {
    const wires = shapesIn(oc, shape, "WIRE", (s) => own(oc.TopoDS.Wire(s)));
    return wires.map((w) => ring(shapesIn(oc, w, "EDGE", (s) => own(oc.TopoDS.Edge(s))).map(pointsOf)));
  });
  return rings.length && rings.every((r) => r !== null) ? (rings as Vec3[][]) : null;
}

/**
 * Triangles of a flat face from the points of its edges: the library's own triangles of a flat with hundreds of holes
 * take seconds.
 * @returns null where its wires do not close
 */
export function flatMesh(oc: OC, face: TopoDS_Face, normal: Vec3, pointsOf: PointsOf): FaceMesh | null {
  const rings = ringsOfWires(oc, face, pointsOf);
  if (!rings) return null;
  const { x, y } = axesAcross(normal);
  const flat = rings.map((r) => r.map((p) => v2(dot(p, x), dot(p, y))));
  const sizes = flat.map((r) => Math.abs(ringArea(r)));
  const outer = sizes.indexOf(Math.max(...sizes));
  const order = [outer, ...flat.keys()].filter((i, k) => k === 0 || i !== outer);
  const ordered = order.map((i) => flat[i]);
  const triangles = betterSides(ordered.flat(), earsOf(ordered));
  return lying(
    order.flatMap((i) => rings[i]),
    normal,
    triangles,
  );
}

/**
 * The triangles of a flat with more rings cut out of it than it had.
 * @returns null where that has to be made from the whole
 */
export function flatMeshLess(before: FaceMesh, normal: Vec3, rings: Vec3[][]): FaceMesh | null {
  const { x, y } = axesAcross(normal);
  const count = before.positions.length / 3;
  const corners = new Array<number>(2 * count);
  for (let i = 0; i < count; i++) {
    const p = v3(before.positions[3 * i], before.positions[3 * i + 1], before.positions[3 * i + 2]);
    corners[2 * i] = dot(p, x);
    corners[2 * i + 1] = dot(p, y);
  }
  const made = { corners, triangles: Array.from(before.triangles) };
  const flatten = (r: Vec3[]) => r.map((p) => v2(dot(p, x), dot(p, y)));
  if (!rings.every((r) => cutOut(made, flatten(r)))) return null;
  const fresh = lying(rings.flat(), normal, made.triangles);
  return {
    ...fresh,
    positions: joined(before.positions, fresh.positions),
    normals: joined(before.normals, fresh.normals),
  };
}

function joined(a: Float32Array, b: Float32Array): Float32Array {
  const out = new Float32Array(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
}

/** Triangles between points that all lie in one flat. */
function lying(points: Vec3[], normal: Vec3, triangles: number[]): FaceMesh {
  const positions = new Float32Array(points.length * 3);
  const normals = new Float32Array(points.length * 3);
  points.forEach((p, n) => {
    positions.set([p.x, p.y, p.z], n * 3);
    normals.set([normal.x, normal.y, normal.z], n * 3);
  });
  return { positions, normals, triangles: new Uint32Array(triangles) };
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
