import { z } from "zod";
import { numberText } from "../../number";
import { some, writeIf, xy, type OutlineLine } from "./common";
import { onceIn, readStep, writeStep } from "./step";

const schema = z.strictObject({
  item: z.literal("line"),
  to: some.optional(),
  by: some.optional(),
  length: numberText.optional(),
  angle: numberText.optional(),
  tangent: z.literal(true).optional(),
  close: z.literal(true).optional(),
  near: xy.optional(),
});
type Line = z.infer<typeof schema>;

export const line: OutlineLine<Line> & { schema: typeof schema } = {
  schema,
  words: "LINE, CLOSE",
  group: "steps",
  examples: [
    { text: "LINE TO X 40", inch: "LINE TO X 1.72", what: "only what changes" },
    { text: "LINE BY 10,-5", inch: "LINE BY .5,-.25", what: "from where it stands" },
    { text: "LINE L 20 A 30", inch: "LINE L .875 A 30", what: "length and angle" },
    { text: "LINE TANGENT L 20", inch: "LINE TANGENT L .875", what: "smoothly on" },
    { text: "LINE TO ?,20", inch: "LINE TO ?,.875", what: "x open: found from the rest" },
    { text: "LINE TO X ⌀40", inch: "LINE TO X ⌀1.72", what: "a diameter, for turned profiles" },
    { text: "CLOSE", what: "a line home" },
  ],
  read(r) {
    if (r.take("CLOSE")) return { item: "line", close: true };
    if (!r.take("LINE")) return null;
    const own = {
      L: onceIn(r, "length", "L", () => r.number("length", "a length")),
      A: onceIn(r, "angle", "A", () => r.angle("angle")),
    };
    return readStep<Line>(r, { item: "line" }, own, "TO, BY, L, A, TANGENT, NEAR or CLOSE");
  },
  write(i) {
    const words = writeStep(i, [writeIf("L ", i.length), writeIf("A ", i.angle)]);
    return words.length === 1 && i.close ? "CLOSE" : ["LINE", ...words].join(" ");
  },
  numbers(i, put) {
    put.spot(i.to, "to");
    put.spot(i.by, "by");
    put.length(i.length, "length");
    put.angle(i.angle, "angle");
  },
};
