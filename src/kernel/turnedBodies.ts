import type { TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { fromFrame, scale, v2, type Frame, type Vec3 } from "@/core/geometry/vec";
import { directionAt } from "@/core/outline/meet";
import { veeRuns } from "@/core/outline/vee";
import { endOf, startOf, type Outline, type Segment } from "@/core/outline";
import type { FaceRole, PlacedBody } from "@/core/engine/kernel";
import { edgesInOrder, faceOf, solidOf } from "./solids";
import { scope, type OC } from "./oc";
import { facesOf, ShapeMap } from "./topology";
import { COINCIDENT, CONTACT } from "@/core/geometry/tolerance";

interface Solid {
  shape: TopoDS_Shape;
  roles: FaceRole[];
}

/** A half profile (x the radius, y the height along the frame's normal) turned about the frame's normal at 0,0. */
export function turnedSolid(oc: OC, frame: Frame, outline: Outline, sweep: number, adds: boolean): Solid {
  return scope((own) => {
    // The profile stands in the plane of the frame's x and its normal.
    const upright: Frame = { origin: frame.origin, x: frame.x, y: frame.normal, normal: scale(frame.y, -1) };
    const face = own(faceOf(oc, upright, outline.outer, outline.holes, 0));
    const axis = own(new oc.gp_Ax1(own(pnt(oc, frame.origin)), own(dir(oc, frame.normal))));
    const whole = sweep >= 2 * Math.PI - COINCIDENT;
    const revol = own(
      whole ? new oc.BRepPrimAPI_MakeRevol(face, axis, false) : new oc.BRepPrimAPI_MakeRevol(face, axis, sweep, false),
    );
    const shape = outward(oc, revol.Shape());
    const roles = new ShapeMap<FaceRole>(oc);
    const segments = [...outline.outer, ...outline.holes.flat()];
    const high = Math.max(...segments.map((s) => Math.max(startOf(s).y, endOf(s).y))),
      low = Math.min(...segments.map((s) => Math.min(startOf(s).y, endOf(s).y)));
    edgesInOrder(oc, face, own).forEach((edge, i) => {
      const made = own(revol.Generated(edge));
      if (made.IsEmpty() || !segments[i]) return;
      const s = segments[i],
        a = startOf(s),
        b = endOf(s),
        level = s.kind === "line" && Math.abs(a.y - b.y) < COINCIDENT;
      roles.set(
        own(made.First()),
        level
          ? Math.abs(a.y - high) < COINCIDENT
            ? "top"
            : Math.abs(a.y - low) < COINCIDENT
              ? adds
                ? "bottom"
                : "floor"
              : adds
                ? "side"
                : "floor"
          : s.kind === "line" && Math.abs(a.x - b.x) > COINCIDENT
            ? "cone"
            : adds
              ? "side"
              : "wall",
      );
    });
    return { shape, roles: rolesOf(oc, shape, roles, adds ? "side" : "wall") };
  });
}

interface Wedge {
  shape: TopoDS_Shape;
  start: TopoDS_Shape;
  end: TopoDS_Shape;
}

/**
 * The groove of a pointed cutter along chains. What runs on smoothly is sewn from its wedges into one solid (a wedge
 * a line, a turned wedge an arc):
 * two cones that touch along a line are what the library's booleans stumble over, and a hundred small tools take
 * many times longer. A cone stands where the way turns sharply or ends.
 */
export function veePieces(oc: OC, frame: Frame, body: Extract<PlacedBody, { body: "vee" }>): Solid[] {
  const w = body.depth * Math.tan(body.halfAngle),
    d = body.depth;
  const { runs, cones } = veeRuns(body.chains, w);
  return [
    ...runs.map((r) => runSolid(oc, frame, r.segments, r.closed, w, d)),
    ...cones.map((at) =>
      solidOf(
        oc,
        { ...frame, origin: fromFrame(frame, at) },
        {
          body: "revolved",
          profile: [
            { r: w, z: 0 },
            { r: 0, z: d },
          ],
        },
        false,
      ),
    ),
  ];
}

function runSolid(oc: OC, frame: Frame, run: Segment[], closed: boolean, w: number, d: number): Solid {
  return scope((own) => {
    const wedges = run.map((s) => (s.kind === "line" ? lineWedge(oc, frame, s, w, d) : arcWedge(oc, frame, s, w, d)));
    wedges.forEach((q) => {
      own(q.start);
      own(q.end);
    });
    let shape: TopoDS_Shape;
    if (wedges.length === 1) shape = wedges[0].shape;
    else {
      const skin = wedges.flatMap((q, i) => {
        const inside = [...(closed || i > 0 ? [q.start] : []), ...(closed || i < wedges.length - 1 ? [q.end] : [])];
        return facesOf(oc, own(q.shape))
          .map((f) => own(f))
          .filter((f) => !inside.some((x) => x.IsSame(f)));
      });
      shape = sewn(oc, skin);
    }
    return { shape, roles: rolesOf(oc, shape, new ShapeMap<FaceRole>(oc), "wall") };
  });
}

/** The solid that faces enclose. The caller frees it. */
export function sewn(oc: OC, faces: TopoDS_Face[]): TopoDS_Shape {
  return scope((own) => {
    const sewing = own(new oc.BRepBuilderAPI_Sewing(CONTACT, true, true, true, false));
    for (const f of faces) sewing.Add(f);
    sewing.Perform(own(new oc.Message_ProgressRange()));
    const shell = own(oc.TopoDS.Shell(own(sewing.SewedShape())));
    return outward(oc, own(new oc.BRepBuilderAPI_MakeSolid(shell)).Shape());
  });
}

/** The solid with these flat sides, each given by its corners. The caller frees it. */
export const polyhedron = (oc: OC, sides: Vec3[][]): TopoDS_Shape =>
  scope((own) =>
    sewn(
      oc,
      sides.map((points) => own(polygonFace(oc, points))),
    ),
  );

function lineWedge(oc: OC, frame: Frame, s: Extract<Segment, { kind: "line" }>, w: number, d: number): Wedge {
  const u = directionAt(s, 0),
    side = v2(-u.y * w, u.x * w),
    a = s.from;
  const triangle = [
    fromFrame(frame, v2(a.x + side.x, a.y + side.y)),
    fromFrame(frame, v2(a.x - side.x, a.y - side.y)),
    fromFrame(frame, a, d),
  ];
  const p = fromFrame(frame, a),
    q = fromFrame(frame, s.to);
  return scope((own) => {
    const face = own(polygonFace(oc, triangle));
    const prism = own(
      new oc.BRepPrimAPI_MakePrism(face, own(new oc.gp_Vec(q.x - p.x, q.y - p.y, q.z - p.z)), false, true),
    );
    return { shape: outward(oc, prism.Shape()), start: prism.FirstShape(), end: prism.LastShape() };
  });
}

function arcWedge(oc: OC, frame: Frame, s: Extract<Segment, { kind: "arc" }>, w: number, d: number): Wedge {
  const from = s.sweep > 0 ? s.start : s.start + s.sweep,
    out = v2(Math.cos(from), Math.sin(from)),
    r = s.radius;
  const at = (x: number, depth: number) => fromFrame(frame, v2(s.centre.x + out.x * x, s.centre.y + out.y * x), depth);
  // A groove wider than the arc's own radius is cut off at the arc's axis: the rest of it lies on the other side.
  const inside = r - w >= -COINCIDENT ? [at(Math.max(0, r - w), 0)] : [at(0, 0), at(0, d * (1 - r / w))];
  return scope((own) => {
    const face = own(polygonFace(oc, [at(r + w, 0), ...inside, at(r, d)]));
    const axis = own(new oc.gp_Ax1(own(pnt(oc, fromFrame(frame, s.centre))), own(dir(oc, frame.normal))));
    const sweep = Math.abs(s.sweep),
      whole = sweep >= 2 * Math.PI - COINCIDENT;
    const revol = own(
      whole ? new oc.BRepPrimAPI_MakeRevol(face, axis, false) : new oc.BRepPrimAPI_MakeRevol(face, axis, sweep, false),
    );
    const [first, last] = [revol.FirstShape(), revol.LastShape()];
    return { shape: outward(oc, revol.Shape()), start: s.sweep > 0 ? first : last, end: s.sweep > 0 ? last : first };
  });
}

/** A flat face by its corners. The caller frees it. */
export function polygonFace(oc: OC, points: Vec3[]) {
  return scope((own) => {
    const maker = own(new oc.BRepBuilderAPI_MakeWire());
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length];
      maker.Add(own(own(new oc.BRepBuilderAPI_MakeEdge(own(pnt(oc, p)), own(pnt(oc, q)))).Edge()));
    });
    return own(new oc.BRepBuilderAPI_MakeFace(own(maker.Wire()), true)).Face();
  });
}
const pnt = (oc: OC, p: Vec3) => new oc.gp_Pnt(p.x, p.y, p.z);
const dir = (oc: OC, p: Vec3) => new oc.gp_Dir(p.x, p.y, p.z);

export function rolesOf(oc: OC, shape: TopoDS_Shape, roles: ShapeMap<FaceRole>, other: FaceRole): FaceRole[] {
  const faces = facesOf(oc, shape);
  const list = faces.map((f) => roles.get(f) ?? other);
  faces.forEach((f) => f.delete());
  return list;
}

/** A sweep against its face's own sense comes out inside out: turned over, so that it has a volume to cut with. */
export function outward(oc: OC, shape: TopoDS_Shape): TopoDS_Shape {
  return scope((own) => {
    const p = own(new oc.GProp_GProps());
    oc.BRepGProp.VolumeProperties(shape, p, false, false, false);
    if (p.Mass() >= 0) return shape;
    own(shape);
    return shape.Reversed();
  });
}
