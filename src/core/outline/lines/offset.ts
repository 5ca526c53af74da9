import { problems } from "../problems";
import { z } from "zod";
import { numberText } from "../../number";
import { fail, ok } from "../../base/result";
import { band, combine, offsetRegion, oriented, type Region } from "../boolean";
import { from, n, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("offset"), by: numberText, both: z.literal(true).optional() });

export const offset: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "OFFSET",
  group: "made from others",
  examples: [{ text: "OFFSET 2", inch: "OFFSET .08", what: "BOTH: a band" }],
  read(r) {
    if (!r.take("OFFSET")) return null;
    return { item: "offset", by: r.number("by", "a distance"), ...(r.take("BOTH") ? { both: true as const } : {}) };
  },
  write: (i) => `OFFSET ${n(i.by)}${i.both ? " BOTH" : ""}`,
  numbers: (i, put) => put.length(i.by, "by"),
  apply: (i, { now, num }) =>
    from(num(i.by, "coordinate"), (by) => {
      const wide = Math.abs(by);
      const ring = () => combine(offsetRegion(now.region, wide), offsetRegion(now.region, -wide), "cutout");
      const grown: Region = i.both ? ring() : offsetRegion(now.region, by);
      if (now.open.length) {
        // An open chain becomes the band on both its sides.
        const alone = !i.both && by !== 0 && !now.region.length;
        const bands = now.open.reduce<Region>((all, c) => combine(all, band(c, wide), "join"), alone ? [] : grown);
        return ok({ region: oriented(bands), open: [] });
      }
      return grown.length ? ok({ ...now, region: oriented(grown) }) : fail(problems.nothingLeftByOffset());
    }),
};
