import { problems } from "./problems";
import { movedFrame, moveBy, type Motion } from "../geometry/motion";
import { dot, fromFrame, sideFrame, sideNormal, toFrame, v3, type Frame, type Side } from "../geometry/vec";
import { loopsOfEdges, type MeasuredEdge, type PartItem } from "../outline/fromPart";
import { joined, oriented, type Region } from "../outline/boolean";
import { flippedLoop } from "../outline/flip";
import { FINISHED } from "../outline/lines/common";
import { moveLoop, type Loop } from "../outline";
import { fail, ok, type Result } from "../base/result";
import { edgesByMeaning } from "./edgesByMeaning";
import type { EdgeChoice } from "../rows";
import type { FaceInfo, SolidKernel } from "./kernel";
import { sideOffset } from "./planes";
import type { PieceState } from "./piece";
import { shadowOfBand } from "./shadow";
import type { SolvedRow } from "./solve";
import { CONTACT, PARALLEL } from "../geometry/tolerance";

/**
 * Loops an outline takes from the part as it stands after a row: a flat side, the floor a row left, a section. Exact
 * lines and arcs.
 * @param rows the rows done so far
 */
export function shapeOfPart(
  want: PartItem,
  kernel: SolidKernel,
  rows: SolvedRow[],
  nameOf: (id: string) => string,
): Result<Region> {
  const lines = linesOfPart(want, kernel, rows, nameOf);
  if (!lines.ok) return lines;
  return "region" in lines.value ? ok(lines.value.region) : loopsOfEdges(lines.value.edges, lines.value.frame);
}

/** Lines taken from another part, as it lies in this one: at every station, seen from above. */
export function shapeOfOther(want: PartItem, kernel: SolidKernel, other: SolvedOther): Result<Region> {
  const { rows, stations } = other;
  const last = rows.filter((r) => r.state === "ok" && r.key).pop();
  const row = want.row === FINISHED ? (last?.row.id ?? "") : want.row;
  const piece = want.setup === undefined ? null : pieceAfter(other, want.setup);
  if (piece && !piece.ok) return piece;
  const nameOf = (id: string) => `row ${rows.find((r) => r.row.id === id)?.number ?? "?"} of "${other.name}"`;
  const lines = linesOfPart({ ...want, row }, kernel, rows, nameOf, piece?.value);
  if (!lines.ok) return lines;
  const all: Region = [];
  // Lines of the piece as a setup left it are those of the stations it comes to then.
  const own = stations.filter((s) => want.setup === undefined || (s.setup ?? want.setup) === want.setup);
  for (const { motion } of stations.length ? own : [{ motion: moveBy(v3(0, 0, 0)) }]) {
    const seen = seenFromAbove(lines.value, motion);
    if (!seen.ok) return seen;
    all.push(...seen.value);
  }
  return ok(oriented(all));
}

/** A part that gives lines to another: its rows as they were solved, and how it lies there, station by station. */
export interface SolvedOther {
  name: string;
  rows: SolvedRow[];
  stations: { motion: Motion; setup?: number }[];
  /** The piece as each of its setups left it. */
  pieces(): Result<PieceState[]>;
}

/** The piece as a setup left it; 0 is the stock. */
export function pieceAfter({ name, pieces }: Pick<SolvedOther, "name" | "pieces">, setup: number): Result<string> {
  const states = pieces();
  if (!states.ok) return states;
  const state = states.value.find((s) => s.op === setup);
  return state ? ok(state.after) : fail(problems.partHasNoSetup(name, setup));
}

/** What is taken from a part: edges in a plane, or a region that is one already. */
type Lines = { edges: MeasuredEdge[]; frame: Frame } | { region: Region; frame: Frame };

function seenFromAbove(lines: Lines, motion: Motion): Result<Region> {
  const level = movedFrame(lines.frame, motion);
  if (Math.abs(level.normal.z) < PARALLEL) return fail(problems.linesStandUpright());
  const above = sideFrame("top", level.origin.z);
  if ("edges" in lines)
    return loopsOfEdges(
      lines.edges.map((e) => movedEdge(e, motion)),
      above,
    );
  // A region is turned and shifted as a whole; seen from below it is turned over.
  const x = toFrame(above, motion.point(fromFrame(lines.frame, { x: 1, y: 0 })));
  const o = toFrame(above, motion.point(fromFrame(lines.frame, { x: 0, y: 0 })));
  const turned = level.normal.z < 0 ? lines.region.map(flippedY) : lines.region;
  return ok(turned.map((l) => moveLoop(l, { x: o.x, y: o.y }, Math.atan2(x.y - o.y, x.x - o.x))));
}
const flippedY = (loop: Loop): Loop => moveLoop(flippedLoop(loop), { x: 0, y: 0 }, Math.PI);

const movedEdge = (e: MeasuredEdge, m: Motion): MeasuredEdge => ({
  ...e,
  from: m.point(e.from),
  to: m.point(e.to),
  middle: m.point(e.middle),
  ...(e.centre ? { centre: m.point(e.centre) } : {}),
  ...(e.axis ? { axis: m.direction(e.axis) } : {}),
});

