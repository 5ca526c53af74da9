import { problems } from "../problems";
import { z } from "zod";
import { numberText } from "../../number";
import { fail, ok, type Result } from "../../base/result";
import { star as starRegion } from "../shapes";
import { added, all, from, n, place, readPlaced, standOf, writeIf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("star"),
  points: numberText,
  outer: numberText,
  /** Between the points; or every k-th point joined, which gives it. */
  inner: numberText.optional(),
  step: numberText.optional(),
  ...place,
});

export const star: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "STAR",
  group: "shapes",
  examples: [
    { text: "STAR 5 OD 40 ID 18", inch: "STAR 5 OD 1.72 ID .78", what: "or STEP 2 for ID: every second point joined" },
  ],
  read(r) {
    if (!r.take("STAR")) return null;
    const points = r.number("points", "a number of points");
    const step = r.take("STEP") ? { step: r.number("step", "every which point is joined") } : {};
    r.want("OD");
    const outer = r.diameter("outer");
    if ("step" in step) return { item: "star", points, ...step, outer, ...readPlaced(r) };
    r.want("ID");
    return { item: "star", points, outer, inner: r.diameter("inner"), ...readPlaced(r) };
  },
  write: (i) =>
    `STAR ${n(i.points)}${writeIf(" STEP ", i.step)} OD ${n(i.outer)}${writeIf(" ID ", i.inner)}${writePlaced(i)}`,
  numbers(i, put) {
    put.count(i.points, "points");
    put.count(i.step, "step");
    put.diameter(i.outer, "outer");
    put.diameter(i.inner, "inner");
    put.placed(i);
  },
  apply(i, work) {
    const { num } = work;
    const { step } = i;
    if (step !== undefined) {
      const v = all<[number, number, number]>(num(i.points, "count"), num(step, "count"), num(i.outer, "length"));
      return from(v, ([points, every, outer]) => {
        const inner = innerOf(points, every, outer);
        return inner.ok ? added(starRegion(points, outer, inner.value), standOf(i, work), work) : inner;
      });
    }
    const v = all<[number, number, number]>(num(i.points, "count"), num(i.outer, "length"), num(i.inner!, "length"));
    return from(v, (sizes) => added(starRegion(...sizes), standOf(i, work), work));
  },
};

/**
 * Inner diameter of the star that joins every k-th of n points on a circle: neighbouring chords cross at
 * R cos(πk/n) / cos(π(k-1)/n) from the middle. Elementary geometry.
 */
function innerOf(points: number, every: number, outer: number): Result<number> {
  if (every < 2 || 2 * every >= points) return fail(problems.noStar(every, points));
  return ok((outer * Math.cos((Math.PI * every) / points)) / Math.cos((Math.PI * (every - 1)) / points));
}
