import { problems } from "../problems";
import { z } from "zod";
import { fail, ok } from "../../base/result";
import { fullRound as roundedEnd } from "../corners";
import type { OutlineLine } from "./common";
import { isCorner, pointRef, readRefs } from "./refs";

const schema = z.strictObject({
  item: z.literal("fullRound"),
  between: z.tuple([pointRef, pointRef]),
  off: z.literal(true).optional(),
});

export const fullRound: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "FULLROUND",
  group: "corners and chains",
  examples: [{ text: "FULLROUND P2 P3", what: "the line between becomes an arc" }],
  read(r) {
    const off = r.take("OFF", "FULLROUND");
    if (!off && !r.take("FULLROUND")) return null;
    const [a, b] = readRefs(r, 2, 2);
    if (!isCorner(a) || !isCorner(b)) return r.fail("two corners such as P2 P3");
    return { item: "fullRound", between: [a, b], ...(off ? { off: true as const } : {}) };
  },
  write: (i) => `${i.off ? "OFF " : ""}FULLROUND ${i.between.join(" ")}`,
  numbers: () => {},
  apply(i, { now, wire }) {
    if (i.off) return null;
    const [a, b] = i.between.map((name) => wire?.points.find((p) => p.name === name)?.at);
    if (!a || !b) return fail(problems.noPointOfTwo(i.between[a ? 1 : 0]));
    const made = roundedEnd(now.region, a, b);
    return made.ok ? ok({ ...now, region: made.value }) : made;
  },
};
