import { z } from "zod";
import { numberText } from "../../number";
import { ring as ringRegion } from "../shapes";
import { added, all, from, n, place, readPlaced, standOf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("ring"), outer: numberText, inner: numberText, ...place });

export const ring: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "RING",
  group: "shapes",
  examples: [{ text: "RING OD 40 ID 30", inch: "RING OD 1.72 ID 1.31", what: "" }],
  read(r) {
    if (!r.take("RING")) return null;
    r.want("OD");
    const outer = r.diameter("outer");
    r.want("ID");
    return { item: "ring", outer, inner: r.diameter("inner"), ...readPlaced(r) };
  },
  write: (i) => `RING OD ${n(i.outer)} ID ${n(i.inner)}${writePlaced(i)}`,
  numbers(i, put) {
    put.diameter(i.outer, "outer");
    put.diameter(i.inner, "inner");
    put.placed(i);
  },
  apply: (i, work) =>
    from(all<[number, number]>(work.num(i.outer, "length"), work.num(i.inner, "length")), ([outer, inner]) =>
      added(ringRegion(outer, inner), standOf(i, work), work),
    ),
};
