import type { TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import type { FaceRole, PlacedBody } from "@/core/engine/kernel";
import { cross, fromFrame, scale, add, type Frame, type Vec3 } from "@/core/geometry/vec";
import { circle, startOf, type Segment } from "@/core/outline";
import { directionAt } from "@/core/outline/meet";
import type { BaseSolid } from "./bodies";
import { scope, type OC } from "./oc";
import { faceOf } from "./solids";
import { facesOf, ShapeMap } from "./topology";
import { outward, rolesOf, sewn } from "./turnedBodies";

type Tube = Extract<PlacedBody, { body: "tube" }>;
interface Piece {
  shape: TopoDS_Shape;
  start: TopoDS_Shape;
  end: TopoDS_Shape;
}

/** A round or ring section carried along lines and tangent arcs: cylinders and tori, sewn where they run on. */
export function tubeSolid(oc: OC, frame: Frame, body: Tube, adds: boolean): BaseSolid {
  return scope((own) => {
    const pieces = body.chain.map((s) => pieceOf(oc, frame, s, body));
    pieces.forEach((p) => {
      own(p.start);
      own(p.end);
    });
    const only = pieces.length === 1;
    const skin = only
      ? []
      : pieces.flatMap((p, i) => {
          const inside = [...(i > 0 ? [p.start] : []), ...(i < pieces.length - 1 ? [p.end] : [])];
          return facesOf(oc, own(p.shape))
            .map((f) => own(f))
            .filter((f) => !inside.some((x) => x.IsSame(f)));
        });
    const shape = only ? pieces[0].shape : sewn(oc, skin as TopoDS_Face[]);
    const other: FaceRole = adds ? "side" : "wall";
    return { shape, roles: rolesOf(oc, shape, new ShapeMap<FaceRole>(oc), other) };
  });
}

/** The section across the way at the start of a segment. */
function sectionAt(frame: Frame, s: Segment): Frame {
  const d = directionAt(s, 0);
  const along: Vec3 = add(scale(frame.x, d.x), scale(frame.y, d.y));
  return { origin: fromFrame(frame, startOf(s)), normal: along, x: frame.normal, y: cross(along, frame.normal) };
}

function pieceOf(oc: OC, frame: Frame, s: Segment, { outer, inner }: Tube): Piece {
  return scope((own) => {
    const section = sectionAt(frame, s);
    const face = own(faceOf(oc, section, circle(outer), inner > 0 ? [circle(inner)] : [], 0));
    if (s.kind === "line") {
      const way = scale(section.normal, Math.hypot(s.to.x - s.from.x, s.to.y - s.from.y));
      const prism = own(new oc.BRepPrimAPI_MakePrism(face, own(new oc.gp_Vec(way.x, way.y, way.z)), false, true));
      return { shape: outward(oc, prism.Shape()), start: prism.FirstShape(), end: prism.LastShape() };
    }
    const centre = fromFrame(frame, s.centre);
    const n = s.sweep > 0 ? frame.normal : scale(frame.normal, -1);
    const axis = own(
      new oc.gp_Ax1(own(new oc.gp_Pnt(centre.x, centre.y, centre.z)), own(new oc.gp_Dir(n.x, n.y, n.z))),
    );
    const revol = own(new oc.BRepPrimAPI_MakeRevol(face, axis, Math.abs(s.sweep), false));
    return { shape: outward(oc, revol.Shape()), start: revol.FirstShape(), end: revol.LastShape() };
  });
}
