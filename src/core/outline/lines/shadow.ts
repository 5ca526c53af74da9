import { z } from "zod";
import {
  added,
  partOf,
  partRef,
  place,
  readOfPart,
  readPlaced,
  rowRef,
  standOf,
  writeOfPart,
  writePlaced,
  type OutlineLine,
} from "./common";

const schema = z.strictObject({ item: z.literal("shadow"), row: rowRef, ...partRef, ...place });

/** What a part covers as it is seen from above: what goes into a nest from above has to be in its shadow. */
export const shadow: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "SHADOW",
  group: "made from others",
  examples: [{ text: "SHADOW AFTER 1", what: "all that the part covers, seen from above" }],
  read(r, names) {
    if (!r.take("SHADOW")) return null;
    return { item: "shadow", ...readOfPart(r, names, "AFTER"), ...readPlaced(r) };
  },
  write: (i, names) => `SHADOW ${writeOfPart(i, names, "AFTER")}${writePlaced(i)}`,
  numbers: (i, put) => put.placed(i),
  apply: (i, work) => added(work.fromPart({ item: "shadow", ...partOf(i) }), standOf(i, work), work),
};
