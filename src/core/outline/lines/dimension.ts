import { z } from "zod";
import { numberText } from "../../number";
import { n, type OutlineLine } from "./common";
import { readRefs, refList } from "./refs";

/** Least and most things each dimension is between, and what its number is. */
const kinds = {
  distance: { of: [2, 2], role: "length" },
  dx: { of: [2, 2], role: "length" },
  dy: { of: [2, 2], role: "length" },
  angle: { of: [1, 2], role: "angle" },
  length: { of: [1, 1], role: "length" },
  radius: { of: [1, 1], role: "radius" },
  diameter: { of: [1, 1], role: "diameter" },
} as const;
export const dimensions = Object.keys(kinds) as (keyof typeof kinds)[];

const schema = z.strictObject({
  item: z.literal("dimension"),
  dimension: z.enum(dimensions),
  of: refList(1, 2),
  value: numberText,
});

export const dimension: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "a dimension",
  group: "relations and dimensions",
  examples: [
    { text: "DISTANCE P1 P3 20", inch: "DISTANCE P1 P3 .875", what: "or DX, DY" },
    { text: "ANGLE 1 2 60", what: "" },
    { text: "RADIUS 3 10", inch: "RADIUS 3 .44", what: "or DIAMETER, LENGTH" },
  ],
  read(r) {
    const found = dimensions.find((name) => r.take(name.toUpperCase()));
    if (!found) return null;
    const [least, most] = kinds[found].of;
    // The last number is the value: `ANGLE 1 60` has one element, `ANGLE 1 2 60` two.
    const numbers = r.text.slice(r.pos).trim().split(/\s+/).length;
    const of = readRefs(r, least, Math.max(least, Math.min(most, numbers - 1)));
    r.take("=");
    r.take("⌀");
    const value = kinds[found].role === "angle" ? r.angle("value") : r.number("value", "a value");
    return { item: "dimension", dimension: found, of, value };
  },
  write: (i) => `${i.dimension.toUpperCase()} ${i.of.join(" ")} ${n(i.value)}`,
  numbers: (i, put) => put[kinds[i.dimension].role](i.value, "value"),
};
