import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import type { FaceRole, PlacedBody } from "@/core/engine/kernel";
import { fromFrame, v2, type Frame, type Vec2, type Vec3 } from "@/core/geometry/vec";
import { COINCIDENT } from "@/core/geometry/tolerance";
import type { Arc } from "@/core/outline";
import { veeRuns } from "@/core/outline/vee";
import {
  veeCells,
  type ConeEdge,
  type Corner,
  type FlatEdge,
  type VeeCells,
  type VeeRun,
  type VeeWall,
} from "@/core/outline/veeCells";
import type { BaseSolid } from "./bodies";
import { scope, type OC } from "./oc";
import { faceOf, solidOf } from "./solids";
import { dir, outward, pnt, polygonFace, rolesOf, sewn } from "./turnedBodies";
import { ShapeMap } from "./topology";

type Own = Parameters<Parameters<typeof scope>[0]>[0];

/** Points a fitted edge is followed by in space, mm. */
const FOLLOWED = 1e-8;

/**
 * The groove of a pointed cutter along chains. What runs on without lapping over itself is sewn from its walls into one
 * solid: cones that touch along a line are what the library's booleans stumble over, and a hundred small tools take
 * many times longer. A cone stands where the way turns sharply and no walls can meet.
 */
export function veePieces(oc: OC, frame: Frame, body: Extract<PlacedBody, { body: "vee" }>): BaseSolid[] {
  const d = body.depth;
  const w = d * Math.tan(body.halfAngle);
  const { runs, cones } = veeRuns(body.chains, w);
  const profile = [
    { r: w, z: 0 },
    { r: 0, z: d },
  ];
  return [
    ...runs.map((r) => runSolid(oc, frame, r, w, d)),
    ...cones.map((at) => solidOf(oc, { ...frame, origin: fromFrame(frame, at) }, { body: "revolved", profile }, false)),
  ];
}

function runSolid(oc: OC, frame: Frame, run: VeeRun, w: number, d: number): BaseSolid {
  const cells = veeCells(run, w);
  const [alone] = run.elements;
  const wedge = () => {
    if (alone.kind === "line") throw new Error("a groove of one line has walls");
    return arcWedge(oc, frame, alone, w, d);
  };
  const shape = "element" in cells ? wedge() : cellSolid(oc, frame, cells, { w, d });
  return { shape, roles: rolesOf(oc, shape, new ShapeMap<FaceRole>(oc), "wall") };
}

/** A groove's size: its half width on top and its depth. */
interface Size {
  w: number;
  d: number;
}
const depthAt = ({ w, d }: Size, out: number) => d * (1 - out / w);

/** The solid between a groove's walls, its lid and its flat ends. */
function cellSolid(oc: OC, frame: Frame, cells: VeeCells, size: Size): TopoDS_Shape {
  return scope((own) => {
    const walls = cells.walls.map((q) => own(wallFace(oc, frame, q, size)));
    const ends = cells.ends.map((e) =>
      own(
        polygonFace(
          oc,
          e.map((c) => fromFrame(frame, c.at, depthAt(size, c.out))),
        ),
      ),
    );
    const lid = own(faceOf(oc, frame, cells.lid.outer, cells.lid.holes, 0));
    return sewn(oc, [...walls, ...ends, lid]);
  });
}

function wallFace(oc: OC, frame: Frame, wall: VeeWall, size: Size): TopoDS_Face {
  switch (wall.wall) {
    case "flat":
      return flatFace(oc, frame, wall.edges, size);
    case "cone":
      return coneFace(oc, frame, wall, size);
    case "turned": {
      const { centre, from, sweep, profile } = wall;
      const along = v2(Math.cos(from), Math.sin(from));
      const [low, high] = profile.map(({ radius, out }) =>
        fromFrame(frame, v2(centre.x + along.x * radius, centre.y + along.y * radius), depthAt(size, out)),
      );
      return turnedFace(oc, frame, centre, [low, high], sweep);
    }
  }
}

function flatFace(oc: OC, frame: Frame, edges: FlatEdge[], size: Size): TopoDS_Face {
  return scope((own) => {
    const maker = own(new oc.BRepBuilderAPI_MakeWire());
    for (const edge of edges) {
      const poles = edge.map((c: Corner) => own(pnt(oc, fromFrame(frame, c.at, depthAt(size, c.out)))));
      if (poles.length === 2) maker.Add(own(own(new oc.BRepBuilderAPI_MakeEdge(poles[0], poles[1])).Edge()));
      else {
        const list = own(new oc.NCollection_Array1_gp_Pnt(1, poles.length));
        poles.forEach((p, i) => list.SetValue(i + 1, p));
        const curve = own(new oc.Geom_BezierCurve(list));
        maker.Add(own(own(new oc.BRepBuilderAPI_MakeEdge(curve)).Edge()));
      }
    }
    return own(new oc.BRepBuilderAPI_MakeFace(own(maker.Wire()), true)).Face();
  });
}

