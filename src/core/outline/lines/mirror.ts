import { z } from "zod";
import { v2 } from "../../geometry/vec";
import { ok } from "../../base/result";
import { joined, oriented } from "../boolean";
import { mirrored } from "../shapes";
import { readPoint, spotOf, writeXY, xy, type OutlineLine, type Work } from "./common";

const schema = z.strictObject({
  item: z.literal("mirror"),
  about: z.union([z.enum(["X", "Y"]), z.strictObject({ from: xy, to: xy })]),
  keep: z.literal(true).optional(),
});
type Mirror = z.infer<typeof schema>;

/** The line it is turned over at: a point and an angle. */
function lineOf(about: Mirror["about"], work: Work) {
  if (typeof about === "string") return { from: v2(0, 0), angle: about === "Y" ? Math.PI / 2 : 0 };
  const [p, q] = [spotOf(about.from, work), spotOf(about.to, work)];
  return p && q ? { from: p, angle: Math.atan2(q.y - p.y, q.x - p.x) } : null;
}

export const mirror: OutlineLine<Mirror> & { schema: typeof schema } = {
  schema,
  words: "MIRROR",
  group: "made from others",
  examples: [{ text: "MIRROR Y KEEP", what: "" }],
  read(r) {
    if (!r.take("MIRROR")) return null;
    const keep = r.take("KEEP");
    const line = () => {
      const from = readPoint(r, "from");
      r.want("TO");
      return { from, to: readPoint(r, "to") };
    };
    const about = r.takeOne(["X", "Y"] as const) ?? line();
    return { item: "mirror", about, ...(keep || r.take("KEEP") ? { keep: true as const } : {}) };
  },
  write(i) {
    const about = typeof i.about === "string" ? i.about : `${writeXY(i.about.from)} TO ${writeXY(i.about.to)}`;
    return `MIRROR ${about}${i.keep ? " KEEP" : ""}`;
  },
  numbers(i, put) {
    if (typeof i.about !== "object") return;
    put.spot(i.about.from, "about", "from");
    put.spot(i.about.to, "about", "to");
  },
  apply(i, work) {
    const line = lineOf(i.about, work);
    if (!line) return null;
    const { now } = work;
    const flipped = mirrored(now.region, line.from, line.angle);
    const open = mirrored(now.open, line.from, line.angle);
    return ok(
      i.keep
        ? { region: oriented(joined(now.region, flipped)), open: [...now.open, ...open] }
        : { region: flipped, open },
    );
  },
};
