import { dot, sideFrame, sideNormal, type Frame, type Side } from "../geometry/vec";
import { loopsOfEdges, type PartItem } from "../outline/fromPart";
import type { Region } from "../outline/boolean";
import { fail, type Result } from "../base/result";
import { edgesByMeaning } from "./edgesByMeaning";
import type { EdgeChoice } from "../rows";
import type { FaceInfo, SolidKernel } from "./kernel";
import { sideOffset } from "./planes";
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
  const row = rows.find((r) => r.row.id === want.row);
  if (!row)
    return fail(`${nameOf(want.row)} is no row before the one made from this outline`, {
      expected: "the number of an earlier row",
    });
  if (!row.key || row.state !== "ok")
    return fail(`${nameOf(want.row)} is not there`, { expected: "a row that is on and can be made" });
  const standing: Standing = { row, key: row.key, kernel, rows, nameOf };
  switch (want.item) {
    case "section":
      return ofSection(want, standing);
    case "edges":
      return ofEdges(want, standing);
    case "face":
      return ofFace(want, standing);
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

function ofSection(want: Want<"section">, { kernel, key }: Standing): Result<Region> {
  const frames = {
    X: sideFrame("right", want.at),
    Y: sideFrame("front", -want.at),
    Z: sideFrame("top", want.at),
  };
  const frame = frames[want.axis];
  return loopsOfEdges(kernel.sectionEdges(key, frame.origin, frame.normal), frame);
}

function ofEdges(want: Want<"edges">, { row, kernel, key, rows, nameOf }: Standing): Result<Region> {
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
  if (!frame) return fail("there is no plane there", { expected: "a row with a flat mouth or floor" });
  const all = kernel.edges(key);
  return loopsOfEdges(
    found.value.map((f) => all[f.edge]),
    frame,
  );
}

/** A flat: the floor a row left, or the outermost that looks to a side. Its border is what one of its faces alone has. */
function ofFace(want: Want<"face">, { row, kernel, key, nameOf }: Standing): Result<Region> {
  const faces = kernel.faces(key);
  const { frame, chosen } = want.face === "floor" ? floorFaces(row, faces) : sideFaces(want.face, faces);
  if (!frame || !chosen.length)
    return fail(`there is no flat ${want.face} after ${nameOf(want.row)}`, { expected: "a flat face" });
  const among = new Set(chosen);
  return loopsOfEdges(
    kernel.edges(key).filter((e) => e.length > 0 && among.has(e.faces[0]) !== among.has(e.faces[1])),
    frame,
  );
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