function linesOfPart(
  want: PartItem,
  kernel: SolidKernel,
  rows: SolvedRow[],
  nameOf: (id: string) => string,
  piece?: string,
): Result<Lines> {
  const row = rows.find((r) => r.row.id === want.row);
  if (!row) return fail(problems.notARowBeforeOutline(nameOf(want.row)));
  if (!row.key || row.state !== "ok") return fail(problems.rowNotThere(nameOf(want.row)));
  const standing: Standing = { row, key: piece ?? row.key, kernel, rows, nameOf };
  switch (want.item) {
    case "section":
      return ofSection(want, standing);
    case "edges":
      return ofEdges(want, standing);
    case "face":
      return ofFace(want, standing);
    case "shadow":
      return want.band ? bandShadow(want.band, standing) : shadowOf(standing);
  }
}

/** The part as it stands after the row named. */
interface Standing {
  row: SolvedRow;
  key: string;
  kernel: SolidKernel;
  rows: SolvedRow[];
  nameOf: (id: string) => string;
}
type Want<Item extends PartItem["item"]> = Extract<PartItem, { item: Item }>;

function ofSection(want: Want<"section">, { kernel, key }: Standing): Result<Lines> {
  const frames = {
    X: sideFrame("right", want.at),
    Y: sideFrame("front", -want.at),
    Z: sideFrame("top", want.at),
  };
  const frame = frames[want.axis];
  return ok({ edges: kernel.sectionEdges(key, frame.origin, frame.normal), frame });
}

function ofEdges(want: Want<"edges">, { row, kernel, key, rows, nameOf }: Standing): Result<Lines> {
  const earlier = new Map(rows.flatMap((r) => (r.planes ? [[r.row.id, r.planes] as const] : [])));
  const choice: EdgeChoice =
    want.edges === "mouthOf" || want.edges === "floorOf" ? { edge: want.edges, row: want.row } : { edge: want.edges };
  const found = edgesByMeaning([choice], { kernel, key, earlier, nameOf });
  if (!found.ok) return found;
  const outer = (side: "top" | "bottom") => sideFrame(side, sideOffset(kernel, key, side).offset);
  const frames = {
    mouthOf: () => row.planes?.start,
    floorOf: () => row.planes?.floor,
    outerBottom: () => outer("bottom"),
    outerTop: () => outer("top"),
  };
  const frame = frames[want.edges]();
  if (!frame) return fail(problems.noPlaneThere());
  const all = kernel.edges(key);
  return ok({ edges: found.value.map((f) => all[f.edge]), frame });
}

/** A flat: the floor a row left, or the outermost that looks to a side. Its border is what one of its faces alone has. */
function ofFace(want: Want<"face">, { row, kernel, key, nameOf }: Standing): Result<Lines> {
  const faces = kernel.faces(key);
  const { frame, chosen } = want.face === "floor" ? floorFaces(row, faces) : sideFaces(want.face, faces);
  if (!frame || !chosen.length) return fail(problems.noFlatAfter(want.face, nameOf(want.row)));
  const among = new Set(chosen);
  const edges = kernel.edges(key).filter((e) => e.length > 0 && among.has(e.faces[0]) !== among.has(e.faces[1]));
  return ok({ edges, frame });
}

/**
 * What a part covers, seen from above: its flats that look up or down, joined. Upright walls add nothing; a round that
 * lies across does, and is refused.
 */
function shadowOf({ kernel, key }: Standing): Result<Lines> {
  const faces = kernel.faces(key);
  const all = kernel.edges(key);
  const isUpright = (f: FaceInfo) =>
    f.surface === "plane"
      ? Math.abs(f.normal.z) < CONTACT
      : (f.surface === "cylinder" || f.surface === "cone") && Math.abs(f.axis?.direction.z ?? 0) > PARALLEL;
  const frame = sideFrame("top", 0);
  let region: Region = [];
  for (const [i, f] of faces.entries()) {
    if (f.surface === "plane" && Math.abs(f.normal.z) > PARALLEL) {
      const rim = all.filter((e) => e.length > 0 && e.faces[0] !== e.faces[1] && e.faces.includes(i));
      const loops = loopsOfEdges(rim, frame);
      if (!loops.ok) return loops;
      region = joined(region, loops.value);
    } else if (!isUpright(f)) return fail(problems.shadowOfSlants());
  }
  return ok({ region: oriented(region), frame });
}

function bandShadow({ from, deep }: NonNullable<Want<"shadow">["band"]>, { kernel, key }: Standing): Result<Lines> {
  const frame = sideFrame(from, sideOffset(kernel, key, from).offset);
  const region = shadowOfBand(kernel, key, frame, 0, deep);
  return region.ok ? ok({ region: region.value, frame }) : region;
}

interface Flat {
  frame: Frame | null;
  chosen: number[];
}
function floorFaces(row: SolvedRow, faces: FaceInfo[]): Flat {
  const isFloor = (f: FaceInfo) => f.surface === "plane" && f.tag?.row === row.row.id && f.tag.role === "floor";
  return { frame: row.planes?.floor ?? null, chosen: faces.flatMap((f, i) => (isFloor(f) ? [i] : [])) };
}
function sideFaces(side: Side, faces: FaceInfo[]): Flat {
  const n = sideNormal(side);
  const looking = faces.flatMap((f, i) =>
    f.surface === "plane" && dot(f.normal, n) > PARALLEL ? [{ i, at: dot(f.point, n) }] : [],
  );
  const far = Math.max(...looking.map((f) => f.at));
  return {
    frame: looking.length ? sideFrame(side, far) : null,
    chosen: looking.filter((f) => f.at > far - CONTACT).map((f) => f.i),
  };
}
