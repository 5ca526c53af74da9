import { z } from "zod";
import { inCallout, numberText } from "../../number";
import { at } from "./at";
import type { StockForm } from "./form";

const schema = z.strictObject({
  shape: z.literal("tube"),
  outer: numberText,
  inner: numberText,
  height: numberText,
  at: at.optional(),
});

/** `TUBE OD d ID d X l`, standing along z. */
export const tube: StockForm<z.infer<typeof schema>> & { schema: typeof schema } = {
  shape: "tube",
  label: "tube",
  words: ["TUBE"],
  schema,
  fields: [
    { key: "outer", label: "Outside ⌀", usual: "roundDiameter" },
    { key: "inner", label: "Bore ⌀" },
    { key: "height", label: "Length, along z" },
  ],
  read(r) {
    r.want("OD");
    const outer = r.diameter("outer");
    r.want("ID");
    const inner = r.diameter("inner");
    r.want("X");
    return { shape: "tube", outer, inner, height: r.number("height", "a length") };
  },
  write: (s) => `OD ${inCallout(s.outer)} ID ${inCallout(s.inner)} X ${inCallout(s.height)}`,
  section: ({ outer, inner }) => ({
    x: outer,
    y: outer,
    area: (Math.PI / 4) * (outer ** 2 - inner ** 2),
    diameter: outer,
    bore: inner,
  }),
  propose: (n) => ({
    shape: "tube",
    outer: n.over(n.round, "roundDiameter"),
    inner: n.under(n.bore),
    height: n.sawn(n.z),
  }),
  sawn: ["top", "bottom"],
};
