import { nameText } from "../../base/name";
import { problems } from "../problems";
import { z } from "zod";
import { fail, ok, type Result } from "../../base/result";
import { v2, type Vec2 } from "../../geometry/vec";
import { marked, sequence, word, type Clause, type Part } from "../../grammar/grammar";
import { numberText } from "../../number";
import { endOf, segmentLength, startOf, type Segment } from "../../outline";
import { directionAt } from "../../outline/meet";
import { thickened, type Thickness } from "../../outline/thicken";
import { heightEditor, heightFields, heightPart, wayClause } from "../extent";
import type { RoundedEnd, RowKind } from "../kind";
import { raised } from "../leaveCommon";
import { onlyChain, outlineName } from "../outlineSource";
import { atZ, pointZ } from "../places";
import { planeRef, standingClause } from "../planeRef";

const schema = z.strictObject({
  kind: z.literal("leaveStrip"),
  outline: nameText.min(1),
  thick: numberText,
  /** The side of the walk the thickness lies on. */
  side: z.enum(["left", "right", "middle"]),
  ...heightFields,
  /** Ends that are full rounds: both, or the one at the walk's start or end. */
  rounded: z.union([z.literal(true), z.enum(["start", "end"])]).optional(),
  turn: numberText.optional(),
  at: pointZ.optional(),
  plane: planeRef.optional(),
});
export type LeaveStrip = z.infer<typeof schema>;

const sidePart: Part = {
  expected: "LEFT, RIGHT or MIDDLE",
  starts: (r) => r.sees("LEFT") || r.sees("RIGHT") || r.sees("MIDDLE"),
  read(r, row) {
    const side = r.takeOne(["LEFT", "RIGHT", "MIDDLE"] as const);
    if (!side) return r.fail(this.expected);
    row.side = side.toLowerCase();
  },
  write: (row) => row.side.toUpperCase(),
  numbers: () => [],
};

const thicknessOf = ({ thick, side }: { thick: number; side: "left" | "right" | "middle" }): Thickness => {
  const shares = { left: [thick, 0], right: [0, thick], middle: [thick / 2, thick / 2] }[side];
  return { left: shares[0], right: shares[1] };
};

/** `ROUNDED`: both ends; `ROUNDED START`, `ROUNDED END`: one of them. */
const roundedClause: Clause = {
  expected: "ROUNDED, ROUNDED START or ROUNDED END",
  starts: (r) => r.sees("ROUNDED"),
  read(r, row) {
    r.want("ROUNDED");
    // `START` with a number behind it would be another row's clause: a strip has none.
    row.rounded = r.take("START") ? "start" : r.take("END") ? "end" : true;
  },
  write: (row) =>
    row.rounded === undefined ? "" : row.rounded === true ? "ROUNDED" : `ROUNDED ${row.rounded.toUpperCase()}`,
  numbers: () => [],
};

/** Ends of a strip, to be rounded over its width; they have to be straight for half of it. */
function roundedEnds(
  chain: Segment[],
  { left, right }: Thickness,
  width: number,
  which: NonNullable<LeaveStrip["rounded"]>,
): Result<RoundedEnd[]> {
  const both = [
    { is: "start", segment: chain[0], at: startOf(chain[0]), out: directionAt(chain[0], 0), sign: -1 },
    ...chain.slice(-1).map((s) => ({ is: "end", segment: s, at: endOf(s), out: directionAt(s, 1), sign: 1 })),
  ];
  const ends = both.filter((e) => which === true || e.is === which);
  const share = chain.length > 1 || ends.length === 1 ? 1 : 0.5;
  const short = ends.find(({ segment }) => segment.kind !== "line" || segmentLength(segment) * share < width / 2);
  if (short) return fail(problems.fullRoundEndNotStraight(), { path: "outline" });
  return ok(
    ends.map(({ at, out, sign }): RoundedEnd => {
      const across = v2(-out.y, out.x);
      const middle: Vec2 = v2(at.x + (across.x * (left - right)) / 2, at.y + (across.y * (left - right)) / 2);
      return { at: middle, out: v2(out.x * sign, out.y * sign), thick: left + right };
    }),
  );
}

/** A bent plate: an open chain thickened to one side of its walk and carried its width: `LEAVE STRIP "bracket" THICK 3 LEFT X 20`. */
export const leaveStrip: RowKind<LeaveStrip> = {
  kind: "leaveStrip",
  verb: "leave",
  label: "strip",
  schema,
  blank: () => ({}),
  example: { in: 'LEAVE STRIP "outline" THICK .125 LEFT X .75', mm: 'LEAVE STRIP "outline" THICK 3 LEFT X 20' },
  callout: {
    head: sequence(word("STRIP"), outlineName, marked("THICK", "thick", "Thickness", "length"), sidePart, heightPart),
    clauses: [wayClause, roundedClause, marked("TURN", "turn", "Turn", "angle", { angle: true }), atZ, standingClause],
  },
  feature: () => ({ is: "body", round: false, free: true }),
  recipe(row, raw, outlines) {
    const chain = onlyChain(raw.outline, outlines, row.turn ?? 0);
    if (!chain.ok) return chain;
    const thickness = thicknessOf({ thick: row.thick, side: raw.side });
    const loop = thickened(chain.value, thickness);
    if (!loop.ok) return loop;
    const outline = { outer: loop.value, holes: [] };
    if (!row.rounded) return raised(row, outline);
    if (row.height === undefined) return fail(problems.roundedEndsWithoutWidth(), { path: "height" });
    const ends = roundedEnds(chain.value, thickness, row.height, row.rounded);
    return ends.ok ? raised(row, outline, { ends: ends.value }) : ends;
  },
  closedForm: () => null,
  fields: [
    { field: "outline", path: "outline", label: "Open chain" },
    { field: "number", path: "thick", label: "Thickness" },
    {
      field: "choice",
      path: "side",
      label: "Thickness lies",
      options: [
        { value: "left", label: "left of the walk", set: { side: "left" } },
        { value: "right", label: "right of the walk", set: { side: "right" } },
        { value: "middle", label: "on both sides evenly", set: { side: "middle" } },
      ],
    },
    ...heightEditor,
    {
      field: "choice",
      path: "rounded",
      label: "Ends of the plate",
      options: [
        { value: "", label: "square", set: { rounded: undefined } },
        { value: "true", label: "full rounds", set: { rounded: true } },
        { value: "start", label: "a full round at the start", set: { rounded: "start" } },
        { value: "end", label: "a full round at the end", set: { rounded: "end" } },
      ],
    },
    { field: "number", path: "turn", label: "Turn", optional: true },
    { field: "place" },
    { field: "standing" },
  ],
};
