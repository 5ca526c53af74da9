import { boxInFrame, dot } from "../../geometry/vec";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import type { FaceInfo } from "../../engine/kernel";
import type { SolvedRow } from "../../engine/solve";
import type { Recipe } from "../../rows";
import { edgeDimensions, type Figured, type NumberSlope } from "./edgeDimensions";
import type { Solid } from "./real";

/**
 * Rows whose numbers are no surfaces of a body of their own: edges that are treated, a part that is hollowed, a groove
 * that is engraved. They are measured on the faces the row made.
 */
export const isFigured = (recipe: Recipe | null): boolean =>
  recipe?.op === "edges" || recipe?.op === "shell" || (recipe?.op === "cut" && recipe.body.body === "vee");

/** What a number of such a row comes to on its faces: where they differ, what is farthest from the number. */
export function rowFigures(row: SolvedRow, n: NumberSlope, solid: Solid): Figured[] {
  if (Math.abs(n.slope) < CONTACT) return [];
  const { recipe } = row;
  if (recipe?.op === "edges") return edgeDimensions(row, n, solid);
  if (recipe?.op === "shell") return figure(row, n, "distance", "the wall", thicknesses(row.row.id, solid));
  if (recipe?.op !== "cut" || recipe.body.body !== "vee") return [];
  return n.path === "angle"
    ? figure(row, n, "angle", "between the walls of the groove", includedAngles(row, solid))
    : figure(row, n, "depth", "from the face down to its ridge", deepest(row, solid));
}

function figure(row: SolvedRow, n: NumberSlope, family: Figured["family"], words: string, values: number[]): Figured[] {
  if (!values.length) return [];
  const value = values.reduce((a, b) => (Math.abs(b - n.value) > Math.abs(a - n.value) ? b : a));
  const { slope } = n;
  return [{ value, family, between: "edge", words, rows: [row.row.id], of: [], centred: false, slope }];
}

/** From each flat a row hollowed to the flat of the part behind it. */
function thicknesses(row: string, solid: Solid): number[] {
  return solid.ofRow(row).flatMap((f) => {
    if (f.surface !== "plane") return [];
    const behind = solid.faces.flatMap((g) =>
      g.surface === "plane" && g.tag?.row !== row && dot(g.normal, f.normal) < -PARALLEL
        ? [dot(f.point, f.normal) - dot(g.point, f.normal)]
        : [],
    );
    const thick = behind.filter((t) => t > CONTACT);
    return thick.length ? [Math.min(...thick)] : [];
  });
}

/** Twice the angle between each wall of a groove and the direction it was cut in. */
function includedAngles(row: SolvedRow, solid: Solid): number[] {
  const up = row.planes?.start?.normal;
  if (!up) return [];
  return walls(row, solid).flatMap((f) =>
    f.surface === "plane" ? [2 * Math.asin(Math.min(1, Math.abs(dot(f.normal, up))))] : [],
  );
}

/** How far down the walls of a groove reach from their plane: a bend or an end may not reach its whole depth. */
function deepest(row: SolvedRow, solid: Solid): number[] {
  const start = row.planes?.start;
  const list = walls(row, solid);
  if (!start || !list.length) return [];
  const boxes = list.map((f) => boxInFrame(start, f.box));
  return [Math.max(...boxes.map((b) => b.max.z)) - Math.min(...boxes.map((b) => b.min.z))];
}
const walls = (row: SolvedRow, solid: Solid): FaceInfo[] =>
  solid.ofRow(row.row.id).filter((f) => f.tag!.role === "wall");
