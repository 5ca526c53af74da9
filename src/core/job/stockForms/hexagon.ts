import { z } from "zod";
import { inCallout, numberText } from "../../number";
import { at } from "./at";
import type { StockForm } from "./form";

const schema = z.strictObject({
  shape: z.literal("hexagon"),
  across: numberText,
  height: numberText,
  at: at.optional(),
});

/** `HEX AF a X l`, standing along z with a flat to the front. */
export const hexagon: StockForm<z.infer<typeof schema>> & { schema: typeof schema } = {
  shape: "hexagon",
  label: "hexagon bar",
  words: ["HEX", "HEXAGON"],
  schema,
  fields: [
    { key: "across", label: "Across flats", usual: "roundDiameter" },
    { key: "height", label: "Length, along z" },
  ],
  read(r) {
    r.take("AF");
    const across = r.number("across", "a width across flats");
    r.want("X");
    return { shape: "hexagon", across, height: r.number("height", "a length") };
  },
  write: (s) => `AF ${inCallout(s.across)} X ${inCallout(s.height)}`,
  // A flat to the front: the corners lie along x, 2/√3 of the flats apart.
  section: ({ across }) => ({
    x: (2 * across) / Math.sqrt(3),
    y: across,
    area: (Math.sqrt(3) / 2) * across ** 2,
    flats: across,
  }),
  propose: (n) => ({ shape: "hexagon", across: n.over(n.round, "roundDiameter"), height: n.sawn(n.z) }),
  sawn: ["top", "bottom"],
};
