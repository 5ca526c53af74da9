import type {
  Geom_Curve_ResD1,
  Geom_Surface_ResD1,
  TopoDS_Edge,
  TopoDS_Face,
  TopoDS_Shape,
} from "replicad-opencascadejs";
import { circleThroughAll } from "@/core/geometry/circleThroughAll";
import { add, cross, dot, length, scale, sub, unit, v3, type Box, type Vec3 } from "@/core/geometry/vec";
import type { EdgeInfo, FaceInfo } from "@/core/engine/kernel";
import type { MeasuredEdge } from "@/core/outline/fromPart";
import { scope, type Deletable, type OC } from "./oc";
import { COINCIDENT, DISPLAY, ROUNDING } from "@/core/geometry/tolerance";

const HASH_SPACE = 2147483647;

/** Shapes by identity: the library's hash, then its own IsSame. */
export class ShapeMap<T> {
  private buckets = new Map<number, { shape: TopoDS_Shape; value: T }[]>();
  constructor(private oc: OC) {}
  get(shape: TopoDS_Shape): T | undefined {
    return this.buckets.get(this.oc.ReplicadShapeHasher.HashCode(shape, HASH_SPACE))?.find((e) => e.shape.IsSame(shape))
      ?.value;
  }
  set(shape: TopoDS_Shape, value: T): void {
    const h = this.oc.ReplicadShapeHasher.HashCode(shape, HASH_SPACE);
    const bucket = this.buckets.get(h);
    const entry = bucket?.find((e) => e.shape.IsSame(shape));
    if (entry) entry.value = value;
    else if (bucket) bucket.push({ shape, value });
    else this.buckets.set(h, [{ shape, value }]);
  }
}

/** All faces of a shape in a fixed order. The caller frees them. */
export function facesOf(oc: OC, shape: TopoDS_Shape): TopoDS_Face[] {
  return scope((own) => {
    const list: TopoDS_Face[] = [];
    const ex = own(new oc.TopExp_Explorer(shape, oc.TopAbs_ShapeEnum.TopAbs_FACE, oc.TopAbs_ShapeEnum.TopAbs_SHAPE));
    for (; ex.More(); ex.Next()) {
      const current = own(ex.Current());
      list.push(oc.TopoDS.Face(current));
    }
    return list;
  });
}

/** Whether every shell of a shape is closed: no edge has material on one side only. */
export function isClosed(oc: OC, shape: TopoDS_Shape): boolean {
  return scope((own) => {
    const ex = own(new oc.TopExp_Explorer(shape, oc.TopAbs_ShapeEnum.TopAbs_SHELL, oc.TopAbs_ShapeEnum.TopAbs_SHAPE));
    for (; ex.More(); ex.Next()) if (!oc.BRep_Tool.IsClosed(own(ex.Current()))) return false;
    return true;
  });
}

const count = (oc: OC, shape: TopoDS_Shape, kind: "TopAbs_SOLID" | "TopAbs_SHELL"): number =>
  scope((own) => {
    let n = 0;
    const ex = own(new oc.TopExp_Explorer(shape, oc.TopAbs_ShapeEnum[kind], oc.TopAbs_ShapeEnum.TopAbs_SHAPE));
    for (; ex.More(); ex.Next()) n++;
    return n;
  });
/** The solids of a shape. The caller frees them. */
export function solidsOf(oc: OC, shape: TopoDS_Shape): TopoDS_Shape[] {
  return scope((own) => {
    const { TopAbs_SOLID, TopAbs_SHAPE } = oc.TopAbs_ShapeEnum;
    const ex = own(new oc.TopExp_Explorer(shape, TopAbs_SOLID, TopAbs_SHAPE));
    const list: TopoDS_Shape[] = [];
    for (; ex.More(); ex.Next()) list.push(ex.Current());
    return list;
  });
}
export const countSolids = (oc: OC, shape: TopoDS_Shape): number => count(oc, shape, "TopAbs_SOLID");
export const countShells = (oc: OC, shape: TopoDS_Shape): number => count(oc, shape, "TopAbs_SHELL");

/** Volume of a solid by the library's quick sums: negative where its faces look inwards. */
export const volumeOf = (oc: OC, shape: TopoDS_Shape): number =>
  scope((own) => {
    const p = own(new oc.GProp_GProps());
    oc.BRepGProp.VolumeProperties(shape, p, false, false, false);
    return p.Mass();
  });

export function boxOfShape(oc: OC, shape: TopoDS_Shape): Box {
  return scope((own) => {
    const b = own(new oc.Bnd_Box());
    oc.BRepBndLib.AddOptimal(shape, b, false, false);
    b.SetGap(0);
    return { min: v3(b.GetXMin(), b.GetYMin(), b.GetZMin()), max: v3(b.GetXMax(), b.GetYMax(), b.GetZMax()) };
  });
}

