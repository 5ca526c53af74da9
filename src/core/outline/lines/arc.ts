import { z } from "zod";
import { numberText } from "../../number";
import { readPoint, some, writeIf, writeXY, xy, type OutlineLine } from "./common";
import { onceIn, readStep, writeStep } from "./step";

const schema = z.strictObject({
  item: z.literal("arc"),
  to: some.optional(),
  by: some.optional(),
  radius: numberText.optional(),
  centre: xy.optional(),
  sweep: numberText.optional(),
  side: z.enum(["ccw", "cw"]),
  long: z.literal(true).optional(),
  tangent: z.literal(true).optional(),
  close: z.literal(true).optional(),
  near: xy.optional(),
});
type Arc = z.infer<typeof schema>;

export const arc: OutlineLine<Arc> & { schema: typeof schema } = {
  schema,
  words: "ARC",
  group: "steps",
  examples: [
    { text: "ARC TO 10,10 R 10 CW", inch: "ARC TO .5,.5 R .5 CW", what: "radius and end" },
    { text: "ARC TO 10,10 CENTRE 0,10", inch: "ARC TO .5,.5 CENTRE 0,.5", what: "centre and end" },
    { text: "ARC TANGENT SWEEP 90 R 5", inch: "ARC TANGENT SWEEP 90 R .25", what: "smoothly round" },
  ],
  read(r) {
    if (!r.take("ARC")) return null;
    const centre = onceIn(r, "centre", "CENTRE", () => readPoint(r, "centre"));
    const own = {
      R: onceIn(r, "radius", "R", () => r.number("radius", "a radius")),
      CENTRE: centre,
      CENTER: centre,
      SWEEP: onceIn(r, "sweep", "SWEEP", () => r.angle("sweep")),
      CCW: (s: Record<string, unknown>) => void (s.side = "ccw"),
      CW: (s: Record<string, unknown>) => void (s.side = "cw"),
      LONG: (s: Record<string, unknown>) => void (s.long = true),
    };
    const expected = "TO, BY, R, CENTRE, SWEEP, CW, CCW, LONG, TANGENT, NEAR or CLOSE";
    return readStep<Arc>(r, { item: "arc", side: "ccw" }, own, expected);
  },
  write(i) {
    const own = [
      writeIf("R ", i.radius),
      i.centre ? `CENTRE ${writeXY(i.centre)}` : "",
      writeIf("SWEEP ", i.sweep),
      i.side.toUpperCase(),
      i.long ? "LONG" : "",
    ];
    return ["ARC", ...writeStep(i, own)].join(" ");
  },
  numbers(i, put) {
    put.spot(i.to, "to");
    put.spot(i.by, "by");
    put.radius(i.radius, "radius");
    put.spot(i.centre, "centre");
    put.angle(i.sweep, "sweep");
  },
};
