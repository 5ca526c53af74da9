import { z } from "zod";
import { numberText } from "../../number";
import { slot as slotRegion } from "../shapes";
import { added, all, from, n, place, readPlaced, standOf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("slot"),
  length: numberText,
  width: numberText,
  centres: z.literal(true).optional(),
  ...place,
});

export const slot: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "SLOT",
  group: "shapes",
  examples: [{ text: "SLOT 40 X 10", inch: "SLOT 1.72 X .44", what: "over all, or SLOT CENTRES" }],
  read(r) {
    if (!r.take("SLOT")) return null;
    const centres = r.take("CENTRES") || r.take("CENTERS") ? { centres: true as const } : {};
    const length = r.number("length", "a length");
    r.want("X");
    return { item: "slot", length, width: r.number("width", "a width"), ...centres, ...readPlaced(r) };
  },
  write: (i) => `SLOT ${i.centres ? "CENTRES " : ""}${n(i.length)} X ${n(i.width)}${writePlaced(i)}`,
  numbers(i, put) {
    put.length(i.length, "length");
    put.length(i.width, "width");
    put.placed(i);
  },
  apply: (i, work) =>
    from(all<[number, number]>(work.num(i.length, "length"), work.num(i.width, "length")), ([l, w]) =>
      added(slotRegion(l, w, Boolean(i.centres)), standOf(i, work), work),
    ),
};
