import { z } from "zod";
import { numberText } from "../../number";
import { polygon as polygonRegion } from "../shapes";
import { added, all, from, n, place, readPlaced, standOf, writeIf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("polygon"),
  sides: numberText,
  across: z.enum(["AF", "AC"]),
  size: numberText,
  radius: numberText.optional(),
  ...place,
});

export const polygon: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "POLYGON",
  group: "shapes",
  examples: [{ text: "POLYGON 6 AF 24", inch: "POLYGON 6 AF .94", what: "or AC" }],
  read(r) {
    if (!r.take("POLYGON")) return null;
    const sides = r.number("sides", "a number of sides");
    const across = r.takeOne(["AF", "AC"] as const) ?? r.fail("AF or AC");
    const size = r.number("size", "a size");
    const radius = r.take("R") ? { radius: r.number("radius", "a radius") } : {};
    return { item: "polygon", sides, across, size, ...radius, ...readPlaced(r) };
  },
  write: (i) => `POLYGON ${n(i.sides)} ${i.across} ${n(i.size)}${writeIf(" R", i.radius)}${writePlaced(i)}`,
  numbers(i, put) {
    put.count(i.sides, "sides");
    put.length(i.size, "size");
    put.radius(i.radius, "radius");
    put.placed(i);
  },
  apply(i, work) {
    const radius = i.radius === undefined ? 0 : work.num(i.radius, "offset");
    const v = all<[number, number, number]>(work.num(i.sides, "count"), work.num(i.size, "length"), radius);
    return from(v, ([sides, size, r]) => added(polygonRegion(sides, i.across, size, r), standOf(i, work), work));
  },
};
