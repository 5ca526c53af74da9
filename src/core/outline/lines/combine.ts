import { z } from "zod";
import { ok } from "../../base/result";
import { combine as combined, joined, oriented } from "../boolean";
import { moved } from "../shapes";
import { outlineName, place, readName, readPlaced, standOf, writeName, writePlaced, type OutlineLine } from "./common";

const ways = ["join", "cutout", "overlap"] as const;
const schema = z.strictObject({ item: z.enum(ways), outline: outlineName, ...place });

export const combine: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  uses: "outline",
  words: "JOIN, CUTOUT, OVERLAP",
  group: "made from others",
  examples: [{ text: 'JOIN "outline"', what: "or CUTOUT, OVERLAP" }],
  read(r) {
    const item = ways.find((w) => r.take(w.toUpperCase()));
    return item ? { item, outline: readName(r), ...readPlaced(r) } : null;
  },
  write: (i) => `${i.item.toUpperCase()} ${writeName(i.outline)}${writePlaced(i)}`,
  numbers: (i, put) => put.placed(i),
  apply(i, work) {
    const other = work.get(i.outline);
    const stand = standOf(i, work);
    if (!other.ok) return other;
    if (!stand) return null;
    const region = moved(other.value.region, stand.at, stand.turn);
    const { now } = work;
    return ok({
      ...now,
      region: oriented(i.item === "join" ? joined(now.region, region) : combined(now.region, region, i.item)),
    });
  },
};
