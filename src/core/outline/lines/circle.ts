import { z } from "zod";
import { numberText } from "../../number";
import { ok } from "../../base/result";
import { circle as circleLoop } from "../outline";
import { added, from, n, place, readPlaced, standOf, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("circle"), diameter: numberText, ...place });

export const circle: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "CIRCLE",
  group: "shapes",
  examples: [{ text: "CIRCLE ⌀20 AT 0,0", inch: "CIRCLE ⌀.875 AT 0,0", what: "" }],
  read: (r) => (r.take("CIRCLE") ? { item: "circle", diameter: r.diameter("diameter"), ...readPlaced(r) } : null),
  write: (i) => `CIRCLE ⌀${n(i.diameter)}${writePlaced(i)}`,
  numbers(i, put) {
    put.diameter(i.diameter, "diameter");
    put.placed(i);
  },
  apply: (i, work) =>
    from(work.num(i.diameter, "length"), (d) => added(ok([circleLoop(d / 2)]), standOf(i, work), work)),
};
