import { z } from "zod";
import { numberText } from "../../number";
import { added, from, HERE, n, partOf, partRef, readOfPart, rowRef, writeOfPart, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("section"),
  axis: z.enum(["X", "Y", "Z"]),
  at: numberText,
  row: rowRef,
  ...partRef,
});

export const section: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "SECTION",
  group: "made from others",
  examples: [{ text: "SECTION Z 5 AFTER 1", inch: "SECTION Z .19 AFTER 1", what: 'or OF "part": of another part' }],
  read(r, names) {
    if (!r.take("SECTION")) return null;
    const axis = r.takeOne(["X", "Y", "Z"] as const) ?? r.fail("X, Y or Z");
    return { item: "section", axis, at: r.number("at", "where the plane stands"), ...readOfPart(r, names, "AFTER") };
  },
  write: (i, names) => `SECTION ${i.axis} ${n(i.at)} ${writeOfPart(i, names, "AFTER")}`,
  numbers: (i, put) => put.length(i.at, "at"),
  apply: (i, work) =>
    from(work.num(i.at, "coordinate"), (at) =>
      added(work.fromPart({ item: "section", axis: i.axis, at, ...partOf(i) }), HERE, work),
    ),
};
