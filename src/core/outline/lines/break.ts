import { z } from "zod";
import { ok } from "../../base/result";
import { breakAt } from "../chains";
import { closed, readPoint, spotOf, writeXY, xy, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("break"), at: xy });

export const breakLine: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "BREAK",
  group: "corners and chains",
  examples: [{ text: "BREAK AT 10,0", inch: "BREAK AT .5,0", what: "" }],
  read(r) {
    if (!r.take("BREAK")) return null;
    r.take("AT");
    return { item: "break", at: readPoint(r, "at") };
  },
  write: (i) => `BREAK AT ${writeXY(i.at)}`,
  numbers: (i, put) => put.spot(i.at, "at"),
  apply(i, work) {
    const at = spotOf(i.at, work);
    if (!at) return null;
    const made = breakAt(work.now, at);
    return made.ok ? ok(closed(made.value)) : made;
  },
};
