import { problems } from "./problems";
import type { Job, Stock } from "../job/schema";
import { formOf, stockForms, type Need } from "../job/stockForms";
import {
  lengthText,
  toInside,
  evaluateNumber,
  UNKNOWN,
  type NumberScope,
  type NumberText,
  byFigures,
  unitOf,
} from "../number";
import { stockPractice, stockSizes } from "../tables";
import { fail, ok, type Result } from "../base/result";
import type { Box, Side } from "../geometry/vec";
import type { EdgeInfo } from "../engine/kernel";
import type { PlacedStock } from "../engine/placedStock";
import { COINCIDENT, CONTACT, PARALLEL } from "../geometry/tolerance";

export type Allowance = Record<Side, number>;

/** What there is to clean up on every side; negative where the part sticks out. */
export const allowanceOf = (stock: PlacedStock, part: Box): Allowance => ({
  left: part.min.x - stock.box.min.x,
  right: stock.box.max.x - part.max.x,
  front: part.min.y - stock.box.min.y,
  back: stock.box.max.y - part.max.y,
  bottom: part.min.z - stock.box.min.z,
  top: stock.box.max.z - part.max.z,
});

/** Flats of a hexagon bar: the first looks to the front. */
const hexagonSides = Array.from({ length: 6 }, (_, k) => -Math.PI / 2 + (k * Math.PI) / 3);

/**
 * How far the part stays inside what bounds a bar besides its box (a round, flats all round, a bore), measured on its
 * edges; negative where it sticks out. Null where the box is all there is.
 */
export function radialAllowance(stock: PlacedStock, edges: EdgeInfo[]): number | null {
  const { diameter, flats, bore } = stock;
  if (diameter === undefined && flats === undefined) return null;
  const c = { x: (stock.box.min.x + stock.box.max.x) / 2, y: (stock.box.min.y + stock.box.max.y) / 2 };
  let least = Infinity;
  const look = (p: { x: number; y: number }, radius: number) => {
    const [x, y] = [p.x - c.x, p.y - c.y];
    const away = Math.hypot(x, y);
    if (diameter !== undefined) least = Math.min(least, diameter / 2 - away - radius);
    if (flats !== undefined)
      for (const a of hexagonSides) least = Math.min(least, flats / 2 - x * Math.cos(a) - y * Math.sin(a) - radius);
    if (bore !== undefined) least = Math.min(least, Math.abs(away - radius) - bore / 2);
  };
  for (const e of edges) {
    // Of a whole level circle the farthest point lies beyond its centre.
    const whole =
      e.curve === "circle" && Math.abs(e.axis!.z) > PARALLEL && e.length > 2 * Math.PI * e.radius! - CONTACT;
    if (whole) look(e.centre!, e.radius!);
    else if (e.length > 0) for (const p of [e.from, e.to, e.middle]) look(p, 0);
  }
  return least;
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
  bore = 0,
): Partial<Record<Stock["shape"], Stock>> {
  const sizes = stockSizes.rows.find((r) => r.unit === unitOf[unit].figures)!;
  const mm = lengthIn(scope, unit);
  const sawnTo = byFigures(unit, stockPractice.sawnTo);
  const sawn = (least: number) => lengthText(Math.ceil(least / sawnTo - COINCIDENT) * sawnTo, unit);
  const need: Need = {
    ...sizesNeeded(part, isRound),
    bore: bore - 2 * stockPractice.cleanUp,
    over: (least, list) => (sizes[list].find((t) => mm(t) >= least - COINCIDENT) as NumberText) ?? sawn(least),
    under: (most) =>
      ([...sizes.roundDiameter].reverse().find((t) => mm(t) <= most + COINCIDENT) ?? UNKNOWN) as NumberText,
    sawn,
  };
  return Object.fromEntries(
    stockForms.flatMap((f) => {
      const proposed = f.propose(need);
      return proposed ? [[f.shape, proposed] as const] : [];
    }),
  );
}

const lengthIn = (scope: NumberScope, unit: Job["unit"]) => (t: string) => {
  const r = evaluateNumber(t, "length", scope);
  return r.ok ? r.value.value : toInside(Number(t), "length", unit);
};

