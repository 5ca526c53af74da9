import { problems } from "./problems";
import { keyOf } from "../base/key";
import { fail, ok, type Problem, type Result } from "../base/result";
import { sideFrame, v2, v3, type Box, type Vec3 } from "../geometry/vec";
import type { Job, Stock } from "../job/schema";
import { formOf, type BarSection } from "../job/stockForms";
import type { NumberScope, NumberText } from "../number";
import type { BodyStep, SolidKernel } from "./kernel";
import { valueOf } from "./numbers";
import { contentOf } from "./solidFiles";

/** A stock with its numbers worked out and its place known. Lengths mm. */
export interface PlacedStock extends Pick<BarSection, "diameter" | "flats" | "bore"> {
  shape: Stock["shape"];
  box: Box;
  volume: number;
  /** What leaves it, where it is no bar but a solid of its own; and under which key it stands. */
  solid?: { step: BodyStep; key: string };
}

/** Where solids come from that a stock is said to be. */
export interface StockSolids {
  kernel: Pick<SolidKernel, "apply" | "fileBox">;
  solids: Job["solids"];
}

/**
 * Works out the stock of a job. Without a place the part lies centred in X and Y, the surplus in Z shared evenly; a
 * solid of its own lies as its file has it.
 * @param part box of the part, or null while there is none
 */
export function placeStock(
  stock: Stock,
  scope: NumberScope,
  part: Box | null,
  from: StockSolids | null = null,
): Result<PlacedStock> {
  const at = stock.at ? placeOf(stock.at, scope) : ok(null);
  if (!at.ok) return at;
  if (stock.shape === "solid")
    return from ? placeSolid(stock.file, at.value, from) : fail(problems.stockWithoutMaterial());
  return placeBar(stock, scope, part, at.value);
}

function placeOf(at: NonNullable<Stock["at"]>, scope: NumberScope): Result<Vec3> {
  const place = v3(0, 0, 0);
  for (const k of ["x", "y", "z"] as const) {
    const r = valueOf(at[k], "coordinate", scope);
    if (!r.ok) return named(r.problems, `at.${k}`, `stock place ${k}`);
    place[k] = r.value.value;
  }
  return ok(place);
}

const named = (problems: Problem[], path: string, what: string): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: problems.map((p) => ({ ...p, path, message: `${what}: ${p.message}` })),
});

function placeBar(stock: Stock, scope: NumberScope, part: Box | null, place: Vec3 | null): Result<PlacedStock> {
  const form = formOf(stock);
  const texts: Record<string, unknown> = stock;
  const n: Record<string, number> = {};
  for (const { key } of form.fields) {
    const r = valueOf(texts[key] as NumberText, "length", scope);
    if (!r.ok) return named(r.problems, key, `stock ${key}`);
    n[key] = r.value.value;
  }
  const at = place ?? (part ? shared(part, n.height) : v3(0, 0, 0));
  const { x: dx, y: dy, area, ...round } = form.section!(n);
  const box: Box = {
    min: v3(at.x - dx / 2, at.y - dy / 2, at.z),
    max: v3(at.x + dx / 2, at.y + dy / 2, at.z + n.height),
  };
  if (!(area > 0)) return fail(problems.stockWithoutMaterial());
  return ok({ shape: stock.shape, box, volume: area * n.height, ...round });
}

/** The part in the middle of a bar, the surplus in height shared evenly. */
const shared = ({ min, max }: Box, height: number): Vec3 =>
  v3((min.x + max.x) / 2, (min.y + max.y) / 2, min.z - (height - (max.z - min.z)) / 2);

/** A solid of its own, its file's X0 Y0 Z0 laid where the stock is said to lie. */
function placeSolid(file: string, place: Vec3 | null, { kernel, solids }: StockSolids): Result<PlacedStock> {
  const content = contentOf(file, solids);
  if (content === null) return fail(problems.noSolidFile(file), { path: "file" });
  const box = kernel.fileBox(content, file);
  if (!box.ok) return box;
  const { x, y, z } = place ?? v3(0, 0, 0);
  const step: BodyStep = {
    op: "leave",
    row: "stock",
    frame: sideFrame("top", z),
    body: { body: "imported", file, content, box: box.value },
    places: [v2(x, y)],
  };
  const key = keyOf(null, step);
  const made = kernel.apply(key, null, step);
  if (!made.ok) return made;
  return ok({ shape: "solid", box: made.value.box, volume: made.value.volume, solid: { step, key } });
}
