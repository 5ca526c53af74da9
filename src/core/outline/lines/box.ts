import { z } from "zod";
import { v2 } from "../../geometry/vec";
import { numberText, toNumberText } from "../../number";
import { fail, ok } from "../../base/result";
import { joined, type Region } from "../boolean";
import { loopArea, loopBox, rectangleBetween } from "../outline";
import { problems } from "../problems";
import { from, n, type OutlineLine } from "./common";

const schema = z.strictObject({ item: z.literal("box"), x: numberText.optional(), y: numberText.optional() });

const NONE = toNumberText("0");

/** The rectangle round each shape, square to x and y; farther out by so much on each side along x and y. */
export const box: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "BOX",
  group: "made from others",
  examples: [{ text: "BOX BY 10 X 0", inch: "BOX BY .4 X 0", what: "the rectangle round it, so much farther out" }],
  read(r) {
    if (!r.take("BOX")) return null;
    if (!r.take("BY")) return { item: "box" };
    const x = r.number("x", "how much farther out along x");
    r.want("X");
    return { item: "box", x, y: r.number("y", "how much farther out along y") };
  },
  write: (i) => (i.x === undefined || i.y === undefined ? "BOX" : `BOX BY ${n(i.x)} X ${n(i.y)}`),
  numbers(i, put) {
    put.length(i.x, "x");
    put.length(i.y, "y");
  },
  apply: (i, { now, num }) =>
    from(num(i.x ?? NONE, "coordinate"), (x) =>
      from(num(i.y ?? NONE, "coordinate"), (y) => {
        const outer = [...now.region.filter((l) => loopArea(l) > 0), ...now.open];
        const boxes = outer.map((chain) => {
          const { min, max } = loopBox(chain);
          return rectangleBetween(v2(min.x - x, min.y - y), v2(max.x + x, max.y + y));
        });
        const isNone = boxes.some((b) => !(loopArea(b) > 0));
        if (!boxes.length || isNone) return fail(problems.nothingLeftByOffset());
        return ok({ region: boxes.reduce<Region>((all, b) => joined(all, [b]), []), open: [] });
      }),
    ),
};
