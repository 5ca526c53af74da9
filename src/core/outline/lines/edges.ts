import { z } from "zod";
import type { Reader } from "../../grammar/reader";
import {
  added,
  place,
  partOf,
  partRef,
  readOfPart,
  readPlaced,
  rowRef,
  standOf,
  writeOfPart,
  writePlaced,
  type OutlineLine,
} from "./common";

const words = {
  mouthOf: { first: "MOUTH", then: "", row: "OF" },
  floorOf: { first: "FLOOR", then: "", row: "OF" },
  outerTop: { first: "OUTER", then: "TOP", row: "AFTER" },
  outerBottom: { first: "OUTER", then: "BOTTOM", row: "AFTER" },
} as const;
type Which = keyof typeof words;
const all = Object.keys(words) as Which[];
const schema = z.strictObject({ item: z.literal("edges"), edges: z.enum(all), row: rowRef, ...partRef, ...place });

function readWhich(r: Reader): Which {
  const first = r.takeOne(["MOUTH", "FLOOR", "OUTER"] as const);
  if (!first) return r.fail("MOUTH OF n, FLOOR OF n, OUTER TOP AFTER n or OUTER BOTTOM AFTER n");
  const then = first === "OUTER" ? (r.takeOne(["TOP", "BOTTOM"] as const) ?? r.fail("TOP or BOTTOM")) : "";
  return all.find((w) => words[w].first === first && words[w].then === then)!;
}

export const edges: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "EDGES",
  group: "made from others",
  examples: [{ text: "EDGES MOUTH OF 2", what: "or OUTER TOP AFTER 2" }],
  read(r, names) {
    if (!r.take("EDGES")) return null;
    const which = readWhich(r);
    return { item: "edges", edges: which, ...readOfPart(r, names, words[which].row), ...readPlaced(r) };
  },
  write(i, names) {
    const { first, then, row } = words[i.edges];
    return `EDGES ${[first, then, writeOfPart(i, names, row)].filter(Boolean).join(" ")}${writePlaced(i)}`;
  },
  numbers: (i, put) => put.placed(i),
  apply: (i, work) => added(work.fromPart({ item: "edges", edges: i.edges, ...partOf(i) }), standOf(i, work), work),
};
