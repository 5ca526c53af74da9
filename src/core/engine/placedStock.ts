import { problems } from "./problems";
import { fail, ok, type Problem, type Result } from "../base/result";
import { v3, type Box } from "../geometry/vec";
import type { Stock } from "../job/schema";
import { formOf, type BarSection } from "../job/stockForms";
import type { NumberScope, NumberText } from "../number";
import { valueOf } from "./numbers";

/** A stock with its numbers worked out and its place known. Lengths mm. */
export interface PlacedStock extends Pick<BarSection, "diameter" | "flats" | "bore"> {
  shape: Stock["shape"];
  box: Box;
  volume: number;
}

/**
 * Works out the stock of a job. Without a place the part lies centred in X and Y, the surplus in Z shared evenly.
 * @param part box of the part, or null while there is none
 */
export function placeStock(stock: Stock, scope: NumberScope, part: Box | null): Result<PlacedStock> {
  const form = formOf(stock);
  const texts: Record<string, unknown> = stock;
  const n: Record<string, number> = {};
  for (const { key: f } of form.fields) {
    const r = valueOf(texts[f] as NumberText, "length", scope);
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
  const { x: dx, y: dy, area, ...round } = form.section(n);
  const box: Box = {
    min: v3(at.x - dx / 2, at.y - dy / 2, at.z),
    max: v3(at.x + dx / 2, at.y + dy / 2, at.z + n.height),
  };
  if (!(area > 0)) return fail(problems.stockWithoutMaterial());
  return ok({ shape: stock.shape, box, volume: area * n.height, ...round });
}
