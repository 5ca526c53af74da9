import { problems } from "../problems";
import { z } from "zod";
import { fail, ok } from "../../base/result";
import { fullRound as roundedEnd } from "../corners";
import type { OutlineLine } from "./common";
import { elementRef, isCorner, pointRef, readRefs } from "./refs";
import type { Vec2 } from "../../geometry/vec";
import { endOf, startOf } from "../outline";
import type { Wire } from "../wire";

const schema = z.strictObject({
  item: z.literal("fullRound"),
  /** The line that becomes an arc, by its two corners or by its step. */
  between: z.union([z.tuple([pointRef, pointRef]), z.tuple([elementRef])]),
  off: z.literal(true).optional(),
});

const pointOf = (wire: Wire | null, name: string | number) => wire?.points.find((p) => p.name === name)?.at;
/** The ends of a step of the walk. */
function endsOfStep(wire: Wire | null, step: number): (Vec2 | undefined)[] {
  const segment = wire?.segments[step - 1];
  return segment ? [startOf(segment), endOf(segment)] : [];
}

export const fullRound: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "FULLROUND",
  group: "corners and chains",
  examples: [
    { text: "FULLROUND P2 P3", what: "the line between becomes an arc" },
    { text: "FULLROUND 3", what: "step 3 becomes an arc" },
  ],
  read(r) {
    const off = r.take("OFF", "FULLROUND");
    if (!off && !r.take("FULLROUND")) return null;
    r.take("WALL");
    const [a, b] = readRefs(r, 1, 2);
    const isOff = off ? { off: true as const } : {};
    if (typeof a === "number" && b === undefined) return { item: "fullRound", between: [a], ...isOff };
    if (b === undefined || !isCorner(a) || !isCorner(b))
      return r.fail("two corners such as P2 P3, or a step such as 3");
    return { item: "fullRound", between: [a, b], ...isOff };
  },
  write: (i) => `${i.off ? "OFF " : ""}FULLROUND ${i.between.join(" ")}`,
  numbers: () => {},
  apply(i, { now, wire }) {
    if (i.off) return null;
    const [first, second] = i.between;
    const ends =
      second === undefined ? endsOfStep(wire, first as number) : [first, second].map((n) => pointOf(wire, n));
    const [a, b] = ends;
    if (!a || !b) return fail(problems.noPointOfTwo(String(i.between[a && second ? 1 : 0])));
    const made = roundedEnd(now.region, a, b);
    return made.ok ? ok({ ...now, region: made.value }) : made;
  },
};
