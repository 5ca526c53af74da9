import type { TopoDS_Face, TopoDS_Shape, TopoDS_Wire } from "replicad-opencascadejs";
import { fromFrame, scale, type Frame, type Vec2 } from "@/core/geometry/vec";
import type { Loop } from "@/core/outline";
import type { FaceRole, PlacedBody } from "@/core/engine/kernel";
import { scope, type OC } from "./oc";
import { facesOf, ShapeMap } from "./topology";
import { COINCIDENT, ROUNDING } from "@/core/geometry/tolerance";

const point = (oc: OC, f: Frame, p: Vec2, depth: number) => {
  const q = fromFrame(f, p, depth);
  return new oc.gp_Pnt(q.x, q.y, q.z);
};

/** Exact wire of a loop on a frame, `depth` below its plane. The caller frees it. */
export function wireOf(oc: OC, frame: Frame, loop: Loop, depth: number): TopoDS_Wire {
  return scope((own) => {
    const maker = own(new oc.BRepBuilderAPI_MakeWire());
    for (const s of loop) {
      let edge;
      if (s.kind === "line")
        edge = own(
          new oc.BRepBuilderAPI_MakeEdge(own(point(oc, frame, s.from, depth)), own(point(oc, frame, s.to, depth))),
        );
      else {
        const normal = own(new oc.gp_Dir(frame.normal.x, frame.normal.y, frame.normal.z));
        const x = own(new oc.gp_Dir(frame.x.x, frame.x.y, frame.x.z));
        const axes = own(new oc.gp_Ax2(own(point(oc, frame, s.centre, depth)), normal, x));
        const circle = own(new oc.gp_Circ(axes, s.radius));
        if (Math.abs(s.sweep) >= 2 * Math.PI - ROUNDING) edge = own(new oc.BRepBuilderAPI_MakeEdge(circle));
        else {
          const [from, to] = s.sweep > 0 ? [s.start, s.start + s.sweep] : [s.start + s.sweep, s.start];
          edge = own(new oc.BRepBuilderAPI_MakeEdge(circle, from, to));
        }
      }
      // An arc is made the way its circle runs: walked the other way it has to say so, for the first edge turns the wire.
      const made = own(edge.Edge());
      const isBack = s.kind === "arc" && s.sweep < 0;
      maker.Add(isBack ? own(oc.TopoDS.Edge(own(made.Reversed()))) : made);
    }
    return maker.Wire();
  });
}

/** Flat face of an outline. Holes go in as reversed wires. The caller frees it. */
export function faceOf(oc: OC, frame: Frame, outer: Loop, holes: Loop[], depth: number): TopoDS_Face {
  return scope((own) => {
    const origin = own(point(oc, frame, { x: 0, y: 0 }, depth));
    const plane = own(new oc.gp_Pln(origin, own(new oc.gp_Dir(frame.normal.x, frame.normal.y, frame.normal.z))));
    const maker = own(new oc.BRepBuilderAPI_MakeFace(plane, own(wireOf(oc, frame, outer, depth)), true));
    for (const h of holes) {
      const wire = own(wireOf(oc, frame, h, depth));
      maker.Add(own(oc.TopoDS.Wire(own(wire.Reversed()))));
    }
    return maker.Face();
  });
}

/** Edges of a face in its own order. */
export function edgesInOrder(
  oc: OC,
  face: TopoDS_Shape,
  own: <D extends { delete(): void }>(d: D) => D,
): TopoDS_Shape[] {
  const ex = own(new oc.TopExp_Explorer(face, oc.TopAbs_ShapeEnum.TopAbs_EDGE, oc.TopAbs_ShapeEnum.TopAbs_SHAPE));
  const list: TopoDS_Shape[] = [];
  for (; ex.More(); ex.Next()) list.push(own(ex.Current()));
  return list;
}

/** One solid of a body at 0,0 of its frame. Which face is wall or floor comes from the sweep's own record. */
export function solidOf(
  oc: OC,
  frame: Frame,
  body: Extract<PlacedBody, { body: "prism" | "revolved" }>,
  adds: boolean,
): { shape: TopoDS_Shape; roles: FaceRole[] } {
  return scope((own) => {
    const roles = new ShapeMap<FaceRole>(oc);
    let shape: TopoDS_Shape;
    if (body.body === "prism") {
      const face = own(faceOf(oc, frame, body.outline.outer, body.outline.holes, body.from));
      const v = scale(frame.normal, body.from - body.to);
      const prism = own(new oc.BRepPrimAPI_MakePrism(face, own(new oc.gp_Vec(v.x, v.y, v.z)), false, true));
      shape = prism.Shape();
      roles.set(own(prism.FirstShape()), adds ? "bottom" : "top");
      roles.set(own(prism.LastShape()), adds ? "top" : "floor");
    } else {
      const p = body.profile;
      const corners: Vec2[] = [
        { x: 0, y: p[0].z },
        ...p.map((q) => ({ x: q.r, y: q.z })),
        { x: 0, y: p[p.length - 1].z },
      ];
      const clean = corners.filter(
        (c, i) => i === 0 || Math.hypot(c.x - corners[i - 1].x, c.y - corners[i - 1].y) > COINCIDENT,
      );
      // The profile stands in the plane through the axis: x outwards, depth along the axis.
      const maker = own(new oc.BRepBuilderAPI_MakeWire());
      const n = clean.length;
      const at = (c: Vec2) => own(point(oc, frame, { x: c.x, y: 0 }, c.y));
      for (let i = 0; i < n; i++)
        maker.Add(own(own(new oc.BRepBuilderAPI_MakeEdge(at(clean[i]), at(clean[(i + 1) % n]))).Edge()));
      const face = own(own(new oc.BRepBuilderAPI_MakeFace(own(maker.Wire()), true)).Face());
      const axis = own(
        new oc.gp_Ax1(
          own(point(oc, frame, { x: 0, y: 0 }, 0)),
          own(new oc.gp_Dir(frame.normal.x, frame.normal.y, frame.normal.z)),
        ),
      );
      const revol = own(new oc.BRepPrimAPI_MakeRevol(face, axis, false));
      shape = revol.Shape();
      edgesInOrder(oc, face, own).forEach((edge, i) => {
        const made = own(revol.Generated(edge));
        if (made.IsEmpty()) return;
        const a = clean[i],
          b = clean[(i + 1) % n];
        const flat = Math.abs(a.y - b.y) < COINCIDENT,
          upright = Math.abs(a.x - b.x) < COINCIDENT;
        roles.set(
          own(made.First()),
          flat ? (a.y < COINCIDENT && i === 0 ? "top" : "floor") : upright ? "wall" : "cone",
        );
      });
    }
    const faces = facesOf(oc, shape);
    const list = faces.map((f) => roles.get(f) ?? (adds ? "side" : "wall"));
    faces.forEach((f) => f.delete());
    return { shape, roles: list };
  });
}
