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
  /** Where each edge begins. */
  starts: Vec2[];
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
    const ring: Ring = { edges: [first.edge], starts: [first.points[0]], points: [...first.points], sag: first.sag };
    while (!near(ring.points[0], ring.points[ring.points.length - 1])) {
      const i = left.findIndex((e) => near(e.points[0], ring.points[ring.points.length - 1]));
      if (i < 0) return null;
      const [next] = left.splice(i, 1);
      ring.edges.push(next.edge);
      ring.starts.push(next.points[0]);
      ring.sag = Math.max(ring.sag, next.sag);
      ring.points.push(...next.points.slice(1));
    }
    ring.points.pop();
    rings.push(ring);
  }
  return rings;
}

/**
 * What a joined tool opens: the way round it in the flat it starts on, the islands it leaves there, the ways round where
 * it comes out, and the faces that are its walls.
 */
interface Mouth {
  outer: Ring;
  islands: Ring[];
  ends: Ring[];
  walls: { face: TopoDS_Face; tag: FaceTag | null }[];
}

/** The closed ways round faces that lie side by side. */
function borderOfFaces(oc: OC, own: Own, faces: TopoDS_Face[], sight: Sight): Ring[] | null {
  const raw = edgesOf(oc, faces);
  raw.forEach((e) => e.uses.forEach((u) => own(u.edge)));
  const single = raw.filter((e) => e.uses.length === 1);
  return ringsOf(
    oc,
    single.map((e) => e.edge),
    sight,
  );
}

/** Whether rings touch themselves or one another at a point: which way they go on there is anybody's guess. */
function isPinched(rings: Ring[]): boolean {
  const starts = rings.flatMap((r) => r.starts);
  return starts.some((p, i) => starts.slice(i + 1).some((q) => near(p, q)));
}

/** @param levels the height it starts at, and the one it comes out at, along the sight */
function mouthOf(
  library: Library,
  own: Own,
  tool: Tagged,
  sight: Sight,
  levels: { top: number; out: number | null },
): Mouth | null {
  const { oc } = library;
  const lids: TopoDS_Face[] = [];
  const exits: TopoDS_Face[] = [];
  const walls: Mouth["walls"] = [];
  facesOf(oc, tool.shape).forEach((f, i) => {
    own(f);
    const flat = library.faces.flat(f);
    const isAt = (height: number | null, sign: 1 | -1) =>
      flat !== null &&
      height !== null &&
      sign * dot(flat.normal, sight.normal) > PARALLEL &&
      Math.abs(dot(flat.point, sight.normal) - height) < 1e-7;
    if (isAt(levels.top, 1)) lids.push(f);
    else if (isAt(levels.out, -1)) exits.push(f);
    else walls.push({ face: f, tag: tool.tags[i] });
  });
  const rings = borderOfFaces(oc, own, lids, sight);
  const ends = borderOfFaces(oc, own, exits, sight);
  if (!rings?.length || !ends) return null;
  if (isPinched(rings) || isPinched(ends)) return null;
  const outers = rings.filter((r) => area(r.points) > 0);
  const islands = rings.filter((r) => r !== outers[0]);
  return outers.length === 1 ? { outer: outers[0], islands, ends, walls } : null;
}

const silhouetteOf = (ring: Ring): Silhouette => silhouette(ring.points, ring.sag + COINCIDENT);

/** The wire of a ring, running the other way: a hole in the flat, or the border of an island. */
function wireOf(oc: OC, own: Own, ring: Ring): TopoDS_Shape {
  const maker = own(new oc.BRepBuilderAPI_MakeWire());
  for (const e of [...ring.edges].reverse()) maker.Add(own(oc.TopoDS.Edge(own(e.Reversed()))));
  return own(maker.Wire());
}

/** Where a joined tool lies: its depth from the plane it starts on, and the height it comes out at, if it does. */
interface Reach {
  depth: number;
  out: number | null;
}

/**
 * Puts a tool of several pieces in without a boolean: one way round in the flat it starts on, with what it leaves
 * standing inside, and the ways round where it comes out.
 * @returns null wherever it meets anything else
 */
export function putJoined(library: Library, host: Host, step: BodyStep, tool: Tagged, reach: Reach): Inserted | null {
  const { oc } = library;
  const around = surroundingsOf(host, step.frame, library.faces);
  const { sight } = around;
  const top = dot(step.frame.origin, sight.normal);
  return scope((own) => {
    const mouth = mouthOf(library, own, tool, sight, { top, out: reach.out });
    const removed = volumeOf(oc, tool.shape);
    if (!mouth || !(removed > 0)) return null;
    const outline = silhouetteOf(mouth.outer);
    const lies = liesOf(around, (face) => regionAt(oc, host, around, face), outline, top, top - reach.depth);
    // What comes out and leaves something standing inside parts the piece.
    const isParted = mouth.ends.length > 0 && (mouth.islands.length > 0 || mouth.ends.some((r) => area(r.points) > 0));
    if (!lies || isParted || (lies.exit !== null) !== mouth.ends.length > 0) return null;
    const holes = new Map<number, Ring[]>([[lies.entry, [mouth.outer]]]);
    if (lies.exit) holes.set(lies.exit.face, [...(holes.get(lies.exit.face) ?? []), ...mouth.ends]);
    const normal = own(new oc.gp_Dir(sight.normal.x, sight.normal.y, sight.normal.z));
    const { origin } = step.frame;
    const plane = own(new oc.gp_Pln(own(new oc.gp_Pnt(origin.x, origin.y, origin.z)), normal));
    const islands = mouth.islands.map((r) => {
      const wire = own(oc.TopoDS.Wire(wireOf(oc, own, r)));
      return own(new oc.BRepBuilderAPI_MakeFace(plane, wire, true)).Face();
    });
    const faces = host.faces.map((f, i) => {
      const rings = holes.get(i);
      if (!rings) return f;
      const maker = own(new oc.BRepBuilderAPI_MakeFace(f));
      for (const ring of rings) maker.Add(own(oc.TopoDS.Wire(wireOf(oc, own, ring))));
      return maker.Face();
    });
    faces.push(...islands, ...mouth.walls.map((w) => oc.TopoDS.Face(own(w.face.Reversed()))));
    const tags = [...host.tags, ...islands.map(() => host.tags[lies.entry]), ...mouth.walls.map((w) => w.tag)];
    const mouthRegion = [outline, ...mouth.islands.map(silhouetteOf)].map(borderOf);
    const opened = {
      borders: new Map([...holes].map(([face, rings]) => [face, rings.map(silhouetteOf)])),
      mouths: faces.slice(host.faces.length).map(() => mouthRegion),
      low: top - reach.depth,
      high: top,
    };
    return { faces, tags, around: carried(library.faces, host, around, faces, opened), removed };
  });
}

/** Several puts one after another on what came of the one before; null where one will not go. */
export function inTurn(host: Host, puts: ((at: Host) => Inserted | null)[]): Inserted | null {
  let at: Host = host;
  let removed = 0;
  const passing: TopoDS_Face[] = [];
  const kept = new Set(host.faces);
  for (const put of puts) {
    const next = put(at);
    if (!next) {
      for (const f of new Set([...passing, ...at.faces])) if (!kept.has(f)) f.delete();
      return null;
    }
    passing.push(...at.faces.filter((f) => !next.faces.includes(f) && !kept.has(f)));
    removed += next.removed;
    at = next;
  }
  for (const f of passing) f.delete();
  return { ...at, removed };
}
