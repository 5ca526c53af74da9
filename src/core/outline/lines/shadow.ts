import { z } from "zod";
import { sides, type Side } from "../../geometry/vec";
import { inCallout, numberText } from "../../number";
import { ok, type Result } from "../../base/result";
import type { Region } from "../boolean";
import type { PartItem } from "../fromPart";
import { loopArea } from "../outline";
import {
  added,
  from,
  partOf,
  partRef,
  place,
  readOfPart,
  readPlaced,
  rowRef,
  standOf,
  writeOfPart,
  writePlaced,
  type OutlineLine,
} from "./common";

const schema = z.strictObject({
  item: z.literal("shadow"),
  /** Only of what lies within this distance of a side. */
  deep: numberText.optional(),
  from: z.enum(sides).optional(),
  /** Without what is open in it: only the way round its outside. */
  filled: z.literal(true).optional(),
  row: rowRef,
  ...partRef,
  ...place,
});

/** What a part covers as it is seen from above: what goes into a nest from above has to be in its shadow. */
export const shadow: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "SHADOW",
  group: "made from others",
  examples: [
    { text: "SHADOW AFTER 1", what: "all that the part covers, seen from above" },
    {
      text: "SHADOW DEEP 3 FROM BOTTOM AFTER 1",
      inch: "SHADOW DEEP .12 FROM BOTTOM AFTER 1",
      what: "of its foot alone",
    },
  ],
  read(r, names) {
    if (!r.take("SHADOW")) return null;
    const band: { deep?: ReturnType<typeof r.number>; from?: Side } = {};
    if (r.take("DEEP")) {
      band.deep = r.number("deep", "how far from the side");
      r.want("FROM");
      band.from = sides.find((s) => r.take(s.toUpperCase())) ?? r.fail("TOP, BOTTOM, FRONT, BACK, LEFT or RIGHT");
    }
    const filled = r.take("FILLED") ? { filled: true as const } : {};
    return { item: "shadow", ...band, ...filled, ...readOfPart(r, names, "AFTER"), ...readPlaced(r) };
  },
  write(i, names) {
    const band = i.deep === undefined ? "" : `DEEP ${inCallout(i.deep)} FROM ${i.from?.toUpperCase()} `;
    return `SHADOW ${band}${i.filled ? "FILLED " : ""}${writeOfPart(i, names, "AFTER")}${writePlaced(i)}`;
  },
  numbers(i, put) {
    put.length(i.deep, "deep");
    put.placed(i);
  },
  apply(i, work) {
    const taken = (band: Pick<Extract<PartItem, { item: "shadow" }>, "band">) =>
      added(whole(work.fromPart({ item: "shadow", ...band, ...partOf(i) })), standOf(i, work), work);
    const whole = (r: Result<Region>) => (r.ok && i.filled ? ok(r.value.filter((l) => loopArea(l) > 0)) : r);
    const { from: side, deep } = i;
    if (deep === undefined || side === undefined) return taken({});
    return from(work.num(deep, "length"), (d) => taken({ band: { from: side, deep: d } }));
  },
};
