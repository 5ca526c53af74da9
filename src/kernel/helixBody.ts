import type { Geom_CylindricalSurface, TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import type { PlacedBody } from "@/core/engine/kernel";
import { fromFrame, v2, type Frame } from "@/core/geometry/vec";
import type { BaseSolid } from "./bodies";
import { scope, type OC } from "./oc";
import { solidOf } from "./solids";
import { facesOf } from "./topology";
import { polygonFace, ruledFace, sewn } from "./turnedBodies";

type Helix = Extract<PlacedBody, { body: "helix" }>;
type Own = Parameters<Parameters<typeof scope>[0]>[0];

/** Points a helix is followed by in space, mm. */
const FOLLOWED = 1e-7;

/**
 * The groove of a right-hand thread: a trapezium carried along a helix about the frame's normal, half a turn a piece,
 * and cut off square at its two levels. Its flanks are ruled between helices, which is what a screw surface is.
 */
export function helixSolid(oc: OC, frame: Frame, body: Helix): BaseSolid {
  return scope((own) => {
    const long = own(grooveOf(oc, frame, body));
    const wide = body.outer.radius + body.pitch;
    const slab = own(
      solidOf(
        oc,
        { ...frame, origin: fromFrame(frame, v2(0, 0), body.from) },
        {
          body: "revolved",
          profile: [
            { r: wide, z: 0 },
            { r: wide, z: body.to - body.from },
          ],
        },
        false,
      ).shape,
    );
    const common = own(new oc.BRepAlgoAPI_Common(long, slab, own(new oc.Message_ProgressRange())));
    const shape = common.Shape();
    const faces = facesOf(oc, shape);
    faces.forEach((f) => f.delete());
    return { shape, roles: faces.map(() => "wall" as const) };
  });
}

/** One corner line of the groove: a radius, and how far it lies from the groove's middle along the axis. */
interface Lead {
  surface: Geom_CylindricalSurface;
  radius: number;
  off: number;
}

function grooveOf(oc: OC, frame: Frame, body: Helix): TopoDS_Shape {
  return scope((own) => {
    const { outer, inner, pitch } = body;
    const [out, root] = [outer, inner].map(({ radius }) => cylinder(oc, frame, radius, own));
    const leads: Lead[] = [
      { surface: out, radius: outer.radius, off: outer.width / 2 },
      { surface: root, radius: inner.radius, off: inner.width / 2 },
      { surface: root, radius: inner.radius, off: -inner.width / 2 },
      { surface: out, radius: outer.radius, off: -outer.width / 2 },
    ];
    // It runs on past both levels, by more than its own width.
    const low = -body.to - pitch;
    const halves = Math.ceil((2 * (body.to - body.from + 2 * pitch)) / pitch);
    const faces: TopoDS_Face[] = [];
    for (let i = 0; i < halves; i++) {
      const edges = leads.map((l) => own(helixEdge(oc, l, i, low, pitch, own)));
      faces.push(ruledFace(oc, edges[0], edges[1], own), ruledFace(oc, edges[2], edges[3], own));
      faces.push(strip(oc, leads[1], edges[1], leads[2], edges[2], i, low, pitch, own));
      faces.push(strip(oc, leads[3], edges[3], leads[0], edges[0], i, low, pitch, own));
    }
    const end = (turns: number) =>
      own(
        polygonFace(
          oc,
          leads.map((l) => spot(frame, l, turns, low, pitch)),
        ),
      );
    return sewn(oc, [...faces, end(0), end(halves / 2)]);
  });
}

/** Where a lead stands after so many turns. */
function spot(frame: Frame, { radius, off }: Lead, turns: number, low: number, pitch: number) {
  const angle = turns * 2 * Math.PI;
  return fromFrame(frame, v2(radius * Math.cos(angle), radius * Math.sin(angle)), -(low + turns * pitch + off));
}

function cylinder(oc: OC, { origin, normal, x }: Frame, radius: number, own: Own): Geom_CylindricalSurface {
  const at = own(new oc.gp_Pnt(origin.x, origin.y, origin.z));
  const along = own(new oc.gp_Dir(normal.x, normal.y, normal.z));
  return own(new oc.Geom_CylindricalSurface(own(new oc.gp_Ax3(at, along, own(new oc.gp_Dir(x.x, x.y, x.z)))), radius));
}

/** A line on an unrolled cylinder, from one point of it to another: angle and height. */
function edgeBetween(
  oc: OC,
  surface: Geom_CylindricalSurface,
  from: [number, number],
  to: [number, number],
  own: Own,
): TopoDS_Edge {
  const [u, v] = [to[0] - from[0], to[1] - from[1]];
  const line = own(new oc.Geom2d_Line(own(new oc.gp_Pnt2d(from[0], from[1])), own(new oc.gp_Dir2d(u, v))));
  const edge = own(new oc.BRepBuilderAPI_MakeEdge(line, surface, 0, Math.hypot(u, v))).Edge();
  oc.BRepLib.BuildCurve3d(edge, FOLLOWED, oc.GeomAbs_Shape.GeomAbs_C1, 14, 200);
  return edge;
}

const heightOf = (lead: Lead, half: number, low: number, pitch: number) => low + (half * pitch) / 2 + lead.off;

const helixEdge = (oc: OC, lead: Lead, half: number, low: number, pitch: number, own: Own): TopoDS_Edge =>
  edgeBetween(
    oc,
    lead.surface,
    [half * Math.PI, heightOf(lead, half, low, pitch)],
    [(half + 1) * Math.PI, heightOf(lead, half + 1, low, pitch)],
    own,
  );

/** The piece of a cylinder between two helices on it. */
function strip(
  oc: OC,
  a: Lead,
  along: TopoDS_Edge,
  b: Lead,
  back: TopoDS_Edge,
  half: number,
  low: number,
  pitch: number,
  own: Own,
): TopoDS_Face {
  const across = (at: number): TopoDS_Edge =>
    own(
      edgeBetween(
        oc,
        a.surface,
        [at * Math.PI, heightOf(a, at, low, pitch)],
        [at * Math.PI, heightOf(b, at, low, pitch)],
        own,
      ),
    );
  const maker = own(new oc.BRepBuilderAPI_MakeWire());
  for (const edge of [along, across(half + 1), back, across(half)]) maker.Add(edge);
  const face = own(new oc.BRepBuilderAPI_MakeFace(a.surface, own(maker.Wire()), true));
  return own(face.Face());
}
