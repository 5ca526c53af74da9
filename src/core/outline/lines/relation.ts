import { z } from "zod";
import type { OutlineLine } from "./common";
import { readRefs, refList } from "./refs";

/** Least and most things each relation speaks of. */
const arity = {
  horizontal: [1, 2],
  vertical: [1, 2],
  parallel: [2, 2],
  perpendicular: [2, 2],
  tangent: [2, 2],
  equal: [2, 2],
  concentric: [2, 2],
  coincident: [2, 2],
  symmetric: [3, 3],
  midpoint: [2, 2],
  on: [2, 2],
  fix: [1, 1],
} as const;
export const relations = Object.keys(arity) as (keyof typeof arity)[];

const schema = z.strictObject({
  item: z.literal("relation"),
  relation: z.enum(relations),
  of: refList(1, 3),
});
type Relation = z.infer<typeof schema>;

function words(i: Relation): string {
  if (i.relation === "symmetric") return `${i.of[0]} ${i.of[1]} ABOUT ${i.of[2]}`;
  return i.relation === "midpoint" ? `${i.of[0]} OF ${i.of[1]}` : i.of.join(" ");
}

export const relation: OutlineLine<Relation> & { schema: typeof schema } = {
  schema,
  words: "a relation",
  group: "relations and dimensions",
  examples: [
    { text: "HORIZONTAL 2", what: "or VERTICAL" },
    { text: "PARALLEL 1 3", what: "or PERPENDICULAR, EQUAL" },
    { text: "TANGENT 2 3", what: "or CONCENTRIC" },
    { text: "SYMMETRIC P1 P2 ABOUT Y", what: "" },
    { text: "ON P2 X", what: "a point on an element" },
  ],
  read(r) {
    const found = relations.find((name) => r.take(name.toUpperCase()));
    return found ? { item: "relation", relation: found, of: readRefs(r, arity[found][0], arity[found][1]) } : null;
  },
  write: (i) => `${i.relation.toUpperCase()} ${words(i)}`,
  numbers: () => {},
};
