import { z } from "zod";
import { numberText } from "../../number";
import { rectangle as rectangleRegion } from "../shapes";
import { added, all, from, n, place, readPlaced, standOf, writeIf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("rectangle"),
  length: numberText,
  width: numberText,
  radius: numberText.optional(),
  corner: z.literal(true).optional(),
  ...place,
});

export const rectangle: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "RECTANGLE",
  group: "shapes",
  examples: [{ text: "RECTANGLE 40 X 20 R5", inch: "RECTANGLE 1.72 X .875 R.19", what: "CORNER: from its lower left" }],
  read(r) {
    if (!r.take("RECTANGLE")) return null;
    const length = r.number("length", "a length");
    r.want("X");
    const width = r.number("width", "a width");
    const radius = r.take("R") ? { radius: r.number("radius", "a radius") } : {};
    const corner = r.take("CORNER") ? { corner: true as const } : {};
    return { item: "rectangle", length, width, ...radius, ...corner, ...readPlaced(r) };
  },
  write: (i) =>
    `RECTANGLE ${n(i.length)} X ${n(i.width)}${writeIf(" R", i.radius)}${i.corner ? " CORNER" : ""}${writePlaced(i)}`,
  numbers(i, put) {
    put.length(i.length, "length");
    put.length(i.width, "width");
    put.radius(i.radius, "radius");
    put.placed(i);
  },
  apply(i, work) {
    const radius = i.radius === undefined ? 0 : work.num(i.radius, "offset");
    const v = all<[number, number, number]>(work.num(i.length, "length"), work.num(i.width, "length"), radius);
    return from(v, ([l, w, r]) => added(rectangleRegion(l, w, r, Boolean(i.corner)), standOf(i, work), work));
  },
};
