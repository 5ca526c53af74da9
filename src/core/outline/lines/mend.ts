import { z } from "zod";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { mend as mendChains } from "../chains";
import { closed, from, writeIf, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("mend"), gap: numberText.optional() });
/** Gaps that are mended without a size being said, mm. */
const USUAL_GAP = 0.05;

export const mend: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "MEND",
  group: "corners and chains",
  examples: [{ text: "MEND .05", inch: "MEND .002", what: "gaps up to .05" }],
  read(r) {
    if (!r.take("MEND")) return null;
    return { item: "mend", ...(r.seesNumber() ? { gap: r.number("gap", "the widest gap to close") } : {}) };
  },
  write: (i) => `MEND${writeIf(" ", i.gap)}`,
  numbers: (i, put) => put.length(i.gap, "gap"),
  apply: (i, work) =>
    from(i.gap === undefined ? USUAL_GAP : work.num(i.gap, "offset"), (gap) => ok(closed(mendChains(work.now, gap)))),
};
