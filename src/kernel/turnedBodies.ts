import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { scale, type Frame, type Vec3 } from "@/core/geometry/vec";
import { endOf, startOf, type Outline } from "@/core/outline";
import type { FaceRole } from "@/core/engine/kernel";
import { edgesInOrder, faceOf } from "./solids";
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
/** How near a ruled face keeps to its edges, mm. */
const FOLLOWED = 1e-7;

/** A face ruled between two edges: straight lines from each point of one to that of the other. */
export function ruledFace(
  oc: OC,
  a: TopoDS_Edge,
  b: TopoDS_Edge,
  own: <D extends { delete(): void }>(d: D) => D,
): TopoDS_Face {
  const through = own(new oc.BRepOffsetAPI_ThruSections(false, true, FOLLOWED));
  for (const edge of [a, b]) through.AddWire(own(own(new oc.BRepBuilderAPI_MakeWire(edge)).Wire()));
  through.CheckCompatibility(false);
  through.Build(own(new oc.Message_ProgressRange()));
  const [face] = facesOf(oc, own(through.Shape()));
  return own(face);
}

export const pnt = (oc: OC, p: Vec3) => new oc.gp_Pnt(p.x, p.y, p.z);
export const dir = (oc: OC, p: Vec3) => new oc.gp_Dir(p.x, p.y, p.z);

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
