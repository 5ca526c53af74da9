import type { Job, Stock } from "../job/schema";
import type { NumberScope, NumberText } from "../number";
import { lengthText, toInside, evaluateNumber } from "../number";
import { stockPractice, stockSizes } from "../tables";
import { valueOf } from "../engine/numbers";
import { fail, ok, type Problem, type Result } from "../base/result";
import { v3, type Box, type Side } from "../geometry/vec";
import type { EdgeInfo } from "../engine/kernel";
import { COINCIDENT, CONTACT, PARALLEL } from "../geometry/tolerance";

/** A stock with its numbers worked out and its place known. Lengths mm. */
export interface PlacedStock {
  shape: "plate" | "round";
  box: Box;
  volume: number;
  diameter?: number;
}

export type Allowance = Record<Side, number>;

/**
 * Works out the stock of a job. Without a place the part lies centred in X and Y, the surplus in Z shared evenly.
 * @param part box of the part, or null while there is none
 */
export function placeStock(stock: Stock, scope: NumberScope, part: Box | null): Result<PlacedStock> {
  const { length, width, height, diameter } = { length: undefined, width: undefined, diameter: undefined, ...stock };
  const fields = stock.shape === "plate" ? { length, width, height } : { diameter, height };
  const n: Record<string, number> = {};
  for (const [f, text] of Object.entries(fields)) {
    const r = valueOf(text, "length", scope);
    if (!r.ok)
      return {
        ok: false,
        problems: r.problems.map((p): Problem => ({ ...p, path: f, message: `stock ${f}: ${p.message}` })),
      };
    n[f] = r.value.value;
  }
  let at = { x: 0, y: 0, z: 0 };
  if (stock.at) {
    for (const k of ["x", "y", "z"] as const) {
      const r = valueOf(stock.at[k], "coordinate", scope);
      if (!r.ok)
        return {
          ok: false,
          problems: r.problems.map((p) => ({ ...p, path: `at.${k}`, message: `stock place ${k}: ${p.message}` })),
        };
      at[k] = r.value.value;
    }
  } else if (part)
    at = {
      x: (part.min.x + part.max.x) / 2,
      y: (part.min.y + part.max.y) / 2,
      z: part.min.z - (n.height - (part.max.z - part.min.z)) / 2,
    };
  const dx = n.length ?? n.diameter,
    dy = n.width ?? n.diameter;
  const box: Box = {
    min: v3(at.x - dx / 2, at.y - dy / 2, at.z),
    max: v3(at.x + dx / 2, at.y + dy / 2, at.z + n.height),
  };
  const volume = stock.shape === "plate" ? n.length * n.width * n.height : (Math.PI / 4) * n.diameter ** 2 * n.height;
  return ok({ shape: stock.shape, box, volume, ...(stock.shape === "round" ? { diameter: n.diameter } : {}) });
}

/** What there is to clean up on every side; negative where the part sticks out. */
export const allowanceOf = (stock: PlacedStock, part: Box): Allowance => ({
  left: part.min.x - stock.box.min.x,
  right: stock.box.max.x - part.max.x,
  front: part.min.y - stock.box.min.y,
  back: stock.box.max.y - part.max.y,
  bottom: part.min.z - stock.box.min.z,
  top: stock.box.max.z - part.max.z,
});

/** How far the part stays inside a round bar, measured on its edges; negative where it sticks out. */
export function radialAllowance(stock: PlacedStock, edges: EdgeInfo[]): number {
  const cx = (stock.box.min.x + stock.box.max.x) / 2,
    cy = (stock.box.min.y + stock.box.max.y) / 2;
  let far = 0;
  for (const e of edges) {
    for (const p of [e.from, e.to, e.middle]) far = Math.max(far, Math.hypot(p.x - cx, p.y - cy));
    // Of a whole level circle the farthest point lies beyond its centre.
    if (e.curve === "circle" && Math.abs(e.axis!.z) > PARALLEL && e.length > 2 * Math.PI * e.radius! - CONTACT)
      far = Math.max(far, Math.hypot(e.centre!.x - cx, e.centre!.y - cy) + e.radius!);
  }
  return stock.diameter! / 2 - far;
}

/**
 * The smallest usual sizes a part fits in, with something to clean up on every side.
 * @param isRound the part is turned about Z, so that a bar need not hold the corners of its box
 */
export function proposeStock(
  part: Box,
  unit: Job["unit"],
  scope: NumberScope,
  isRound: boolean,
): { plate: Stock; round: Stock } {
  const sizes = stockSizes.rows.find((r) => r.unit === unit)!;
  const mm = (t: string) => {
    const r = evaluateNumber(t, "length", scope);
    return r.ok ? r.value.value : toInside(Number(t), "length", unit);
  };
  const over = (need: number, list: string[]): NumberText =>
    (list.find((t) => mm(t) >= need - COINCIDENT) ?? lengthText(Math.ceil(need), unit)) as NumberText;
  const size = (k: "x" | "y" | "z") => part.max[k] - part.min[k];
  const need = (k: "x" | "y" | "z") => size(k) + 2 * stockPractice.cleanUp;
  // Sawn to length: rounded up to a quarter inch or five millimetres.
  const sawn = (mmNeed: number): NumberText =>
    lengthText(Math.ceil(mmNeed / stockPractice.sawnTo[unit] - COINCIDENT) * stockPractice.sawnTo[unit], unit);
  return {
    plate: {
      shape: "plate",
      length: sawn(need("x")),
      width: over(need("y"), sizes.barWidth),
      height: over(need("z"), sizes.plateThickness),
    },
    round: {
      shape: "round",
      diameter: over(
        (isRound ? Math.max(size("x"), size("y")) : Math.hypot(size("x"), size("y"))) + 2 * stockPractice.cleanUp,
        sizes.roundDiameter,
      ),
      height: sawn(need("z")),
    },
  };
}

/** Pieces from a bar: floor((bar - remnant + kerf) / (piece + kerf)). */
export function piecesPerBar(bar: number, piece: number, kerf: number, remnant: number): Result<number> {
  if (piece <= 0 || bar <= 0 || kerf < 0 || remnant < 0) return fail("lengths must be positive");
  return ok(Math.max(0, Math.floor((bar - remnant + kerf + COINCIDENT) / (piece + kerf))));
}

/** What one piece takes of its bar's length: a round bar lies along z, any other along x. */
export const pieceLength = ({ box, diameter }: PlacedStock): number =>
  diameter === undefined ? box.max.x - box.min.x : box.max.z - box.min.z;

/** Whether a part stands out of its stock on a side, by what there is to clean up there. */
export const outsideBy = (allowance: number): boolean => allowance < -CONTACT;
