import { PARALLEL } from "../geometry/tolerance";
import { dot, sideNormal, sides, type Frame, type Vec3 } from "../geometry/vec";
import { showLength, type LengthUnit } from "../number";
import type { PlaneRef } from "../rows";
import type { RowPlanes } from "./planes";
import { flatOfShape, sideOfShape } from "./rowShape";

/** Rows as far as they are worked out: what each put there. */
export interface StandingRow {
  row: { id: string };
  planes: RowPlanes | null;
}

/**
 * Which plane a word comes to where that is easily taken for another: the top of a row that lies on its side is its
 * end, and FRONT is the main plane to the first row and the part's own side to all after it. Lengths in the job's unit.
 * @returns null where the word says it all, or its row is not worked out
 */
export function planeWords(ref: PlaneRef, earlier: StandingRow[], unit: LengthUnit): string | null {
  if (ref.on === "named" || ref.on === "top") return null;
  if (!("row" in ref))
    return earlier.length ? `the part's own ${ref.on} side` : `the plane through the job's zero that looks ${ref.on}`;
  const planes = earlier.find((r) => r.row.id === ref.row)?.planes;
  const frame = planes && frameOf(ref, planes);
  if (!frame) return null;
  const looks = lookOf(frame.normal);
  // As it says: nobody takes a top that looks up for anything else.
  if (looks === "top" && ref.on === "topOf") return null;
  if (ref.on === "sideOf" && looks === ref.side) return null;
  return `the face that looks ${looks ?? "aslant"}${looks ? `, ${levelOf(frame, unit)}` : ""}`;
}

function frameOf(ref: Extract<PlaneRef, { row: string }>, planes: RowPlanes): Frame | null {
  const { shape, floor, top } = planes;
  switch (ref.on) {
    case "floorOf":
      return floor;
    case "topOf":
      return top ?? (shape ? sideOfShape(shape, "top") : null);
    case "sideOf":
      return shape ? sideOfShape(shape, ref.side) : null;
    case "flatOf":
      return shape ? flatOfShape(shape, ref.flat) : null;
  }
}

const lookOf = (normal: Vec3) => sides.find((s) => dot(sideNormal(s), normal) > PARALLEL) ?? null;

/** Where a plane along two of the job's axes stands on the third. */
function levelOf({ origin, normal }: Frame, unit: LengthUnit): string {
  const axis = (["x", "y", "z"] as const).find((k) => Math.abs(normal[k]) > PARALLEL)!;
  return `at ${axis.toUpperCase()} ${showLength(origin[axis], unit)}`;
}