const surfaceNames: Record<string, FaceInfo["surface"]> = {
  GeomAbs_Plane: "plane",
  GeomAbs_Cylinder: "cylinder",
  GeomAbs_Cone: "cone",
  GeomAbs_Sphere: "sphere",
  GeomAbs_Torus: "torus",
};

interface Xyz {
  X(): number;
  Y(): number;
  Z(): number;
  delete(): void;
}
/** Reads a kernel point or direction and frees it. */
export function take(p: Xyz): Vec3 {
  const v = v3(p.X(), p.Y(), p.Z());
  p.delete();
  return v;
}

/** Point and outward normal of a face at surface coordinates u, v. */
function normalAt(
  oc: OC,
  face: TopoDS_Face,
  surface: InstanceType<OC["BRepAdaptor_Surface"]>,
  u: number,
  v: number,
): { point: Vec3; normal: Vec3 } {
  return scope((own) => {
    const d = own(surface.EvalD1(u, v) as Geom_Surface_ResD1 & Deletable);
    const point = take(d.Point),
      du = take(d.D1U),
      dv = take(d.D1V);
    const n = unit(cross(du, dv));
    const reversed = (face.Orientation() as string) === (oc.TopAbs_Orientation.TopAbs_REVERSED as string);
    return { point, normal: reversed ? scale(n, -1) : n };
  });
}

/** Normal and a point of a flat face; null for a curved one. */
export function describeFlat(oc: OC, face: TopoDS_Face): { normal: Vec3; point: Vec3 } | null {
  return scope((own) => {
    const surface = own(new oc.BRepAdaptor_Surface(face, false));
    return (surface.GetType() as string) === "GeomAbs_Plane" ? normalAt(oc, face, surface, 0, 0) : null;
  });
}

/** What a face is, measured on its surface. */
export function describeFace(oc: OC, face: TopoDS_Face): FaceInfo {
  return scope((own) => {
    const props = own(new oc.GProp_GProps());
    oc.BRepGProp.SurfaceProperties(face, props, false, false);
    const surface = own(new oc.BRepAdaptor_Surface(face, true));
    const kind = surfaceNames[surface.GetType() as string] ?? "other";
    const u0 = surface.FirstUParameter(),
      u1 = surface.LastUParameter(),
      v0 = surface.FirstVParameter(),
      v1 = surface.LastVParameter();
    const { point, normal } = normalAt(oc, face, surface, (u0 + u1) / 2, (v0 + v1) / 2);
    const info: FaceInfo = { tag: null, surface: kind, area: props.Mass(), box: boxOfShape(oc, face), normal, point };
    if (kind === "cylinder") {
      const c = own(surface.Cylinder());
      const axis = own(c.Axis());
      info.axis = { origin: take(axis.Location()), direction: take(axis.Direction()) };
      info.radius = c.Radius();
      const d = sub(point, info.axis.origin);
      const radial = sub(d, scale(info.axis.direction, dot(d, info.axis.direction)));
      info.hollow = dot(radial, normal) < 0;
      info.sweep = u1 - u0;
    } else if (kind === "torus") {
      // The library's torus is not bound in this build: the tube's radius from three points around it.
      // Thirds: of a whole tube the two ends are one point.
      const um = (u0 + u1) / 2;
      const around = [0, 1 / 3, 2 / 3].map((t) => normalAt(oc, face, surface, um, v0 + t * (v1 - v0)).point);
      const tube = circleThroughAll(around);
      if (tube) Object.assign(info, { radius: tube.radius, tube: tube.centre });
    } else if (kind === "sphere") info.radius = own(surface.Sphere()).Radius();
    else if (kind === "cone") {
      // The slope of the generator against the axis of revolution: taken from two points at the same u.
      const a = normalAt(oc, face, surface, u0, v0).point,
        b = normalAt(oc, face, surface, u0, v1).point;
      const a2 = normalAt(oc, face, surface, (u0 + u1) / 2, v0).point,
        b2 = normalAt(oc, face, surface, (u0 + u1) / 2, v1).point;
      const g1 = unit(sub(b, a)),
        g2 = unit(sub(b2, a2));
      // Two generators half the covered turn apart: cos d = cos² a + sin² a cos u.
      const apart = 1 - Math.cos((u1 - u0) / 2);
      if (apart > COINCIDENT)
        info.halfAngle = Math.asin(Math.sqrt(Math.max(0, Math.min(1, (1 - dot(g1, g2)) / apart))));
    }
    return info;
  });
}

/** Between which radii about which axis a cone or a round along a round edge lies. */
export interface Turned {
  centre: Vec3;
  axis: Vec3;
  inner: number;
  outer: number;
}