/** What a part needs each way, with something to clean up. */
function sizesNeeded(part: Box, isRound: boolean): Pick<Need, "x" | "y" | "z" | "round"> {
  const size = (k: "x" | "y" | "z") => part.max[k] - part.min[k];
  const round = isRound ? Math.max(size("x"), size("y")) : Math.hypot(size("x"), size("y"));
  const withCleanUp = (n: number) => n + 2 * stockPractice.cleanUp;
  return { x: withCleanUp(size("x")), y: withCleanUp(size("y")), z: withCleanUp(size("z")), round: withCleanUp(round) };
}

/**
 * A stock with just those sizes the next larger that are too small; the others, and where it lies, stay as they were
 * chosen. A stock that begins over the part's underside is laid lower.
 * @returns null where no size of it would do
 */
export function grownStock(
  stock: Stock,
  placed: PlacedStock,
  part: Box,
  unit: Job["unit"],
  scope: NumberScope,
  isRound: boolean,
): Stock | null {
  const seen = stock.at ? aboutPlace(placed.box, part) : part;
  const off = stock.at ? offCentre(placed.box, part) : 0;
  const larger = proposeStock(seen, unit, scope, isRound && off < CONTACT)[stock.shape];
  if (!larger) return null;
  const mm = lengthIn(scope, unit);
  const needed = sizesNeeded(seen, isRound && off < CONTACT);
  // What is needed, bare of the sizes that are sold: a size that holds it stays.
  const bare = formOf(stock).propose({
    ...needed,
    bore: 0,
    over: (least) => String(least) as NumberText,
    sawn: (least) => String(least) as NumberText,
    under: () => UNKNOWN as NumberText,
  });
  const sizes = formOf(stock).fields.map(({ key }) => {
    const [now, next, least] = [stock, larger, bare].map((s) => sizeText(s, key));
    const holds = least === UNKNOWN || mm(now) >= Number(least) - CONTACT;
    return [key, holds ? now : next] as const;
  });
  const isBelow = stock.at && part.min.z < placed.box.min.z + CONTACT;
  const at = isBelow ? { at: { ...stock.at, z: lengthText(part.min.z - stockPractice.cleanUp, unit) } } : {};
  return { ...stock, ...Object.fromEntries(sizes), ...at } as Stock;
}

/** A size of a stock as it is typed; what it has none of is not known. */
function sizeText(stock: object | null, key: string): string {
  const texts: Record<string, unknown> = { ...stock };
  return String(texts[key] ?? UNKNOWN);
}

/** The box a part takes about the middle of a stock that stays where it lies: as far to either side. */
function aboutPlace(stock: Box, part: Box): Box {
  const half = (k: "x" | "y"): [number, number] => {
    const middle = (stock.min[k] + stock.max[k]) / 2;
    const reach = Math.max(part.max[k] - middle, middle - part.min[k]);
    return [middle - reach, middle + reach];
  };
  const [x, y] = [half("x"), half("y")];
  // It stands on its underside: what is needed grows upwards from there, unless that has to be laid lower.
  const low = part.min.z < stock.min.z + CONTACT ? part.min.z : stock.min.z + stockPractice.cleanUp;
  return { min: { x: x[0], y: y[0], z: low }, max: { x: x[1], y: y[1], z: part.max.z } };
}
const offCentre = (stock: Box, part: Box): number =>
  Math.hypot(
    (stock.min.x + stock.max.x - part.min.x - part.max.x) / 2,
    (stock.min.y + stock.max.y - part.min.y - part.max.y) / 2,
  );

/** Pieces from a bar: floor((bar - remnant + kerf) / (piece + kerf)). */
export function piecesPerBar(bar: number, piece: number, kerf: number, remnant: number): Result<number> {
  if (piece <= 0 || bar <= 0 || kerf < 0 || remnant < 0) return fail(problems.lengthNotPositive());
  return ok(Math.max(0, Math.floor((bar - remnant + kerf + COINCIDENT) / (piece + kerf))));
}

/** What one piece takes of its bar's length: what is sawn at its sides lies along x, any other along z. */
export const pieceLength = ({ box, shape }: PlacedStock): number =>
  formOf({ shape }).sawn.includes("left") ? box.max.x - box.min.x : box.max.z - box.min.z;

/** Whether a part stands out of its stock on a side, by what there is to clean up there. */
export const outsideBy = (allowance: number): boolean => allowance < -CONTACT;
