import { z } from "zod";
import { numberText } from "../../number";
import { segment as segmentRegion } from "../shapes";
import { added, n, place, readPlaced, standOf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("segment"),
  diameter: numberText,
  height: numberText.optional(),
  chord: numberText.optional(),
  ...place,
});

export const segment: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "SEGMENT",
  group: "shapes",
  examples: [{ text: "SEGMENT ⌀40 HEIGHT 10", inch: "SEGMENT ⌀1.72 HEIGHT .44", what: "or CHORD" }],
  read(r) {
    if (!r.take("SEGMENT")) return null;
    const diameter = r.diameter("diameter");
    const which = r.takeOne(["HEIGHT", "CHORD"] as const) ?? r.fail("HEIGHT or CHORD");
    const value = r.number("height", "a length");
    const size = which === "HEIGHT" ? { height: value } : { chord: value };
    return { item: "segment", diameter, ...size, ...readPlaced(r) };
  },
  write: (i) =>
    `SEGMENT ⌀${n(i.diameter)} ${i.height !== undefined ? `HEIGHT ${n(i.height)}` : `CHORD ${n(i.chord!)}`}${writePlaced(i)}`,
  numbers(i, put) {
    put.diameter(i.diameter, "diameter");
    put.length(i.height, "height");
    put.length(i.chord, "chord");
    put.placed(i);
  },
  apply(i, work) {
    const d = work.num(i.diameter, "length");
    const height = i.height === undefined ? undefined : work.num(i.height, "length");
    const chord = i.chord === undefined ? undefined : work.num(i.chord, "length");
    if (d === null || height === null || chord === null) return null;
    return added(segmentRegion(d, { height, chord }), standOf(i, work), work);
  },
};
