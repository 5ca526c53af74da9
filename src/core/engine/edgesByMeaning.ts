import { problems } from "./problems";
import { add, cross, dot, length, scale, sideFrame, sub, toFrame, type Frame, type Vec3 } from "../geometry/vec";
import { axisDirections } from "../geometry/motion";
import { fail, ok, type Result, type Said } from "../base/result";
import type { EdgeChoice } from "../rows";
import type { EdgeInfo, FaceInfo } from "./kernel";
import { frameOf, lowered, sideOffset, type Seat } from "./planes";
import { levelsOfBody } from "./rowShape";
import { COINCIDENT, MEET, PARALLEL } from "../geometry/tolerance";

/** An outside edge counts as sharp when its faces meet at more than this angle between their normals. */
const SHARP = (30 * Math.PI) / 180;

export const isSharp = (e: EdgeInfo): boolean => e.turn === "convex" && e.angle > SHARP + COINCIDENT;

/** A chamfer or a round that is there: its edges were broken by it, and are not sharp. */
export const isTreated = ({ tag }: FaceInfo): boolean => tag?.role === "chamfer" || tag?.role === "round";

/** An edge that was chosen, with the face its size is measured on: the flat it rims. */
export interface ChosenEdge {
  edge: number;
  face: number;
}
/** The state edges are chosen on, read once. */
interface Ground {
  seat: Seat & { key: string };
  edges: EdgeInfo[];
  faces: FaceInfo[];
}
type Test = (e: EdgeInfo) => number | null;

/** Edges named by what they are. */
export function edgesByMeaning(choices: EdgeChoice[], seat: Seat & { key: string }): Result<ChosenEdge[]> {
  const ground: Ground = { seat, edges: seat.kernel.edges(seat.key), faces: seat.kernel.faces(seat.key) };
  const chosen = new Map<number, number>();
  for (const c of choices) {
    const found = find(c, ground);
    if (!found.ok) return found;
    for (const { edge, face } of found.value) if (!chosen.has(edge)) chosen.set(edge, face);
  }
  return ok([...chosen].map(([edge, face]) => ({ edge, face })));
}

const pick = ({ edges }: Ground, test: Test): ChosenEdge[] =>
  edges.flatMap((e, edge) => {
    const face = e.length > 0 ? test(e) : null;
    return face === null ? [] : [{ edge, face }];
  });
const some = (found: ChosenEdge[], none: Said): Result<ChosenEdge[]> =>
  found.length ? ok(found) : fail(none, { path: "edges" });

function find(c: EdgeChoice, ground: Ground): Result<ChosenEdge[]> {
  const { edges, faces, seat } = ground;
  switch (c.edge) {
    case "allSharp":
      return some(
        pick(ground, (e) => (isSharp(e) && !e.faces.some((i) => isTreated(faces[i])) ? flatOf(e, faces) : null)),
        problems.noSharpEdge(),
      );
    case "vertical": {
      if (c.row !== undefined) return uprightOf(c.row, ground);
      const upright = (e: EdgeInfo) => e.turn === "convex" && runsAlong(e, axisDirections.z);
      return some(
        pick(ground, (e) => (upright(e) ? e.faces[0] : null)),
        problems.noUprightCorner(),
      );
    }
    case "outerTop":
    case "outerBottom":
      return rim(c.edge === "outerTop" ? "top" : "bottom", c.row, ground);
    case "along": {
      const row = c.row;
      if (row !== undefined && !seat.earlier.has(row)) return goneRow(row, seat);
      const none = problems.noEdgeAlong(c.along.toUpperCase());
      const runs = (e: EdgeInfo) => runsAlong(e, axisDirections[c.along]);
      if (row !== undefined) return some(ownOrMet(ground, row, runs, flatOf), none);
      return some(
        pick(ground, (e) => (e.turn === "convex" && runs(e) ? flatOf(e, faces) : null)),
        none,
      );
    }
    case "between":
      return between(c, ground);
    case "at":
      return nearest(c.at, edges, faces);
    case "mouthOf":
    case "floorOf":
      return mouthOrFloor(c, ground);
  }
}

const goneRow = (row: string, { nameOf }: Seat) => fail(problems.notAnEarlierRow(nameOf(row)), { path: "edges" });

