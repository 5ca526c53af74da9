import { z } from "zod";
import { inCallout, numberText } from "../../number";
import { at } from "./at";
import type { StockForm } from "./form";

const schema = z.strictObject({
  shape: z.literal("round"),
  diameter: numberText,
  height: numberText,
  at: at.optional(),
});

/** `ROUND d X l`, standing along z. */
export const round: StockForm<z.infer<typeof schema>> & { schema: typeof schema } = {
  shape: "round",
  label: "round bar",
  words: ["ROUND"],
  schema,
  fields: [
    { key: "diameter", label: "Diameter", usual: "roundDiameter" },
    { key: "height", label: "Length, along z" },
  ],
  read(r) {
    const diameter = r.diameter("diameter");
    r.want("X");
    return { shape: "round", diameter, height: r.number("height", "a length") };
  },
  write: (s) => `${inCallout(s.diameter)} X ${inCallout(s.height)}`,
  section: ({ diameter }) => ({ x: diameter, y: diameter, area: (Math.PI / 4) * diameter ** 2, diameter }),
  propose: (n) => ({ shape: "round", diameter: n.over(n.round, "roundDiameter"), height: n.sawn(n.z) }),
  sawn: ["top", "bottom"],
};