/** @returns null for other faces, and where the axis cannot be told */
export function turnedBetween(oc: OC, face: TopoDS_Face, info: FaceInfo): Turned | null {
  if (info.surface !== "cone" && info.surface !== "torus") return null;
  return scope((own) => {
    const surface = own(new oc.BRepAdaptor_Surface(face, true));
    const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()];
    const [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()];
    const round = (v: number) => {
      const at = [0, 1 / 3, 2 / 3].map((t) => normalAt(oc, face, surface, u0 + (u1 - u0) * t, v).point);
      const circle = circleThroughAll(at.slice(0, 3));
      const n = cross(sub(at[1], at[0]), sub(at[2], at[0]));
      return circle && length(n) > ROUNDING ? { ...circle, axis: unit(n) } : null;
    };
    // At its tip a cone has no circle.
    const ends = [v0, v1].map(round);
    const known = ends.find((e) => e !== null);
    if (!known) return null;
    const radii = ends.map((e) => e?.radius ?? 0);
    if (info.surface === "cone")
      return { centre: known.centre, axis: known.axis, inner: Math.min(...radii), outer: Math.max(...radii) };
    if (!info.tube || info.radius === undefined) return null;
    const off = sub(info.tube, known.centre);
    const far = length(sub(off, scale(known.axis, dot(off, known.axis))));
    return { centre: known.centre, axis: known.axis, inner: Math.max(0, far - info.radius), outer: far + info.radius };
  });
}

export interface RawEdge {
  edge: TopoDS_Edge;
  uses: { face: number; edge: TopoDS_Edge }[];
}

/** Edges of a shape, each with the faces that use it, in a fixed order. The caller frees the edges. */
export function edgesOf(oc: OC, faces: TopoDS_Face[]): RawEdge[] {
  const map = new ShapeMap<RawEdge>(oc);
  const list: RawEdge[] = [];
  faces.forEach((face, i) =>
    scope((own) => {
      const ex = own(new oc.TopExp_Explorer(face, oc.TopAbs_ShapeEnum.TopAbs_EDGE, oc.TopAbs_ShapeEnum.TopAbs_SHAPE));
      for (; ex.More(); ex.Next()) {
        const current = own(ex.Current());
        const edge = oc.TopoDS.Edge(current);
        const known = map.get(edge);
        if (known) known.uses.push({ face: i, edge });
        else {
          const raw = { edge, uses: [{ face: i, edge }] };
          map.set(edge, raw);
          list.push(raw);
        }
      }
    }),
  );
  return list;
}

export function freeEdges(edges: RawEdge[]): void {
  for (const e of edges) for (const u of e.uses) u.edge.delete();
}

/** Measures one edge; null for seams and degenerate edges, which nobody would call an edge of the part. */
export function describeEdge(
  oc: OC,
  raw: RawEdge,
  faces: TopoDS_Face[],
  quickNormal: (face: TopoDS_Face, at: Vec3) => Vec3 | null,
): EdgeInfo | null {
  if (raw.uses.length < 2 || oc.BRep_Tool.Degenerated(raw.edge)) return null;
  const first = raw.uses[0],
    second = raw.uses.find((u) => u.face !== first.face);
  if (!second) return null;
  return scope((own) => {
    const curve = own(new oc.BRepAdaptor_Curve(raw.edge));
    const t0 = curve.FirstParameter(),
      t1 = curve.LastParameter(),
      tm = (t0 + t1) / 2;
    const kind = curve.GetType() as string;
    const d1 = own(curve.EvalD1(tm) as Geom_Curve_ResD1 & Deletable);
    const middle = take(d1.Point),
      along = unit(take(d1.D1));
    const from = take(curve.EvalD0(t0)),
      to = take(curve.EvalD0(t1));
    const reversed = (first.edge.Orientation() as string) === (oc.TopAbs_Orientation.TopAbs_REVERSED as string);
    const tangent = reversed ? scale(along, -1) : along;
    const [n1, n2] = [first, second].map(
      (u) => quickNormal(faces[u.face], middle) ?? edgeNormal(oc, raw.edge, faces[u.face], tm),
    );
    const angle = Math.atan2(length(cross(n1, n2)), dot(n1, n2));
    const inward = cross(n1, tangent);
    const turn = angle < DISPLAY ? "smooth" : dot(inward, n2) < 0 ? "convex" : "concave";
    const info: EdgeInfo = {
      curve: "other",
      from,
      to,
      middle,
      length: 0,
      faces: [first.face, second.face],
      turn,
      angle,
    };
    if (kind === "GeomAbs_Line") {
      info.curve = "line";
      info.length = length(sub(to, from));
    } else if (kind === "GeomAbs_Circle") {
      const c = own(curve.Circle());
      const axis = own(c.Axis());
      info.curve = "circle";
      info.centre = take(c.Location());
      info.axis = take(axis.Direction());
      info.radius = c.Radius();
      info.length = c.Radius() * (t1 - t0);
    } else
      info.length = samples(oc, raw.edge).reduce((sum, p, i, all) => (i ? sum + length(sub(p, all[i - 1])) : 0), 0);
    return info;
  });
}

