import { problems } from "../problems";
import { z } from "zod";
import { numberText } from "../../number";
import { fail, ok } from "../../base/result";
import { extend as extendChain } from "../chains";
import { closed, n, outlineName, readName, writeName, type OutlineLine } from "./common";
import { segmentsOf } from "./trim";

const schema = z.strictObject({
  item: z.literal("extend"),
  end: z.enum(["start", "end"]),
  against: outlineName.optional(),
  length: numberText.optional(),
});
const HOW = 'AGAINST "outline" or BY length';

export const extend: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  uses: "against",
  words: "EXTEND",
  group: "corners and chains",
  examples: [{ text: 'EXTEND END AGAINST "outline"', what: "or BY 5" }],
  read(r) {
    if (!r.take("EXTEND")) return null;
    const end = r.takeOne(["START", "END"] as const) ?? r.fail("START or END");
    const which = { item: "extend" as const, end: end === "START" ? ("start" as const) : ("end" as const) };
    if (r.take("BY")) return { ...which, length: r.number("length", "a length") };
    return r.take("AGAINST") ? { ...which, against: readName(r) } : r.fail(HOW);
  },
  write: (i) =>
    `EXTEND ${i.end.toUpperCase()} ${i.length === undefined ? `AGAINST ${writeName(i.against!)}` : `BY ${n(i.length)}`}`,
  numbers: (i, put) => put.length(i.length, "length"),
  apply(i, work) {
    const other = segmentsOf(i.against, work);
    if (!other.ok) return other;
    const length = i.length === undefined ? undefined : work.num(i.length, "length");
    if (length === null) return null;
    if (length === undefined && !other.value) return fail(problems.howFar(), { expected: HOW });
    const made = extendChain(work.now, i.end, length === undefined ? { other: other.value! } : { length });
    return made.ok ? ok(closed(made.value)) : made;
  },
};
