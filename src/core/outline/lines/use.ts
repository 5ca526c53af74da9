import { z } from "zod";
import { ok } from "../../base/result";
import { oriented } from "../boolean";
import { moved } from "../shapes";
import { outlineName, place, readName, readPlaced, standOf, writeName, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("use"), outline: outlineName, ...place });

export const use: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  uses: "outline",
  words: "USE",
  group: "made from others",
  examples: [{ text: 'USE "outline"', what: "" }],
  read: (r) => (r.take("USE") ? { item: "use", outline: readName(r), ...readPlaced(r) } : null),
  write: (i) => `USE ${writeName(i.outline)}${writePlaced(i)}`,
  numbers: (i, put) => put.placed(i),
  apply(i, work) {
    const other = work.get(i.outline);
    const stand = standOf(i, work);
    if (!other.ok) return other;
    if (!stand) return null;
    const put = (chains: typeof work.now.open) => moved(chains, stand.at, stand.turn);
    return ok({
      region: oriented([...work.now.region, ...put(other.value.region)]),
      open: [...work.now.open, ...put(other.value.open)],
    });
  },
};
