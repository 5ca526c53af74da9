import { problems } from "../problems";
import { z } from "zod";
import type { Vec2 } from "../../geometry/vec";
import type { Reader } from "../../grammar/reader";
import { numberText } from "../../number";
import { fail, ok, type Result } from "../../base/result";
import { reliefPlacements } from "../../tables";
import { relieve, treat } from "../corners";
import type { Wire } from "../wire";
import { from, n, type OutlineLine } from "./common";
import { isCorner, pointRef, readRefs } from "./refs";

const treatments = ["round", "chamfer", "relief"] as const;
const groups = ["all", "inside", "outside"] as const;
const schema = z.strictObject({
  item: z.literal("corners"),
  treatment: z.enum(treatments),
  size: numberText,
  which: z.union([z.enum(groups), z.array(pointRef).min(1).max(500)]),
  placement: z.enum(reliefPlacements).optional(),
  off: z.literal(true).optional(),
});
type Corners = z.infer<typeof schema>;

/** Takes one of some words, written in capitals. */
const wordOf = <T extends string>(r: Reader, words: readonly T[]) => words.find((w) => r.take(w.toUpperCase()));

function readWhich(r: Reader): Corners["which"] {
  const group = wordOf(r, groups);
  if (group) return group;
  r.take("AT");
  const refs = readRefs(r, 1, 500);
  return refs.every(isCorner) ? refs : r.fail("ALL, INSIDE, OUTSIDE or corners such as P2 P3");
}

/** The corners that are meant, as points of the walk. */
function cornersOf(which: Corners["which"], wire: Wire | null): Result<(typeof groups)[number] | Vec2[]> {
  if (typeof which === "string") return ok(which);
  const points = which.map((name) => wire?.points.find((p) => p.name === name)?.at);
  const missing = points.findIndex((p) => !p);
  return missing < 0 ? ok(points as Vec2[]) : fail(problems.noPoint(which[missing]));
}

export const corners: OutlineLine<Corners> & { schema: typeof schema } = {
  schema,
  words: "ROUND, CHAMFER, RELIEF",
  group: "corners and chains",
  examples: [
    { text: "ROUND 5 ALL", inch: "ROUND .19 ALL", what: "or INSIDE, OUTSIDE, AT P2 P3" },
    { text: "CHAMFER 1 ALL", inch: "CHAMFER .03 ALL", what: "" },
    { text: "RELIEF 4 INSIDE", inch: "RELIEF .19 INSIDE", what: "CORNER, WALL or BISECTOR" },
  ],
  read(r) {
    const off = treatments.some((t) => r.sees("OFF", t.toUpperCase())) && r.take("OFF");
    const treatment = wordOf(r, treatments);
    if (!treatment) return null;
    r.take("⌀");
    const size = r.number("size", "a size");
    const placement = treatment === "relief" ? wordOf(r, reliefPlacements) : undefined;
    return {
      item: "corners",
      treatment,
      size,
      which: readWhich(r),
      ...(placement ? { placement } : {}),
      ...(off ? { off: true as const } : {}),
    };
  },
  write(i) {
    const which = typeof i.which === "string" ? i.which.toUpperCase() : `AT ${i.which.join(" ")}`;
    const placement = i.placement ? ` ${i.placement.toUpperCase()}` : "";
    return `${i.off ? "OFF " : ""}${i.treatment.toUpperCase()} ${n(i.size)}${placement} ${which}`;
  },
  numbers: (i, put) => (i.treatment === "round" ? put.radius(i.size, "size") : put.length(i.size, "size")),
  apply(i, { now, num, wire }) {
    if (i.off) return null;
    return from(num(i.size, "length"), (size) => {
      const which = cornersOf(i.which, wire);
      if (!which.ok) return which;
      if (i.treatment !== "relief") return treat(now, i.treatment, size, which.value);
      if (!now.region.length && now.open.length) return fail(problems.reliefOfOpenChain());
      const made = relieve(now.region, size, which.value, i.placement ?? "corner");
      return made.ok ? ok({ ...now, region: made.value }) : made;
    });
  },
};
