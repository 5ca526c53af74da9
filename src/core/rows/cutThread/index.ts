import { problems } from "../problems";
import { z } from "zod";
import { fail, ok } from "../../base/result";
import { flag, marked, required, sequence, word, type Part } from "../../grammar/grammar";
import { v2 } from "../../geometry/vec";
import { numberText } from "../../number";
import { findThread } from "../../tables";
import type { RowKind } from "../kind";
import { rowRef } from "../planeRef";
import { shaftClause, startOnShaft } from "../shaft";
import { threadAt, threadText, writeThread } from "../threadAt";

const schema = z.strictObject({
  kind: z.literal("cutThread"),
  thread: threadText,
  length: numberText,
  shaft: rowRef,
  start: numberText.optional(),
  helix: z.literal(true).optional(),
});
export type CutThread = z.infer<typeof schema>;

/** An outside thread has a small letter for its class. */
const inClass = (designation: string): string => designation.replace(/-\d[EFGH]$/, (c) => c.toLowerCase());

/** The designation of an outside thread: its metric class is a small letter. */
const threadPart: Part = {
  expected: "an outside thread such as M6-6g or 1/4-20 UNC-2A",
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

/** A thread on a shaft: `CUT THREAD M6-6g LEN 18 ON SHAFT OF 2`. It is said of the part; `HELIX` cuts its basic profile. */
export const cutThread: RowKind<CutThread> = {
  kind: "cutThread",
  verb: "cut",
  label: "outside thread",
  traits: { outsideThread: true },
  starts: (r) => r.sees("THREAD"),
  schema,
  blank: () => ({}),
  example: { in: "CUT THREAD 1/4-20 UNC-2A LEN .75 ON SHAFT OF 1", mm: "CUT THREAD M6-6g LEN 18 ON SHAFT OF 1" },
  callout: {
    head: sequence(word("THREAD"), threadPart),
    clauses: [
      required(marked("LEN", "length", "Thread length", "length", { means: "length" })),
      shaftClause,
      startOnShaft,
      flag("HELIX", "helix"),
    ],
  },
  feature(row) {
    const t = findThread(row.thread as string);
    return t && { is: "thread", thread: t, length: row.length, shaft: row.shaft as string };
  },
  recipe(row, raw) {
    const thread = findThread(row.thread as string);
    if (!thread) return fail(problems.noOutsideThread(row.thread), { path: "thread" });
    const start = row.start ?? 0;
    if (raw.helix && thread.pipe) return fail(problems.taperThreadAsHelix(), { path: "helix" });
    if (raw.helix)
      return ok({
        op: "cut",
        plane: { on: "top", start: 0 },
        body: { body: "helix", row: raw.shaft, major: thread.major, pitch: thread.pitch, start, length: row.length },
        places: [v2(0, 0)],
      });
    return ok({ op: "said", on: { row: raw.shaft }, from: start, length: row.length });
  },
  closedForm: () => 0,
  fields: [
    { field: "thread", path: "thread", label: "Thread" },
    { field: "number", path: "length", label: "Length" },
    { field: "row", path: "shaft", label: "Shaft" },
    { field: "number", path: "start", label: "Below the top", optional: true },
  ],
};