function mouthOrFloor(c: Extract<EdgeChoice, { edge: "mouthOf" | "floorOf" }>, ground: Ground): Result<ChosenEdge[]> {
  const { faces, seat } = ground;
  const planes = seat.earlier.get(c.row);
  if (!planes) return goneRow(c.row, seat);
  const what = c.edge === "mouthOf" ? "mouth" : "floor";
  const frame = c.edge === "mouthOf" ? planes.start : planes.floor;
  if (!frame) return fail(problems.rowLacks(seat.nameOf(c.row), what), { path: "edges" });
  const frames = [frame, ...copiedFrames(c.row, frame, planes.start, seat)];
  const mine = (i: number) => faces[i].tag?.row === c.row;
  const all = pick(ground, (e) => {
    if (e.turn === "smooth" || !frames.some((f) => inPlane(e, f))) return null;
    const [a, b] = e.faces;
    if (c.edge === "floorOf") return mine(a) && mine(b) && e.turn === "concave" ? flatOf(e, faces) : null;
    return mine(a) !== mine(b) && e.turn === "convex" ? (mine(a) ? b : a) : null;
  });
  return some(all, problems.nothingLeftOfEdge(what, seat.nameOf(c.row)));
}

/** The same plane of the copies that repeats have made of a row. */
function copiedFrames(row: string, frame: Frame, start: Frame | null, { earlier }: Seat): Frame[] {
  const depth = start ? dot(sub(start.origin, frame.origin), start.normal) : 0;
  return [...earlier.entries()].flatMap(([id, planes]) =>
    id === row
      ? []
      : (planes.elements ?? []).flatMap((e) => (e.row === row && e.frame ? [lowered(e.frame, depth)] : [])),
  );
}

/**
 * Edges between two faces of a row; where it has none that run so, those inside corners it makes with what stood before
 * it: a rib against the walls of its pocket.
 */
function ownOrMet(
  ground: Ground,
  row: string,
  runs: (e: EdgeInfo) => boolean,
  measuredOn: (e: EdgeInfo, faces: FaceInfo[]) => number,
): ChosenEdge[] {
  const { faces } = ground;
  const mine = (i: number) => faces[i].tag?.row === row;
  const own = pick(ground, (e) =>
    e.turn !== "smooth" && runs(e) && e.faces.every(mine) ? measuredOn(e, faces) : null,
  );
  if (own.length) return own;
  return pick(ground, (e) => (e.turn === "concave" && runs(e) && e.faces.some(mine) ? measuredOn(e, faces) : null));
}

/** Upright corners of a row, along its own normal: those of its outside, or those inside what it cut. */
function uprightOf(row: string, ground: Ground): Result<ChosenEdge[]> {
  const { seat } = ground;
  const planes = seat.earlier.get(row);
  if (!planes) return goneRow(row, seat);
  const up = planes.shape?.frame.normal ?? axisDirections.z;
  return some(
    ownOrMet(
      ground,
      row,
      (e) => runsAlong(e, up),
      (e) => e.faces[0],
    ),
    problems.rowLacks(seat.nameOf(row), "upright corner"),
  );
}

/** Edges where the flats of two planes meet. */
function between({ a, b }: Extract<EdgeChoice, { edge: "between" }>, ground: Ground): Result<ChosenEdge[]> {
  const { faces, seat } = ground;
  const p = frameOf(a, seat);
  if (!p.ok) return p;
  const q = frameOf(b, seat);
  if (!q.ok) return q;
  const lies = (i: number, f: Frame) =>
    faces[i].surface === "plane" &&
    dot(faces[i].normal, f.normal) > PARALLEL &&
    Math.abs(toFrame(f, faces[i].point).z) < MEET;
  return some(
    pick(ground, (e) => {
      const [x, y] = e.faces;
      if (lies(x, p.value) && lies(y, q.value)) return x;
      return lies(y, p.value) && lies(x, q.value) ? y : null;
    }),
    problems.facesDoNotMeet(),
  );
}

/** The edge nearest to a place. */
function nearest(at: Vec3, edges: EdgeInfo[], faces: FaceInfo[]): Result<ChosenEdge[]> {
  let best = -1;
  let least = Infinity;
  edges.forEach((e, i) => {
    const off = e.length > 0 && e.turn !== "smooth" ? distanceToEdge(e, at) : Infinity;
    if (off < least) [best, least] = [i, off];
  });
  return best < 0
    ? fail(problems.partWithoutEdge(), { path: "edges" })
    : ok([{ edge: best, face: flatOf(edges[best], faces) }]);
}

