import { z } from "zod";
import { numberText } from "../../number";
import { star as starRegion } from "../shapes";
import { added, all, from, n, place, readPlaced, standOf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("star"),
  points: numberText,
  outer: numberText,
  inner: numberText,
  ...place,
});

export const star: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "STAR",
  group: "shapes",
  examples: [{ text: "STAR 5 OD 40 ID 18", inch: "STAR 5 OD 1.72 ID .78", what: "" }],
  read(r) {
    if (!r.take("STAR")) return null;
    const points = r.number("points", "a number of points");
    r.want("OD");
    const outer = r.diameter("outer");
    r.want("ID");
    return { item: "star", points, outer, inner: r.diameter("inner"), ...readPlaced(r) };
  },
  write: (i) => `STAR ${n(i.points)} OD ${n(i.outer)} ID ${n(i.inner)}${writePlaced(i)}`,
  numbers(i, put) {
    put.count(i.points, "points");
    put.diameter(i.outer, "outer");
    put.diameter(i.inner, "inner");
    put.placed(i);
  },
  apply(i, work) {
    const { num } = work;
    const v = all<[number, number, number]>(num(i.points, "count"), num(i.outer, "length"), num(i.inner, "length"));
    return from(v, (sizes) => added(starRegion(...sizes), standOf(i, work), work));
  },
};
