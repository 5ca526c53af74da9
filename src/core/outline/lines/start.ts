import { z } from "zod";
import { readPoint, writeXY, xy, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("start"), at: xy });

export const start: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "START",
  group: "steps",
  examples: [{ text: "START 0,0", what: "where the walk begins" }],
  read: (r) => (r.take("START") ? { item: "start", at: readPoint(r, "at") } : null),
  write: (i) => `START ${writeXY(i.at)}`,
  numbers: (i, put) => put.spot(i.at, "at"),
};