function distanceToEdge(e: EdgeInfo, p: Vec3): number {
  const ends = Math.min(...[e.from, e.to, e.middle].map((q) => length(sub(p, q))));
  if (e.curve === "line") {
    const way = sub(e.to, e.from);
    const t = Math.max(0, Math.min(1, dot(sub(p, e.from), way) / dot(way, way)));
    return length(sub(p, add(e.from, scale(way, t))));
  }
  const isRound = e.curve === "circle" && e.centre && e.axis && e.radius;
  if (!isRound || Math.abs(e.length - 2 * Math.PI * e.radius!) > MEET) return ends;
  const off = sub(p, e.centre!);
  const height = dot(off, e.axis!);
  return Math.hypot(height, length(sub(off, scale(e.axis!, height))) - e.radius!);
}

const runsAlong = (e: EdgeInfo, direction: Vec3): boolean => {
  if (e.curve !== "line") return false;
  const way = sub(e.to, e.from);
  return length(cross(way, direction)) < MEET;
};

/** Rim of the outermost outline of the highest (or lowest) flat, or of a row's own: its convex edges that no hole made. */
function rim(side: "top" | "bottom", row: string | undefined, ground: Ground): Result<ChosenEdge[]> {
  const { edges, faces, seat } = ground;
  const frame = row === undefined ? null : endOfRow(side, row, seat);
  if (frame && !frame.ok) return frame;
  const { kernel, key } = seat;
  const { offset, flat } = frame ? { offset: 0, flat: true } : sideOffset(kernel, key, side);
  if (!flat) return fail(problems.noFlatOnSide(side), { path: "edges" });
  const plane = frame?.ok ? frame.value : sideFrame(side, offset);
  const inIt = (f: FaceInfo) =>
    f.surface === "plane" &&
    dot(f.normal, plane.normal) > PARALLEL &&
    Math.abs(toFrame(plane, f.point).z) < MEET &&
    (row === undefined || f.tag?.row === row);
  // A face inside another's outline (an island within a groove) has a rim of its own, but not the outermost one.
  const wires = kernel.outerWires(
    key,
    faces.flatMap((f, i) => (inIt(f) ? [i] : [])),
  );
  const outermost = wires.filter((w) => !wires.some((o) => o !== w && surrounds(o.pieces, w.pieces[0]?.[0], plane)));
  const outer = new Set(outermost.flatMap((w) => w.edges));
  const all = pick(ground, (e) => {
    if (e.turn !== "convex" || !outer.has(edges.indexOf(e))) return null;
    return inIt(faces[e.faces[0]]) ? e.faces[0] : e.faces[1];
  });
  return some(all, problems.noOuterRim(side));
}

/** Where what a row left ends: over its plane, or at it. */
function endOfRow(side: "top" | "bottom", row: string, seat: Seat): Result<Frame> {
  const planes = seat.earlier.get(row);
  if (!planes) return goneRow(row, seat);
  const { shape, top } = planes;
  if (!shape) return fail(problems.bodyLacksSide(seat.nameOf(row), side), { path: "edges" });
  const { low, high } = levelsOfBody(shape.body);
  if (side === "top") return ok(top ?? lowered(shape.frame, -high));
  const { frame } = shape;
  const bottom = lowered(frame, -low);
  return ok({ ...bottom, y: scale(bottom.y, -1), normal: scale(bottom.normal, -1) });
}

/** Whether closed pieces in a plane go round a point of it: a ray along x crosses them an odd number of times. */
function surrounds(pieces: [Vec3, Vec3][], at: Vec3 | undefined, plane: Frame): boolean {
  if (!at) return false;
  const p = toFrame(plane, at);
  let odd = false;
  for (const [from, to] of pieces) {
    const [a, b] = [toFrame(plane, from), toFrame(plane, to)];
    if (a.y > p.y !== b.y > p.y && p.x < a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x)) odd = !odd;
  }
  return odd;
}

const inPlane = (e: EdgeInfo, f: Frame): boolean =>
  [e.from, e.to, e.middle].every((p) => Math.abs(toFrame(f, p).z) < MEET);

/** Of an edge's two faces the flat one, the one looking up first: a chamfer's size is measured on it. */
function flatOf(e: EdgeInfo, faces: FaceInfo[]): number {
  const rank = (i: number) =>
    (faces[i].surface === "plane" ? 1 : 0) + Math.abs(dot(faces[i].normal, { x: 0, y: 0, z: 1 }));
  return rank(e.faces[0]) >= rank(e.faces[1]) ? e.faces[0] : e.faces[1];
}
