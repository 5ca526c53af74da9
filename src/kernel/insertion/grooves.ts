import type { TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { dot, type Vec2 } from "@/core/geometry/vec";
import type { BodyStep, FaceTag } from "@/core/engine/kernel";
import type { Tagged } from "../bodies";
import type { Library } from "../library";
import { scope, type OC } from "../oc";
import { edgesOf, facesOf, samples, volumeOf } from "../topology";
import { carried, liesOf, regionAt, surroundingsOf, type Host, type Inserted } from "./insert";
import { silhouette, type Silhouette } from "./silhouette";
import { borderOf, flatten, sagOf, type Sight } from "./surroundings";
import { COINCIDENT, MEET, PARALLEL } from "@/core/geometry/tolerance";

type Own = <D extends { delete(): void }>(d: D) => D;

/** A closed way of edges, as the mouth has it on its left. */
interface Ring {
  edges: TopoDS_Edge[];
  points: Vec2[];
  /** How far its edges leave their chords. */
  sag: number;
}
const near = (a: Vec2, b: Vec2) => Math.hypot(a.x - b.x, a.y - b.y) < MEET;
const area = (p: Vec2[]) =>
  p.reduce((sum, a, i) => sum + a.x * p[(i + 1) % p.length].y - a.y * p[(i + 1) % p.length].x, 0) / 2;

/** Edges put end to end into rings, each running as its face has it; null where they do not close. */
function ringsOf(oc: OC, edges: TopoDS_Edge[], sight: Sight): Ring[] | null {
  const reversedName = oc.TopAbs_Orientation.TopAbs_REVERSED as unknown;
  const left = edges.map((edge) => {
    const points = samples(oc, edge).map((p) => flatten(sight, p));
    const sag = sagOf(points);
    return { edge, sag, points: (edge.Orientation() as unknown) === reversedName ? points.reverse() : points };
  });
  const rings: Ring[] = [];
  while (left.length) {
    const first = left.shift()!;
    const ring: Ring = { edges: [first.edge], points: [...first.points], sag: first.sag };
    while (!near(ring.points[0], ring.points[ring.points.length - 1])) {
      const i = left.findIndex((e) => near(e.points[0], ring.points[ring.points.length - 1]));
      if (i < 0) return null;
      const [next] = left.splice(i, 1);
      ring.edges.push(next.edge);
      ring.sag = Math.max(ring.sag, next.sag);
      ring.points.push(...next.points.slice(1));
    }
    ring.points.pop();
    rings.push(ring);
  }
  return rings;
}

/** What a joined groove opens in its flat: the way round it, the islands it leaves, and the faces that are its walls. */
interface Mouth {
  outer: Ring;
  islands: Ring[];
  walls: { face: TopoDS_Face; tag: FaceTag | null }[];
}

function mouthOf(library: Library, own: Own, tool: Tagged, sight: Sight, top: number): Mouth | null {
  const { oc } = library;
  const lids: TopoDS_Face[] = [];
  const walls: Mouth["walls"] = [];
  facesOf(oc, tool.shape).forEach((f, i) => {
    own(f);
    const flat = library.faces.flat(f);
    const isLid =
      flat && dot(flat.normal, sight.normal) > PARALLEL && Math.abs(dot(flat.point, sight.normal) - top) < 1e-7;
    if (isLid) lids.push(f);
    else walls.push({ face: f, tag: tool.tags[i] });
  });
  const raw = edgesOf(oc, lids);
  raw.forEach((e) => e.uses.forEach((u) => own(u.edge)));
  const rings = ringsOf(
    oc,
    raw.filter((e) => e.uses.length === 1).map((e) => e.edge),
    sight,
  );
  if (!rings?.length) return null;
  const outers = rings.filter((r) => area(r.points) > 0);
  return outers.length === 1 ? { outer: outers[0], islands: rings.filter((r) => r !== outers[0]), walls } : null;
}

const silhouetteOf = (ring: Ring): Silhouette => silhouette(ring.points, ring.sag + COINCIDENT);

/** The wire of a ring, running the other way: a hole in the flat, or the border of an island. */
function wireOf(oc: OC, own: Own, ring: Ring): TopoDS_Shape {
  const maker = own(new oc.BRepBuilderAPI_MakeWire());
  for (const e of [...ring.edges].reverse()) maker.Add(own(oc.TopoDS.Edge(own(e.Reversed()))));
  return own(maker.Wire());
}

function putGroove(library: Library, host: Host, step: BodyStep, tool: Tagged): Inserted | null {
  const { oc } = library;
  const around = surroundingsOf(host, step.frame, library.faces);
  const { sight } = around;
  const top = dot(step.frame.origin, sight.normal);
  return scope((own) => {
    const mouth = mouthOf(library, own, tool, sight, top);
    const removed = volumeOf(oc, tool.shape);
    const depth = step.body.body === "vee" ? step.body.depth : 0;
    if (!mouth || !(removed > 0)) return null;
    const outline = silhouetteOf(mouth.outer);
    const lies = liesOf(around, (face) => regionAt(oc, host, around, face), outline, top, top - depth);
    if (!lies || lies.exit) return null;
    const flat = own(new oc.BRepBuilderAPI_MakeFace(host.faces[lies.entry]));
    flat.Add(own(oc.TopoDS.Wire(wireOf(oc, own, mouth.outer))));
    const normal = own(new oc.gp_Dir(sight.normal.x, sight.normal.y, sight.normal.z));
    const { origin } = step.frame;
    const plane = own(new oc.gp_Pln(own(new oc.gp_Pnt(origin.x, origin.y, origin.z)), normal));
    const islands = mouth.islands.map((r) => {
      const wire = own(oc.TopoDS.Wire(wireOf(oc, own, r)));
      return own(new oc.BRepBuilderAPI_MakeFace(plane, wire, true)).Face();
    });
    const faces = host.faces.map((f, i) => (i === lies.entry ? flat.Face() : f));
    faces.push(...islands, ...mouth.walls.map((w) => oc.TopoDS.Face(own(w.face.Reversed()))));
    const tags = [...host.tags, ...islands.map(() => host.tags[lies.entry]), ...mouth.walls.map((w) => w.tag)];
    const mouthRegion = [outline, ...mouth.islands.map(silhouetteOf)].map(borderOf);
    const opened = {
      borders: new Map([[lies.entry, [outline]]]),
      mouths: faces.slice(host.faces.length).map(() => mouthRegion),
      low: top - depth,
      high: top,
    };
    return { faces, tags, around: carried(library.faces, host, around, faces, opened), removed };
  });
}

/** Engraved grooves put in one by one, the largest first: what lies on another's island comes after it. */
export function insertGrooves(library: Library, host: Host, step: BodyStep): Inserted | null {
  const tools = library.grooves.toolsOf(step);
  const sized = tools.map((tool) => ({ tool, size: sizeOf(library, tool) }));
  sized.sort((a, b) => b.size - a.size);
  let at: Host = host;
  let removed = 0;
  const passing: TopoDS_Face[] = [];
  const kept = new Set(host.faces);
  for (const { tool } of sized) {
    const put = putGroove(library, at, step, tool);
    if (!put) {
      for (const f of new Set([...passing, ...at.faces])) if (!kept.has(f)) f.delete();
      return null;
    }
    passing.push(...at.faces.filter((f) => !put.faces.includes(f) && !kept.has(f)));
    removed += put.removed;
    at = put;
  }
  for (const f of passing) f.delete();
  return { ...at, removed };
}

function sizeOf(library: Library, tool: Tagged): number {
  const box = scope((own) => {
    const faces = facesOf(library.oc, tool.shape).map((f) => own(f));
    return faces.map((f) => library.faces.box(f));
  });
  const spread = (axis: "x" | "y" | "z") =>
    Math.max(...box.map((b) => b.max[axis])) - Math.min(...box.map((b) => b.min[axis]));
  return Math.hypot(spread("x"), spread("y"), spread("z"));
}