/** Part of a cone, by edges in its own terms: the angle about its axis and the way along it. */
function coneFace(oc: OC, frame: Frame, wall: Extract<VeeWall, { wall: "cone" }>, size: Size): TopoDS_Face {
  const lean = Math.atan2(size.w, size.d);
  return scope((own) => {
    const at = own(pnt(oc, fromFrame(frame, wall.centre, size.d)));
    const axes = own(new oc.gp_Ax3(at, own(dir(oc, frame.normal)), own(dir(oc, frame.x))));
    const surface = own(new oc.Geom_ConicalSurface(axes, wall.isInner ? -lean : lean, wall.radius));
    const along = (out: number) => out / Math.sin(lean);
    const maker = own(new oc.BRepBuilderAPI_MakeWire());
    for (const edge of wall.edges) maker.Add(own(coneEdge(oc, surface, edge, along, own)));
    return own(new oc.BRepBuilderAPI_MakeFace(surface, own(maker.Wire()), true)).Face();
  });
}

function coneEdge(
  oc: OC,
  surface: InstanceType<OC["Geom_ConicalSurface"]>,
  edge: ConeEdge,
  along: (out: number) => number,
  own: Own,
): TopoDS_Edge {
  const poles = edge.map((p) => own(new oc.gp_Pnt2d(p.angle, along(p.out))));
  const [first, last] = [edge[0], edge[edge.length - 1]];
  const straight = () => {
    const way = v2(last.angle - first.angle, along(last.out) - along(first.out));
    const line = own(new oc.Geom2d_Line(poles[0], own(new oc.gp_Dir2d(way.x, way.y))));
    return own(new oc.BRepBuilderAPI_MakeEdge(line, surface, 0, Math.hypot(way.x, way.y))).Edge();
  };
  const curved = () => {
    const list = own(new oc.NCollection_Array1_gp_Pnt2d(1, poles.length));
    poles.forEach((p, i) => list.SetValue(i + 1, p));
    return own(new oc.BRepBuilderAPI_MakeEdge(own(new oc.Geom2d_BezierCurve(list)), surface)).Edge();
  };
  const made = poles.length === 2 ? straight() : curved();
  oc.BRepLib.BuildCurve3d(made, FOLLOWED, oc.GeomAbs_Shape.GeomAbs_C1, 14, 200);
  return made;
}

/** A straight line turned about the frame's direction through a point. The caller frees the face. */
function turnedFace(oc: OC, frame: Frame, centre: Vec2, [from, to]: Vec3[], sweep: number): TopoDS_Face {
  return scope((own) => {
    const edge = own(own(new oc.BRepBuilderAPI_MakeEdge(own(pnt(oc, from)), own(pnt(oc, to)))).Edge());
    const axis = own(new oc.gp_Ax1(own(pnt(oc, fromFrame(frame, centre))), own(dir(oc, frame.normal))));
    const whole = sweep >= 2 * Math.PI - COINCIDENT;
    const revol = own(
      whole ? new oc.BRepPrimAPI_MakeRevol(edge, axis, false) : new oc.BRepPrimAPI_MakeRevol(edge, axis, sweep, false),
    );
    return oc.TopoDS.Face(own(revol.Shape()));
  });
}

/** The groove of one arc, flat at both ends, cut off at the arc's axis: what reaches past it lies on its other side. */
function arcWedge(oc: OC, frame: Frame, s: Arc, w: number, d: number): TopoDS_Shape {
  const from = s.sweep > 0 ? s.start : s.start + s.sweep;
  const out = v2(Math.cos(from), Math.sin(from));
  const r = s.radius;
  const at = (x: number, depth: number) => fromFrame(frame, v2(s.centre.x + out.x * x, s.centre.y + out.y * x), depth);
  const inside = r - w >= -COINCIDENT ? [at(Math.max(0, r - w), 0)] : [at(0, 0), at(0, d * (1 - r / w))];
  return scope((own) => {
    const face = own(polygonFace(oc, [at(r + w, 0), ...inside, at(r, d)]));
    const axis = own(new oc.gp_Ax1(own(pnt(oc, fromFrame(frame, s.centre))), own(dir(oc, frame.normal))));
    const sweep = Math.abs(s.sweep);
    const whole = sweep >= 2 * Math.PI - COINCIDENT;
    const revol = own(
      whole ? new oc.BRepPrimAPI_MakeRevol(face, axis, false) : new oc.BRepPrimAPI_MakeRevol(face, axis, sweep, false),
    );
    return outward(oc, revol.Shape());
  });
}
