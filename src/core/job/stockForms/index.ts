import { z } from "zod";
import { inCallout } from "../../number";
import type { Reader } from "../../grammar/reader";
import { hexagon } from "./hexagon";
import { plate } from "./plate";
import { round } from "./round";
import { solid } from "./solid";
import { square } from "./square";
import { tube } from "./tube";
import type { StockForm } from "./form";

export type { BarSection, Need, StockForm, UsualSizes } from "./form";
export { at as place3 } from "./at";

// One line a form of stock.
const forms = [plate, round, hexagon, square, tube, solid] as const;
export const stockSchema = z.discriminatedUnion("shape", [
  plate.schema,
  round.schema,
  hexagon.schema,
  square.schema,
  tube.schema,
  solid.schema,
]);
export type Stock = z.infer<typeof stockSchema>;

/** A form by its shape, for whoever does not care which it is. */
type AnyForm = Omit<StockForm<Stock>, "schema" | "write"> & { write(s: Stock): string };
export const stockForms = forms as readonly unknown[] as readonly AnyForm[];
export const formOf = (stock: Pick<Stock, "shape">): AnyForm => stockForms.find((f) => f.shape === stock.shape)!;

/** `PLATE 60 X 40 X 20`, `HEX AF 24 X 50`. */
export function readStockForm(r: Reader): Stock {
  const form = stockForms.find((f) => f.words.some((w) => r.take(w)));
  return form ? form.read(r) : r.fail(`${stockForms.map((f) => f.words[0]).join(", ")}`);
}
export const writeStockForm = (s: Stock): string => {
  const form = formOf(s);
  const place = s.at ? ` AT ${[s.at.x, s.at.y, s.at.z].map(inCallout).join(",")}` : "";
  return `${form.words[0]} ${form.write(s)}${place}`;
};
