import { problems } from "./problems";
import type { Hold } from "../job/schema";
import type { NumberScope } from "../number";
import { valueOf } from "../engine/numbers";
import { fail, ok, type Result } from "../base/result";
import { v3, type Box } from "../geometry/vec";
import { viseJaw } from "../tables";
import { CONTACT } from "../geometry/tolerance";

/**
 * A vise with plain jaws round a piece: boxes in the part's own coordinates, mm. `jawTop` is the height of the jaws'
 * upper edge.
 */
export interface ViseSetup {
  jaws: [Box, Box];
  jawTop: number;
  grip: number;
  above: number;
  upIsTop: boolean;
  across: "x" | "y";
}

/**
 * Places the jaws on a piece (the stock, or the part where there is none).
 * Grip is how deep the piece stands in the jaws, counted from its lower side.
 */
export function placeVise(hold: Hold, scope: NumberScope, piece: Box): Result<ViseSetup> {
  const grip = valueOf(hold.grip, "length", scope);
  if (!grip.ok)
    return { ok: false, problems: grip.problems.map((p) => ({ ...p, path: "grip", message: `grip: ${p.message}` })) };
  const width = hold.jawWidth === undefined ? ok({ value: viseJaw.width }) : valueOf(hold.jawWidth, "length", scope);
  const height =
    hold.jawHeight === undefined ? ok({ value: viseJaw.height }) : valueOf(hold.jawHeight, "length", scope);
  if (!width.ok) return width;
  if (!height.ok) return height;
  const upIsTop = hold.up === "top";
  const g = grip.value.value;
  const whole = piece.max.z - piece.min.z;
  if (g <= 0) return fail(problems.nothingGripped(), { path: "grip" });
  if (g >= whole - CONTACT) return fail(problems.gripAsHighAsPiece(), { path: "grip" });
  const jawTop = upIsTop ? piece.min.z + g : piece.max.z - g;
  const [z0, z1] = upIsTop ? [jawTop - height.value.value, jawTop] : [jawTop, jawTop + height.value.value];
  const along = hold.across === "y" ? "x" : "y";
  const middle = (piece.min[along] + piece.max[along]) / 2;
  const half = width.value.value / 2;
  const jaw = (from: number, to: number): Box =>
    hold.across === "y"
      ? { min: v3(middle - half, from, z0), max: v3(middle + half, to, z1) }
      : { min: v3(from, middle - half, z0), max: v3(to, middle + half, z1) };
  const a = hold.across;
  return ok({
    jaws: [jaw(piece.min[a] - viseJaw.thickness, piece.min[a]), jaw(piece.max[a], piece.max[a] + viseJaw.thickness)],
    jawTop,
    grip: g,
    above: whole - g,
    upIsTop,
    across: a,
  });
}
