import { dot, type Vec3 } from "../../geometry/vec";
import type { FaceInfo } from "../../engine/kernel";
import type { SolvedRow } from "../../engine/solve";
import type { Dimension } from "./dimensions";
import type { Solid } from "./real";
import { CONTACT } from "../../geometry/tolerance";

/** A number of a row, and how it answers to one balloon. */
export interface NumberSlope {
  path: string;
  value: number;
  slope: number;
}

/**
 * What the numbers of a chamfer or round size: legs, radii and slopes of the faces that row made.
 * A leg is the number's where it is as long; where none is, the nearest stands for what became of it.
 */
export function edgeDimensions(row: SolvedRow, n: NumberSlope, solid: Solid): Omit<Dimension, "alone" | "rowWords">[] {
  const step = row.placed?.step;
  if (Math.abs(n.slope) < CONTACT || step?.op !== "edges") return [];
  const faces = solid.ofRow(row.row.id);
  const [family, words, values] =
    n.path === "angle"
      ? (["angle", "a chamfer", faces.flatMap(slopes)] as const)
      : step.treatment === "round"
        ? (["radius", "a round", faces.flatMap((f) => (f.radius === undefined ? [] : [f.radius]))] as const)
        : (["leg", "leg of a chamfer", faces.flatMap(legs)] as const);
  if (!values.length) return [];
  const nearest = values.reduce((a, b) => (Math.abs(b - n.value) < Math.abs(a - n.value) ? b : a));
  const own = values.some((v) => Math.abs(v - n.value) < CONTACT)
    ? values.filter((v) => Math.abs(v - n.value) < CONTACT).slice(0, 1)
    : [nearest];
  return own.map((value) => ({
    value,
    family,
    words,
    rows: [row.row.id],
    of: [{ id: `${row.row.id}/edges`, row: row.row.id, instance: 0, whole: true }],
    centred: false,
    slope: n.slope,
  }));
}

const main: Vec3[] = [
  { x: 1, y: 0, z: 0 },
  { x: 0, y: 1, z: 0 },
  { x: 0, y: 0, z: 1 },
];
const size = (f: FaceInfo, axis: Vec3): number =>
  Math.abs(dot({ x: f.box.max.x - f.box.min.x, y: f.box.max.y - f.box.min.y, z: f.box.max.z - f.box.min.z }, axis));

/** Legs of a chamfer's face: along the directions it leans between; of one round an axis, along it and across it. */
function legs(f: FaceInfo): number[] {
  if (f.surface === "plane") return main.filter((a) => Math.abs(dot(f.normal, a)) > CONTACT).map((a) => size(f, a));
  if (f.surface !== "cone" || f.halfAngle === undefined) return [];
  // Its height is the least of its box; across it is that times the slope.
  const height = Math.min(...main.map((a) => size(f, a)));
  return [height, height * Math.tan(f.halfAngle)];
}

/** Angles of a chamfer's face with the faces beside it, told by what it leans against. */
function slopes(f: FaceInfo): number[] {
  if (f.surface === "plane")
    return main
      .filter((a) => Math.abs(dot(f.normal, a)) > CONTACT)
      .map((a) => Math.acos(Math.min(1, Math.abs(dot(f.normal, a)))));
  return f.halfAngle === undefined ? [] : [f.halfAngle, Math.PI / 2 - f.halfAngle];
}
