import type { Geom_CylindricalSurface, TopoDS_Edge, TopoDS_Face, TopoDS_Wire } from "replicad-opencascadejs";
import type { FaceRole, PlacedBody } from "@/core/engine/kernel";
import { COINCIDENT } from "@/core/geometry/tolerance";
import { fromFrame, type Frame, type Vec3 } from "@/core/geometry/vec";
import type { Loop, Outline, Segment } from "@/core/outline";
import type { BaseSolid } from "./bodies";
import { scope, type OC } from "./oc";
import { facesOf } from "./topology";
import { outward } from "./turnedBodies";

type Wrapped = Extract<PlacedBody, { body: "wrapped" }>;
type Own = Parameters<Parameters<typeof scope>[0]>[0];

/** Points a wrapped edge is followed by in space, mm: of those that are no lines or circles there. */
const FOLLOWED = 1e-7;

/**
 * An outline laid round a cylinder, between two depths. On the unrolled cylinder its lines stay lines and its arcs
 * become parts of ellipses, so that it is exact at its radius; its walls stand radially.
 */
export function wrappedSolid(oc: OC, frame: Frame, body: Wrapped, outline: Outline, adds: boolean): BaseSolid {
  return scope((own) => {
    const inner = body.radius - Math.max(body.from, body.to);
    const height = Math.abs(body.from - body.to);
    const surface = own(cylinder(oc, frame, body.radius, inner, own));
    const face = own(faceOn(oc, surface, outline, body.radius, own));
    const maker = own(new oc.BRepOffsetAPI_MakeThickSolid());
    maker.MakeThickSolidBySimple(face, height);
    const shape = outward(oc, maker.Shape());
    return { shape, roles: rolesOf(oc, shape, frame, body, adds) };
  });
}

function cylinder(oc: OC, frame: Frame, radius: number, at: number, own: Own): Geom_CylindricalSurface {
  const axis = fromFrame(frame, { x: 0, y: 0 }, radius);
  const [y, n] = [frame.y, frame.normal];
  const origin = own(new oc.gp_Pnt(axis.x, axis.y, axis.z));
  const along = own(new oc.gp_Dir(y.x, y.y, y.z));
  const axes = own(new oc.gp_Ax3(origin, along, own(new oc.gp_Dir(n.x, n.y, n.z))));
  return new oc.Geom_CylindricalSurface(axes, at);
}

function faceOn(
  oc: OC,
  surface: Geom_CylindricalSurface,
  { outer, holes }: Outline,
  radius: number,
  own: Own,
): TopoDS_Face {
  const maker = own(new oc.BRepBuilderAPI_MakeFace(surface, own(wireOn(oc, surface, outer, radius, own)), true));
  for (const hole of holes) {
    const wire = own(wireOn(oc, surface, hole, radius, own));
    maker.Add(own(oc.TopoDS.Wire(own(wire.Reversed()))));
  }
  return maker.Face();
}

function wireOn(oc: OC, surface: Geom_CylindricalSurface, loop: Loop, radius: number, own: Own): TopoDS_Wire {
  const maker = own(new oc.BRepBuilderAPI_MakeWire());
  for (const s of loop.flatMap(halved)) maker.Add(own(edgeOn(oc, surface, s, radius, own)));
  const wire = maker.Wire();
  oc.BRepLib.BuildCurves3d(wire, FOLLOWED, oc.GeomAbs_Shape.GeomAbs_C1, 14, 200);
  return wire;
}

/** An edge that closes on itself is followed worse than its two halves. */
export function halved(s: Segment): Segment[] {
  if (s.kind !== "arc" || Math.abs(s.sweep) < 2 * Math.PI - COINCIDENT) return [s];
  const sweep = s.sweep / 2;
  return [
    { ...s, sweep },
    { ...s, start: s.start + sweep, sweep },
  ];
}

function edgeOn(oc: OC, surface: Geom_CylindricalSurface, s: Segment, radius: number, own: Own): TopoDS_Edge {
  if (s.kind === "line") {
    const way = { x: (s.to.x - s.from.x) / radius, y: s.to.y - s.from.y };
    const start = own(new oc.gp_Pnt2d(s.from.x / radius, s.from.y));
    const line = own(new oc.Geom2d_Line(start, own(new oc.gp_Dir2d(way.x, way.y))));
    return own(new oc.BRepBuilderAPI_MakeEdge(line, surface, 0, Math.hypot(way.x, way.y))).Edge();
  }
  // x / radius squeezes a circle to an ellipse (or stretches it, round a thin shaft): its long axis has to come first.
  const [wide, high] = [s.radius / radius, s.radius];
  const centre = own(new oc.gp_Pnt2d(s.centre.x / radius, s.centre.y));
  const across = wide > high;
  const axes = across
    ? own(new oc.gp_Ax22d(centre, own(new oc.gp_Dir2d(1, 0)), own(new oc.gp_Dir2d(0, 1))))
    : own(new oc.gp_Ax22d(centre, own(new oc.gp_Dir2d(0, 1)), own(new oc.gp_Dir2d(-1, 0))));
  const ellipse = own(new oc.Geom2d_Ellipse(axes, Math.max(wide, high), Math.min(wide, high)));
  const turn = across ? 0 : Math.PI / 2;
  const [from, to] = [Math.min(s.start, s.start + s.sweep), Math.max(s.start, s.start + s.sweep)];
  return own(new oc.BRepBuilderAPI_MakeEdge(ellipse, surface, from - turn, to - turn)).Edge();
}

/** The rounds it begins and ends at, by how far they are from the axis; the rest are walls. */
function rolesOf(oc: OC, shape: BaseSolid["shape"], frame: Frame, body: Wrapped, adds: boolean): FaceRole[] {
  const axis = fromFrame(frame, { x: 0, y: 0 }, body.radius);
  const inner = body.radius - Math.max(body.from, body.to);
  return facesOf(oc, shape).map((f) =>
    scope((own): FaceRole => {
      const surface = own(new oc.BRepAdaptor_Surface(own(f), true));
      if (surface.GetType() !== oc.GeomAbs_SurfaceType.GeomAbs_Cylinder) return adds ? "side" : "wall";
      const found = own(surface.Cylinder());
      const where = own(found.Location());
      const here: Vec3 = { x: where.X() - axis.x, y: where.Y() - axis.y, z: where.Z() - axis.z };
      const along = here.x * frame.y.x + here.y * frame.y.y + here.z * frame.y.z;
      const off = Math.hypot(here.x, here.y, here.z) ** 2 - along ** 2;
      if (off > COINCIDENT) return adds ? "side" : "wall";
      const isInner = Math.abs(found.Radius() - inner) < COINCIDENT;
      if (adds) return isInner ? "bottom" : "top";
      return isInner ? "floor" : "top";
    }),
  );
}
