import { z } from "zod";
import { ok, type Result } from "../../base/result";
import { trimAt } from "../chains";
import type { Segment } from "../outline";
import {
  closed,
  outlineName,
  readName,
  readPoint,
  spotOf,
  writeName,
  writeXY,
  xy,
  type OutlineLine,
  type Work,
} from "./common";

const schema = z.strictObject({ item: z.literal("trim"), at: xy, against: outlineName.optional() });

/** Everything of another outline that a chain may be cut off at; null where none is named. */
export function segmentsOf(against: string | undefined, work: Work): Result<Segment[] | null> {
  if (against === undefined) return ok(null);
  const other = work.get(against);
  return other.ok ? ok([...other.value.region.flat(), ...other.value.open.flat()]) : other;
}

export const trim: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  uses: "against",
  words: "TRIM",
  group: "corners and chains",
  examples: [{ text: "TRIM AT 10,0", inch: "TRIM AT .5,0", what: "the piece there, between crossings" }],
  read(r) {
    if (!r.take("TRIM")) return null;
    r.take("AT");
    return { item: "trim", at: readPoint(r, "at"), ...(r.take("AGAINST") ? { against: readName(r) } : {}) };
  },
  write: (i) => `TRIM AT ${writeXY(i.at)}${i.against ? ` AGAINST ${writeName(i.against)}` : ""}`,
  numbers: (i, put) => put.spot(i.at, "at"),
  apply(i, work) {
    const other = segmentsOf(i.against, work);
    if (!other.ok) return other;
    const at = spotOf(i.at, work);
    if (!at) return null;
    const made = trimAt(work.now, at, other.value);
    return made.ok ? ok(closed(made.value)) : made;
  },
};
