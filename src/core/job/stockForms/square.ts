import { z } from "zod";
import { inCallout, numberText } from "../../number";
import { at } from "./at";
import type { StockForm } from "./form";

const schema = z.strictObject({
  shape: z.literal("square"),
  side: numberText,
  height: numberText,
  at: at.optional(),
});

/** `SQUARE a X l`, standing along z. */
export const square: StockForm<z.infer<typeof schema>> & { schema: typeof schema } = {
  shape: "square",
  label: "square bar",
  words: ["SQUARE"],
  schema,
  fields: [
    { key: "side", label: "Side", usual: "barWidth" },
    { key: "height", label: "Length, along z" },
  ],
  read(r) {
    const side = r.number("side", "a side");
    r.want("X");
    return { shape: "square", side, height: r.number("height", "a length") };
  },
  write: (s) => `${inCallout(s.side)} X ${inCallout(s.height)}`,
  section: ({ side }) => ({ x: side, y: side, area: side ** 2 }),
  propose: (n) => ({ shape: "square", side: n.over(Math.max(n.x, n.y), "barWidth"), height: n.sawn(n.z) }),
  sawn: ["top", "bottom"],
};
