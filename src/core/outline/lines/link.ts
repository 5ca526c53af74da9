import { z } from "zod";
import { numberText } from "../../number";
import { link as linkRegion } from "../shapes";
import { added, HERE, n, readPoint, spotOf, writeXY, xy, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("link"),
  first: numberText,
  firstAt: xy,
  second: numberText,
  secondAt: xy,
});

export const link: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "LINK",
  group: "shapes",
  examples: [
    {
      text: "LINK ⌀20 AT 0,0 ⌀10 AT 30,0",
      inch: "LINK ⌀.875 AT 0,0 ⌀.44 AT 1.25,0",
      what: "two circles and their tangents",
    },
  ],
  read(r) {
    if (!r.take("LINK")) return null;
    const first = r.diameter("first");
    r.want("AT");
    const firstAt = readPoint(r, "firstAt");
    const second = r.diameter("second");
    r.want("AT");
    return { item: "link", first, firstAt, second, secondAt: readPoint(r, "secondAt") };
  },
  write: (i) => `LINK ⌀${n(i.first)} AT ${writeXY(i.firstAt)} ⌀${n(i.second)} AT ${writeXY(i.secondAt)}`,
  numbers(i, put) {
    put.diameter(i.first, "first");
    put.spot(i.firstAt, "firstAt");
    put.diameter(i.second, "second");
    put.spot(i.secondAt, "secondAt");
  },
  apply(i, work) {
    const [first, firstAt] = [work.num(i.first, "length"), spotOf(i.firstAt, work)];
    const [second, secondAt] = [work.num(i.second, "length"), spotOf(i.secondAt, work)];
    if (first === null || second === null || !firstAt || !secondAt) return null;
    return added(linkRegion(first, firstAt, second, secondAt), HERE, work);
  },
};
