import { dot, length, scale, sub } from "../../geometry/vec";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import type { FaceInfo } from "../../engine/kernel";
import type { SolvedRow } from "../../engine/solve";
import type { Dimension } from "./dimensions";
import type { Solid } from "./real";

/** A number of a row, and how it answers to one balloon. */
export interface NumberSlope {
  path: string;
  value: number;
  slope: number;
}

/** What a number of a row was measured as on the faces that row made. */
export type Figured = Omit<Dimension, "alone" | "rowWords" | "widest" | "answersTo">;

/** One leg of a chamfer, measured across its edge, with the angle it leans at to the face that leg lies on. */
export interface Leg {
  size: number;
  angle: number;
}

/**
 * What the numbers of a chamfer or round size: legs, radii and slopes of every face that row made. A number is right
 * where each of its faces has it; where one has not, the one farthest off stands for what became of it.
 */
export function edgeDimensions(row: SolvedRow, n: NumberSlope, solid: Solid): Figured[] {
  const step = row.placed?.step;
  if (step?.op !== "edges") return [];
  const faces = treatedFaces(row.row.id, solid);
  const isRound = step.treatment === "round";
  const [family, words] =
    n.path === "angle"
      ? (["angle", "a chamfer"] as const)
      : isRound
        ? (["radius", "a round"] as const)
        : (["leg", "leg of a chamfer"] as const);
  const figures = (f: FaceInfo): number[] => {
    if (isRound && family === "radius") return f.radius === undefined ? [] : [f.radius];
    const legs = chamferLegs(f, solid);
    return family === "angle" ? legs.map((l) => l.angle) : legs.map((l) => l.size);
  };
  const off = (v: number) => Math.abs(v - n.value);
  const found = faces.map(figures).filter((list) => list.length > 0);
  if (!found.length) return [];
  // Of each face what comes nearest to the number; of all faces the one farthest from it.
  const each = found.map((list) => list.reduce((a, b) => (off(b) < off(a) ? b : a)));
  const value = each.reduce((a, b) => (off(b) > off(a) ? b : a));
  return [
    { value, family, words, rows: [row.row.id], of: [], centred: false, between: "edge" as const, slope: n.slope },
  ];
}

/** Faces that a row of edges made: chamfers or rounds. */
export const treatedFaces = (row: string, solid: Solid): FaceInfo[] =>
  solid.ofRow(row).filter((f) => f.tag!.role === "chamfer" || f.tag!.role === "round");

/** What tells one treated edge from another: pieces that a later cut has parted lie on one cylinder, or in one plane. */
export function pieceOf(f: FaceInfo): string | FaceInfo {
  const told = (list: number[]) => list.map((v) => (Math.round(v * 1e4) / 1e4 + 0).toFixed(4)).join();
  if (f.surface === "plane") return told([f.normal.x, f.normal.y, f.normal.z, dot(f.point, f.normal)]);
  if (f.surface !== "cylinder" || !f.axis) return f;
  const { origin, direction: d } = f.axis;
  const o = sub(origin, scale(d, dot(origin, d)));
  return told([o.x, o.y, o.z, Math.abs(d.x), Math.abs(d.y), Math.abs(d.z), f.radius!]);
}

/** The legs of a chamfer's face, each on the face it lies on; none where its neighbours do not tell them. */
export function chamferLegs(f: FaceInfo, solid: Solid): Leg[] {
  if (f.surface === "plane") return flatLegs(f, solid);
  return f.surface === "cone" ? roundLegs(f, solid) : [];
}

/** Between two flats: from where it meets one of them to the edge the two would have. */
function flatLegs(f: FaceInfo, solid: Solid): Leg[] {
  const beside = solid
    .besides(f)
    .filter(({ edge, face }) => edge.curve === "line" && face.surface === "plane" && !isOfSameCut(face, f))
    .sort((a, b) => b.edge.length - a.edge.length);
  const [a] = beside;
  const b = a && beside.find(({ face }) => Math.abs(dot(face.normal, a.face.normal)) < PARALLEL);
  if (!b) return [];
  const turn = Math.sqrt(Math.max(0, 1 - dot(a.face.normal, b.face.normal) ** 2));
  const leg = (on: typeof a, other: typeof a): Leg => ({
    size: Math.abs(dot(sub(on.edge.middle, other.face.point), other.face.normal)) / turn,
    angle: Math.acos(Math.min(1, Math.abs(dot(f.normal, on.face.normal)))),
  });
  return [leg(a, b), leg(b, a)];
}
/** The next chamfer of the same cut, round a corner: none of the faces its legs lie on. */
const isOfSameCut = (a: FaceInfo, b: FaceInfo): boolean =>
  a.tag?.row === b.tag?.row && a.tag?.role === b.tag?.role && a.tag?.role === "chamfer";

/** Round an axis: between the circles it ends at, across the axis and along it. */
function roundLegs(f: FaceInfo, solid: Solid): Leg[] {
  const circles = solid.besides(f).filter(({ edge }) => edge.curve === "circle" && edge.centre && edge.axis);
  const [a] = circles;
  if (!a) return [];
  const rises = (c: typeof a) => dot(sub(c.edge.centre!, a.edge.centre!), a.edge.axis!);
  const b = circles.find((c) => Math.abs(rises(c)) > CONTACT);
  if (!b) return [];
  const offAxis = sub(sub(b.edge.centre!, a.edge.centre!), scale(a.edge.axis!, rises(b)));
  if (length(offAxis) > CONTACT) return [];
  const across = Math.abs(a.edge.radius! - b.edge.radius!);
  const along = Math.abs(rises(b));
  return [
    { size: across, angle: Math.atan2(along, across) },
    { size: along, angle: Math.atan2(across, along) },
  ];
}
