import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { dot, sideNormal, sides, type Frame, type Vec3 } from "../geometry/vec";
import type { PlaneRef } from "../rows";
import type { FaceInfo } from "./kernel";
import { flatOfShape, sideOfShape, wallsOf, type RowShape } from "./rowShape";
import type { SolvedRow } from "./solve";

const lies = (face: Pick<FaceInfo, "normal" | "point">, frame: Frame | null | undefined): boolean =>
  Boolean(frame) &&
  dot(face.normal, frame!.normal) > PARALLEL &&
  Math.abs(dot(face.point, face.normal) - dot(frame!.origin, face.normal)) < CONTACT;

/**
 * The name of a flat by what it means: of the row that made it, else a side of the part. Null for what is no flat or
 * has no name.
 * @param farthest how far the part reaches in a direction
 */
export function nameOfFace(face: FaceInfo, rows: SolvedRow[], farthest: (d: Vec3) => number): PlaneRef | null {
  if (face.surface !== "plane") return null;
  const side = sides.find((s) => dot(face.normal, sideNormal(s)) > PARALLEL);
  if (side && Math.abs(dot(face.point, face.normal) - farthest(face.normal)) < CONTACT) return { on: side };
  const row = rows.find((r) => r.row.id === face.tag?.row);
  const planes = row?.planes;
  if (!row || !planes) return null;
  const id = row.row.id;
  if (lies(face, planes.floor)) return { on: "floorOf", row: id };
  if (lies(face, planes.top)) return { on: "topOf", row: id };
  return planes.shape ? ofShape(face, planes.shape, id) : null;
}

function ofShape(face: FaceInfo, shape: RowShape, row: string): PlaneRef | null {
  const side = sides.find((s) => lies(face, sideOfShape(shape, s)));
  if (side) return side === "top" ? { on: "topOf", row } : { on: "sideOf", side, row };
  const flat = wallsOf(shape).findIndex((_, k) => lies(face, flatOfShape(shape, k + 1)));
  return flat < 0 ? null : { on: "flatOf", flat: flat + 1, row };
}