const curveNames: Partial<Record<string, MeasuredEdge["curve"]>> = {
  GeomAbs_Line: "line",
  GeomAbs_Circle: "circle",
  GeomAbs_Ellipse: "ellipse",
};

/** Places along a curve by which it is told whether it is a circle. */
const SPOTS = 12;

/** What an edge is as a curve; a circle also where the kernel has it as a curve by poles. */
export function measureCurve(oc: OC, edge: TopoDS_Edge): MeasuredEdge {
  return scope((own) => {
    const curve = own(new oc.BRepAdaptor_Curve(edge));
    const t0 = curve.FirstParameter(),
      t1 = curve.LastParameter(),
      kind = curve.GetType() as string;
    const measured: MeasuredEdge = {
      curve: curveNames[kind] ?? "other",
      from: take(curve.EvalD0(t0)),
      to: take(curve.EvalD0(t1)),
      middle: take(curve.EvalD0((t0 + t1) / 2)),
    };
    if (measured.curve === "other") {
      const along = Array.from({ length: SPOTS + 1 }, (_, i) => take(curve.EvalD0(t0 + ((t1 - t0) * i) / SPOTS)));
      const circle = circleThroughAll(along);
      return circle ? { ...measured, curve: "circle", ...circle } : measured;
    }
    if (measured.curve !== "circle") return measured;
    const c = own(curve.Circle()),
      axis = own(c.Axis());
    return { ...measured, centre: take(c.Location()), axis: take(axis.Direction()), radius: c.Radius() };
  });
}

/** The outward normal of a face at a point of its edge, by the parameter of the edge. */
export function edgeNormal(oc: OC, edge: TopoDS_Edge, face: TopoDS_Face, t: number): Vec3 {
  return scope((own) => {
    const surface = own(new oc.BRepAdaptor_Surface(face, false));
    const flat = own(new oc.BRepAdaptor_Curve2d(edge, face));
    const uv = own(flat.EvalD0(t) as { X(): number; Y(): number; delete(): void });
    return normalAt(oc, face, surface, uv.X(), uv.Y()).normal;
  });
}

/** Points along an edge, close enough to draw. */
export function samples(oc: OC, edge: TopoDS_Edge, step = Math.PI / 48): Vec3[] {
  return scope((own) => {
    const curve = own(new oc.BRepAdaptor_Curve(edge));
    const t0 = curve.FirstParameter(),
      t1 = curve.LastParameter();
    const kind = curve.GetType() as string;
    if (kind === "GeomAbs_Line") return [take(curve.EvalD0(t0)), take(curve.EvalD0(t1))];
    const n = kind === "GeomAbs_Circle" ? Math.max(2, Math.ceil((t1 - t0) / step)) : 24;
    if (kind === "GeomAbs_Circle") {
      // Worked out here: asking the kernel for each point is ten times slower.
      const c = own(curve.Circle());
      const xAxis = own(c.XAxis()),
        yAxis = own(c.YAxis());
      const centre = take(c.Location()),
        x = take(xAxis.Direction()),
        y = take(yAxis.Direction()),
        r = c.Radius();
      return Array.from({ length: n + 1 }, (_, i) => {
        const a = t0 + ((t1 - t0) * i) / n;
        return add(centre, add(scale(x, r * Math.cos(a)), scale(y, r * Math.sin(a))));
      });
    }
    return Array.from({ length: n + 1 }, (_, i) => take(curve.EvalD0(t0 + ((t1 - t0) * i) / n)));
  });
}

/** Whether any edge of a face is neither a line nor a circle. */
export function boundedByOtherCurves(oc: OC, face: TopoDS_Face): boolean {
  return scope((own) => {
    const ex = own(new oc.TopExp_Explorer(face, oc.TopAbs_ShapeEnum.TopAbs_EDGE, oc.TopAbs_ShapeEnum.TopAbs_SHAPE));
    for (; ex.More(); ex.Next()) {
      const edge = own(oc.TopoDS.Edge(own(ex.Current())));
      if (oc.BRep_Tool.Degenerated(edge)) continue;
      const kind = own(new oc.BRepAdaptor_Curve(edge)).GetType() as string;
      if (kind !== "GeomAbs_Line" && kind !== "GeomAbs_Circle") return true;
    }
    return false;
  });
}
