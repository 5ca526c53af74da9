import { problems } from "../problems";
import { z } from "zod";
import { sequence, type Clause, type Part } from "../../grammar/grammar";
import { inCallout, numberText } from "../../number";
import { fail, ok, type Result } from "../../base/result";
import { findThread, type Thread } from "../../tables";
import { cutAt } from "../common";
import { depthClause, depthEditor, depthFields, depthOf, plainDepth } from "../extent";
import {
  cboreClause,
  cskClause,
  endClause,
  holeBody,
  holeVolume,
  mouthEditor,
  mouthFields,
  mouthOf,
  spotfaceClause,
} from "../holeCommon";
import type { Extent, Resolved, RowKind } from "../kind";
import { threadAt, threadText, writeThread } from "../threadAt";
import { countPrefix, pattern, patternClause } from "../places";
import { planeClause, planeRef, startClause } from "../planeRef";
import { COINCIDENT } from "../../geometry/tolerance";

const schema = z.strictObject({
  kind: z.literal("cutTapped"),
  count: numberText.optional(),
  thread: threadText,
  ...depthFields,
  drill: z
    .strictObject({ diameter: numberText.optional(), deep: numberText.optional(), thru: z.literal(true).optional() })
    .optional(),
  ...mouthFields,
  pattern,
  plane: planeRef,
});
export type CutTapped = z.infer<typeof schema>;

/** An inside thread has a capital letter for its class. */
const inClass = (designation: string): string => designation.replace(/-\d[efgh]$/, (c) => c.toUpperCase());

const threadPart: Part = {
  expected: "a thread such as 8-32 UNC-2B or M5",
  starts: (r) => threadAt(r) !== null,
  read(r, row) {
    const t = threadAt(r);
    if (!t) return r.fail(this.expected);
    r.marks.set("thread", r.pos);
    r.pos += t.length;
    row.thread = inClass(t.designation);
  },
  write: (row, names) => writeThread(row.thread as string, names, inClass),
  numbers: () => [],
};

/** `DRILL [⌀d] [DEEP d]`: the hole under the thread, where it is not the table's or goes deeper. */
const drillClause: Clause = {
  expected: "DRILL",
  starts: (r) => r.sees("DRILL"),
  read(r, row) {
    r.want("DRILL");
    row.drill = {};
    if (r.sees("⌀") || r.seesNumber()) row.drill.diameter = r.diameter("drill.diameter");
    if (r.take("DEEP")) row.drill.deep = r.number("drill.deep", "the drilled depth");
    else if (r.take("THRU")) row.drill.thru = true;
  },
  write(row) {
    if (row.drill === undefined) return "";
    const d = row.drill;
    return [
      "DRILL",
      d.diameter === undefined ? "" : `⌀${inCallout(d.diameter)}`,
      d.deep === undefined ? "" : `DEEP ${inCallout(d.deep)}`,
      d.thru ? "THRU" : "",
    ]
      .filter(Boolean)
      .join(" ");
  },
  numbers: (row) => [
    ...(row.drill?.diameter === undefined
      ? []
      : [
          {
            path: "drill.diameter",
            label: "Drill ⌀",
            quantity: "length" as const,
            means: "diameter" as const,
            text: row.drill.diameter,
          },
        ]),
    ...(row.drill?.deep === undefined
      ? []
      : [
          {
            path: "drill.deep",
            label: "Drilled depth",
            quantity: "length" as const,
            means: "depth" as const,
            text: row.drill.deep,
          },
        ]),
  ],
};

/** The drilled hole of a tapped row: diameter from the card or the table, depth from the card or the thread. */
export function drilledHole(
  row: Resolved<CutTapped>,
): Result<{ thread: Thread; diameter: number; depth: Extent; fromTable: boolean }> {
  const thread = findThread(row.thread as string);
  if (!thread) return fail(problems.noThread(row.thread), { path: "thread" });
  const diameter = row.drill?.diameter ?? thread.size?.tapDrill;
  if (diameter === undefined) return fail(problems.noTapDrill(row.thread), { path: "thread" });
  if (diameter >= thread.major) return fail(problems.tapDrillTooLarge(), { path: "drill.diameter" });
  const said = depthOf(row);
  if (!said.ok) return said;
  const threadDepth = said.value;
  const depth = row.drill?.thru ? "thru" : (row.drill?.deep ?? threadDepth);
  if (typeof depth === "number" && typeof threadDepth === "number" && depth < threadDepth - COINCIDENT)
    return fail(problems.drilledTooShallow(), { path: "drill.deep" });
  if (typeof depth === "number" && threadDepth === "thru")
    return fail(problems.drilledNotThrough(), { path: "drill.deep" });
  return ok({ thread, diameter, depth, fromTable: row.drill?.diameter === undefined });
}

export const cutTapped: RowKind<CutTapped> = {
  kind: "cutTapped",
  verb: "cut",
  label: "tapped holes",
  traits: { counted: true },
  starts: (r) => threadAt(r) !== null,
  schema,
  blank: () => ({ pattern: { kind: "single" }, plane: { on: "top" } }),
  example: {
    in: "CUT 4X 8-32 UNC-2B DEEP .3 DRILL DEEP .45 GRID 2 2 BY 2 1",
    mm: "CUT 4X M5 DEEP 10 DRILL DEEP 14 GRID 2 2 BY 60 30",
  },
  callout: {
    head: sequence(countPrefix, threadPart),
    clauses: [
      depthClause,
      drillClause,
      endClause,
      cboreClause,
      cskClause,
      spotfaceClause,
      patternClause,
      startClause,
      planeClause,
    ],
  },
  feature(row) {
    const hole = drilledHole(row);
    if (!hole.ok) return null;
    const { diameter, depth, thread } = hole.value;
    const full = plainDepth(row) ?? "thru";
    const drilled = typeof depth === "number" ? depth : "thru";
    return { is: "hole", diameter, depth: drilled, mouth: mouthOf(row), thread: { ...thread, full } };
  },
  recipe(row, _raw, outlines) {
    const hole = drilledHole(row);
    if (!hole.ok) return hole;
    const body = holeBody(hole.value.diameter, hole.value.depth, row);
    return body.ok ? cutAt(row, body.value, outlines) : body;
  },
  closedForm(row) {
    const hole = drilledHole(row);
    if (!hole.ok) return null;
    const { diameter, depth } = hole.value;
    return holeVolume(diameter, typeof depth === "number" ? depth : null, row);
  },
  fields: [
    { field: "number", path: "count", label: "Count", optional: true },
    { field: "thread", path: "thread", label: "Thread" },
    ...depthEditor,
    {
      field: "choice",
      path: "drill",
      label: "Drilled",
      options: [
        { value: "", label: "as deep as the thread", set: { drill: undefined } },
        { value: "yes", label: "deeper or other drill", set: { drill: { deep: "?" } } },
      ],
    },
    { field: "number", path: "drill.deep", label: "Drilled depth" },
    { field: "number", path: "drill.diameter", label: "Drill ⌀", optional: true },
    ...mouthEditor,
    { field: "pattern" },
    { field: "plane" },
  ],
};
