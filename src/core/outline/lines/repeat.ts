import { problems } from "../problems";
import { z } from "zod";
import type { Reader } from "../../grammar/reader";
import { numberText } from "../../number";
import { fail, ok } from "../../base/result";
import { joined, oriented, type Region } from "../boolean";
import { moveAbout, placesOf } from "../repeat";
import { n, readPoint, spotOf, writeIf, writeXY, xy, type OutlineLine, type Put } from "./common";

const pattern = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("around"), n: numberText, centre: xy.optional(), step: numberText.optional() }),
  z.strictObject({ kind: z.literal("line"), n: numberText, by: numberText, turn: numberText.optional() }),
  z.strictObject({ kind: z.literal("grid"), nx: numberText, ny: numberText, dx: numberText, dy: numberText }),
]);
export type RepeatPattern = z.infer<typeof pattern>;
const schema = z.strictObject({
  item: z.literal("repeat"),
  pattern,
  skip: z.array(z.number().int().min(1).max(5000)).max(500).optional(),
});

/** Places and elements a repeat may make: more could not be followed while typing. */
const MOST_PLACES = 2000;
const MOST_ELEMENTS = 6000;

function readPattern(r: Reader): RepeatPattern {
  if (r.take("LINE")) {
    const count = r.number("n", "a count");
    r.want("BY");
    const by = r.number("by", "a distance");
    return { kind: "line", n: count, by, ...(r.take("TURN") ? { turn: r.angle("turn") } : {}) };
  }
  if (r.take("GRID")) {
    const nx = r.number("nx", "a count");
    const ny = r.number("ny", "a count");
    r.want("BY");
    return { kind: "grid", nx, ny, dx: r.number("dx", "a distance"), dy: r.number("dy", "a distance") };
  }
  const count = r.number("n", "a count such as 10X");
  r.want("X");
  const centre = r.take("AROUND") ? { centre: readPoint(r, "centre") } : {};
  return { kind: "around", n: count, ...centre, ...(r.take("STEP") ? { step: r.angle("step") } : {}) };
}

function writePattern(p: RepeatPattern): string {
  if (p.kind === "around")
    return `${n(p.n)}X${p.centre ? ` AROUND ${writeXY(p.centre)}` : ""}${writeIf(" STEP ", p.step)}`;
  if (p.kind === "line") return `LINE ${n(p.n)} BY ${n(p.by)}${writeIf(" TURN ", p.turn)}`;
  return `GRID ${n(p.nx)} ${n(p.ny)} BY ${n(p.dx)} ${n(p.dy)}`;
}

function numbersOfPattern(p: RepeatPattern, put: Put): void {
  if (p.kind === "around") {
    put.count(p.n, "pattern", "n");
    put.spot(p.centre, "pattern", "centre");
    put.angle(p.step, "pattern", "step");
  } else if (p.kind === "line") {
    put.count(p.n, "pattern", "n");
    put.length(p.by, "pattern", "by");
    put.angle(p.turn, "pattern", "turn");
  } else {
    put.count(p.nx, "pattern", "nx");
    put.count(p.ny, "pattern", "ny");
    put.length(p.dx, "pattern", "dx");
    put.length(p.dy, "pattern", "dy");
  }
}

export const repeat: OutlineLine<z.infer<typeof schema>> & { schema: typeof schema } = {
  schema,
  words: "REPEAT",
  group: "made from others",
  examples: [
    { text: "REPEAT 10X", what: "round the zero" },
    { text: "REPEAT GRID 3 2 BY 20 15 SKIP 5", inch: "REPEAT GRID 3 2 BY .875 .66 SKIP 5", what: "" },
  ],
  read(r) {
    if (!r.take("REPEAT")) return null;
    const read = readPattern(r);
    const skip: number[] = [];
    if (r.take("SKIP")) while (!r.done) skip.push(r.whole("the number of a place"));
    return { item: "repeat", pattern: read, ...(skip.length ? { skip } : {}) };
  },
  write: (i) => `REPEAT ${writePattern(i.pattern)}${i.skip?.length ? ` SKIP ${i.skip.join(" ")}` : ""}`,
  numbers: (i, put) => numbersOfPattern(i.pattern, put),
  apply(i, work) {
    const { now } = work;
    const places = placesOf(i.pattern, work.num, (p) => spotOf(p, work));
    if (!places) return null;
    if (places.length > MOST_PLACES) return fail(problems.tooManyPlaces(places.length, MOST_PLACES));
    const kept = places.filter((_, k) => !i.skip?.includes(k + 1));
    const elements = kept.length * (now.region.flat().length + now.open.flat().length);
    if (elements > MOST_ELEMENTS) return fail(problems.tooManyElements(elements, MOST_ELEMENTS));
    // Copies that overlap become one: a repeated tooth runs into its neighbours.
    let region: Region = [];
    for (const p of kept) {
      const copy = now.region.map((l) => moveAbout(l, p));
      region = region.length ? joined(region, copy) : copy;
    }
    if (!region.length && now.region.length) return fail(problems.copiesRunTogether());
    return ok({ region: oriented(region), open: kept.flatMap((p) => now.open.map((c) => moveAbout(c, p))) });
  },
};
