import { z } from "zod";
import { inCallout, numberText } from "../../number";
import { at } from "./at";
import type { StockForm } from "./form";

const schema = z.strictObject({
  shape: z.literal("plate"),
  length: numberText,
  width: numberText,
  height: numberText,
  at: at.optional(),
});

/** `PLATE l X w X h`. */
export const plate: StockForm<z.infer<typeof schema>> & { schema: typeof schema } = {
  shape: "plate",
  label: "plate or bar",
  words: ["PLATE", "BAR"],
  schema,
  fields: [
    { key: "length", label: "Length, along x" },
    { key: "width", label: "Width, along y", usual: "barWidth" },
    { key: "height", label: "Height, along z", usual: "plateThickness" },
  ],
  read(r) {
    const length = r.number("length", "a length");
    r.want("X");
    const width = r.number("width", "a width");
    r.want("X");
    return { shape: "plate", length, width, height: r.number("height", "a height") };
  },
  write: (s) => `${inCallout(s.length)} X ${inCallout(s.width)} X ${inCallout(s.height)}`,
  section: ({ length, width }) => ({ x: length, y: width, area: length * width }),
  propose: (n) => ({
    shape: "plate",
    length: n.sawn(n.x),
    width: n.over(n.y, "barWidth"),
    height: n.over(n.z, "plateThickness"),
  }),
  sawn: ["left", "right", "front", "back"],
};
