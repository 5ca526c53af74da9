import type { TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import { dot, fromFrame, type Frame, type Vec2 } from "@/core/geometry/vec";
import { arcPoint, circle, moveLoop, type Loop } from "@/core/outline";
import { isPlain } from "@/core/engine/kernel";
import type { BodyStep, FaceTag, PlacedBody } from "@/core/engine/kernel";
import type { FaceCache } from "../faceCache";
import { scope, type OC } from "../oc";
import type { Library } from "../library";
import type { ToolFace } from "./tools";
import { insertLapping } from "./lapping";
import { allApart, apart2, silhouette, type Silhouette } from "./silhouette";
import {
  borderOf,
  flatten,
  heightsApart,
  keepsOut,
  levelWith,
  lieOf,
  obstacleOf,
  regionOf,
  sightAlong,
  isLevel,
  obstacleUnder,
  type Sight,
  type Obstacle,
  type Region,
  type Surroundings,
} from "./surroundings";
import { COINCIDENT, CONTACT, PARALLEL, ROUNDING } from "@/core/geometry/tolerance";

/** A state a cut may be put into: one shell, its faces (shared with the next state), what is known of them along each direction. */
export interface Host {
  faces: TopoDS_Face[];
  tags: (FaceTag | null)[];
  around: Map<string, Surroundings>;
}
export interface Inserted {
  faces: TopoDS_Face[];
  tags: (FaceTag | null)[];
  around: Map<string, Surroundings>;
  /** What the cut took. */
  removed: number;
}

type Own = <D extends { delete(): void }>(d: D) => D;

/** Steps of an arc's silhouette. */
const ARC_STEP = Math.PI / 32;

const keyOfNormal = (f: Frame) => [f.normal.x, f.normal.y, f.normal.z].map((c) => c.toFixed(9)).join(",");

/** The way round what a body takes at one place, seen along its frame's normal; null where it is not one simple way. */
export function loopOf(body: PlacedBody): { loop: Loop; depth: number } | null {
  if (body.body === "prism") {
    if (!isPlain(body)) return null;
    if (body.outline.holes.length || body.more?.length || Math.abs(body.from) > ROUNDING) return null;
    return { loop: body.outline.outer, depth: body.to };
  }
  if (body.body !== "revolved" || body.profile[0].z !== 0 || body.profile[0].r < COINCIDENT) return null;
  // An undercut is hidden from its mouth: left to the boolean.
  if (body.profile.some((p) => p.r > body.profile[0].r + ROUNDING)) return null;
  return { loop: circle(body.profile[0].r), depth: Math.max(...body.profile.map((p) => p.z)) };
}

export function silhouetteOf(loop: Loop, frame: Frame, sight: Sight): Silhouette {
  let sag = 0;
  const points = loop.flatMap((s): Vec2[] => {
    if (s.kind === "line") return [s.from];
    const n = Math.max(2, Math.ceil(Math.abs(s.sweep) / ARC_STEP));
    sag = Math.max(sag, s.radius * (1 - Math.cos(s.sweep / n / 2)));
    return Array.from({ length: n }, (_, i) => arcPoint(s, i / n));
  });
  return silhouette(
    points.map((p) => flatten(sight, fromFrame(frame, p))),
    sag + COINCIDENT,
  );
}

/** The body cut off at a depth: its part beyond is in the air. */
function cutOff(body: PlacedBody, depth: number): PlacedBody | null {
  if (body.body === "prism") return { ...body, to: depth };
  if (body.body !== "revolved") return null;
  const profile: { r: number; z: number }[] = [];
  for (const p of body.profile) {
    const before = profile[profile.length - 1];
    if (p.z < depth - COINCIDENT) profile.push(p);
    else {
      if (!before) return null;
      const t = (depth - before.z) / (p.z - before.z || 1);
      profile.push({ r: before.r + (p.r - before.r) * Math.min(1, t), z: depth });
      break;
    }
  }
  // A hole whose point only just comes through has a mouth too small to be sure of.
  return profile[profile.length - 1].r > 1e-3 ? { ...body, profile } : null;
}

export function surroundingsOf(host: Host, frame: Frame, cache: FaceCache): Surroundings {
  const key = keyOfNormal(frame);
  const known = host.around.get(key);
  if (known) return known;
  const sight = sightAlong(frame.normal);
  const made = { sight, obstacles: host.faces.map((f, i) => obstacleOf(cache, f, i, sight)), regions: new Map() };
  host.around.set(key, made);
  return made;
}

interface Lies {
  entry: number;
  exit: { face: number; depth: number } | null;
}

/** Where a copy goes in and comes out; null when it meets anything else. */
export function liesOf(
  around: Surroundings,
  region: (face: number) => Region,
  s: Silhouette,
  top: number,
  low: number,
): Lies | null {
  let entry = -1;
  let exit: Lies["exit"] = null;
  for (const o of around.obstacles) {
    if (heightsApart(o, low, top)) continue;
    if (!o.flat) {
      // What only touches the mouth's plane from above is none of this cut's matter.
      if (o.low < top - COINCIDENT && !keepsOut(o, s)) return null;
      continue;
    }
    const { face, up } = o.flat;
    if (apart2(o.box, s.box)) continue;
    const lie = lieOf(region(face), s);
    if (lie === "out") continue;
    if (lie === "across") return null;
    if (up && levelWith(o, top) && entry < 0) entry = face;
    else if (!up && !exit) exit = { face, depth: top - o.low };
    else return null;
  }
  if (entry < 0 || (exit && exit.depth < CONTACT)) return null;
  // A floor level with the face it comes out of is a way through; one just short of it leaves a skin for the boolean.
  return { entry, exit };
}

/** The region of a face, read once and kept with what stands round it. */
export function regionAt(oc: OC, host: Host, around: Surroundings, face: number): Region {
  const known = around.regions.get(face);
  if (known) return known;
  const made = regionOf(oc, host.faces[face], around.sight);
  around.regions.set(face, made);
  return made;
}

/**
 * Puts a cut into the flats it lies wholly inside, without a boolean: inner wires in the flats, walls and floor put on.
 * The faces of the host keep their places in the list; new ones come after them.
 * @returns null wherever the cut meets anything else, is not one simple way, or the host is not one shell
 */
export function insertCut(library: Library, host: Host, step: BodyStep): Inserted | null {
  const { oc, faces: cache } = library;
  const shape = loopOf(step.body);
  if (!shape || step.places.length > MOST_COPIES) return null;
  const around = surroundingsOf(host, step.frame, cache);
  const region = (face: number) => regionAt(oc, host, around, face);
  const top = dot(step.frame.origin, step.frame.normal);
  const copies = step.places.map((p) => silhouetteOf(moveLoop(shape.loop, p), step.frame, around.sight));
  const lies: Lies[] = [];
  for (const s of copies) {
    const lie = liesOf(around, region, s, top, top - shape.depth);
    if (!lie) return null;
    lies.push(lie);
    if ((lie.exit === null) !== (lies[0].exit === null)) return null;
    if (lie.exit && Math.abs(lie.exit.depth - lies[0].exit!.depth) > COINCIDENT) return null;
  }
  const depth = lies[0]?.exit?.depth;
  const body = depth === undefined ? step.body : cutOff(step.body, depth);
  if (!body || !lies.length) return null;
  const tool = { ...step, body };
  if (!(library.insertTools.volumeOf(tool) > 0)) return null;
  // Where it comes out it may be narrower than where it goes in: the flat there has only that border.
  const way = body.body === "revolved" ? circle(body.profile[body.profile.length - 1].r) : shape.loop;
  const ends =
    depth === undefined ? [] : step.places.map((p) => silhouetteOf(moveLoop(way, p), step.frame, around.sight));
  if (!allApart(copies))
    return insertLapping(library, host, tool, { copies, depth: shape.depth, out: depth && top - depth });
  return scope((own) => putIn(library, own, host, around, { tool, lies, copies, ends, top, deep: shape.depth }));
}

interface Plan {
  /** The cut, ended where it comes out. */
  tool: BodyStep;
  lies: Lies[];
  copies: Silhouette[];
  /** The ways round where they come out, of those that do. */
  ends: Silhouette[];
  top: number;
  deep: number;
}

function putIn(library: Library, own: Own, host: Host, around: Surroundings, plan: Plan): Inserted | null {
  const { oc, faces: cache, insertTools } = library;
  const { normal } = around.sight;
  const wires = new Map<number, TopoDS_Shape[]>();
  const borders = new Map<number, Silhouette[]>();
  const walls: ToolFace[] = [];
  const mouths: Region[] = [];
  for (const [i, { entry, exit }] of plan.lies.entries()) {
    const put = (face: number, { face: lid }: ToolFace, border: Silhouette) => {
      const wire = own(own(oc.BRepTools.OuterWire(lid)).Reversed());
      wires.set(face, [...(wires.get(face) ?? []), wire]);
      borders.set(face, [...(borders.get(face) ?? []), border]);
    };
    const mouth = [borderOf(plan.copies[i])];
    let open = 0;
    for (const f of insertTools.facesAt(plan.tool, i, own)) {
      const level = f.flat && Math.abs(dot(f.flat.normal, normal)) > PARALLEL ? dot(f.flat.point, normal) : null;
      const isEntry = level !== null && Math.abs(level - plan.top) < 1e-7;
      const isExit = level !== null && exit !== null && Math.abs(level - plan.top + exit.depth) < 1e-7;
      if (isEntry) put(entry, f, plan.copies[i]);
      else if (isExit) put(exit!.face, f, plan.ends[i]);
      if (isEntry || isExit) {
        open++;
        continue;
      }
      walls.push(f);
      mouths.push(mouth);
    }
    if (open !== (exit ? 2 : 1)) return null;
  }
  const removed = plan.lies.length * insertTools.volumeOf(plan.tool);
  const faces = host.faces.map((f, i) => {
    const inner = wires.get(i);
    if (!inner) return f;
    const maker = own(new oc.BRepBuilderAPI_MakeFace(f));
    for (const w of inner) maker.Add(own(oc.TopoDS.Wire(w)));
    const face = maker.Face();
    cache.grew(
      face,
      f,
      inner.map((w) => oc.TopoDS.Wire(w)),
    );
    return face;
  });
  const all = [...faces, ...walls.map((w) => insertTools.wallOf(w))];
  return {
    tags: [...host.tags, ...walls.map((w) => w.tag)],
    faces: all,
    around: carried(cache, host, around, all, { borders, mouths, low: plan.top - plan.deep, high: plan.top }),
    removed,
  };
}

/** What a cut opened: the borders it put into flats, and for each of its own faces the mouth it lies under. */
export interface Opened {
  borders: Map<number, Silhouette[]>;
  mouths: Region[];
  low: number;
  high: number;
}

/** What is known of the surroundings, carried over to the part with the cut in it. */
export function carried(
  cache: FaceCache,
  host: Host,
  around: Surroundings,
  faces: TopoDS_Face[],
  opened: Opened,
): Map<string, Surroundings> {
  const carriedOver = new Map<string, Surroundings>();
  for (const [key, s] of host.around) {
    // Seen along another direction the borders have to be read again.
    const mine = s === around;
    const fresh = faces.slice(host.faces.length).map((f, i): Obstacle => {
      const read = () => obstacleOf(cache, f, host.faces.length + i, s.sight);
      return mine && !isLevel(cache, f, s.sight)
        ? obstacleUnder(opened.mouths[i], opened.low, opened.high, read)
        : read();
    });
    const regions = new Map(s.regions);
    for (const [face, list] of opened.borders) {
      const before = regions.get(face);
      if (!before) continue;
      if (mine) regions.set(face, [...before, ...list.map(borderOf)]);
      else regions.delete(face);
    }
    carriedOver.set(key, { sight: s.sight, obstacles: [...s.obstacles, ...fresh], regions });
  }
  return carriedOver;
}

/** Copies of one row put in at a time. */
const MOST_COPIES = 3000;
