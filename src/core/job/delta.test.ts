import { apply } from "mutative";
import fc from "fast-check";
import { readCard } from "../callout";
import { applyEdits, type JobEdit } from "./edits";
import { delta } from "./delta";
import type { Job } from "./schema";

const start = readCard(
  ["UNIT mm", "#1 20", "#2 8", ...Array.from({ length: 8 }, (_, i) => `CUT ⌀${i + 2} DEEP 5 AT ${i * 9},0`)].join("\n"),
).job;

/** One random edit that fits the job as it is. */
const edits = (job: Job) =>
  fc.oneof(
    fc.nat(job.rows.length - 1).map((i): JobEdit => ({ edit: "switchRow", id: job.rows[i].id, off: !job.rows[i].off })),
    fc
      .tuple(fc.nat(job.rows.length - 1), fc.nat(9))
      .map(([i, to]): JobEdit => ({ edit: "moveRow", id: job.rows[i].id, to })),
    fc.nat(job.rows.length - 1).map((i): JobEdit => ({ edit: "deleteRow", id: job.rows[i].id })),
    fc.string().map((name): JobEdit => ({ edit: "setHead", head: { name: name || "a" } })),
    fc
      .nat(4)
      .map((at): JobEdit => ({ edit: "addRows", at, rows: [{ ...job.rows[0], id: `n${job.rows.length}${at}` }] })),
  );

test("patches turn the one into the other, whatever was edited", () => {
  fc.assert(
    fc.property(fc.gen(), (random) => {
      let job = start;
      for (let i = 0; i < 4 && job.rows.length > 1; i++) {
        const r = applyEdits(job, [random(edits, job)]);
        if (r.ok) job = r.value.job;
      }
      expect(apply(start as object, delta(start, job))).toEqual(job);
    }),
  );
});

test("one number changed is one patch, and the rest stays the same objects", () => {
  const r = applyEdits(start, [{ edit: "nameRow", id: start.rows[3].id, name: "dowel" }]);
  if (!r.ok) throw new Error(r.problems[0].message);
  const patches = delta(start, r.value.job);
  expect(patches).toEqual([{ op: "add", path: ["rows", 3, "name"], value: "dowel" }]);
  const next = apply(start as object, patches) as Job;
  expect(next.rows[2]).toBe(start.rows[2]);
  expect(next.rows[3].body).toBe(start.rows[3].body);
  expect(next.balloons).toBe(start.balloons);
});

test("what is taken away is taken away, and nothing becomes undefined", () => {
  const next: Job = Object.assign({ ...start, rows: [] }, { stock: undefined });
  const result = apply(start as object, delta(start, next));
  expect(result).toEqual({ ...start, rows: [], stock: undefined });
  expect("stock" in result).toBe(false);
});
