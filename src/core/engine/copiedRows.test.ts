import { evaluateJob, inch, jobOf, mm } from "../../../tests/helpers/card";
import { writeRow } from "../callout";
import { copiedText, pastedRows } from "./copiedRows";
import { rowNames } from "../job/names";
import type { Job } from "../job";

let serial = 0;
const freshId = () => `new${++serial}`;
const block = "LEAVE BLOCK 100 X 80 X 20";
/** Rows of one job put into another, as card text there. */
function carried(from: Job, to: Job, ...rows: number[]): string[] {
  const pasted = pastedRows(
    copiedText(
      rows.map((n) => from.rows[n - 1]),
      from,
    ),
    to,
    freshId,
  );
  if (!pasted.ok) throw new Error(pasted.problems[0].message);
  return pasted.value.map((r) => writeRow(r, rowNames(to.rows)));
}

describe("rows copied between jobs", () => {
  const source = jobOf(
    mm("#1 ⌀12 ±.1", "#2 6 DEEP", block, "CUT POCKET ⌀#1 DEEP #2 AT 10,5", "CUT 4X ⌀6.6 THRU ON BC 50 FROM 45"),
  );
  it("keep what they are in a job of the same unit, but for balloons that say something else there", () => {
    expect(carried(source, jobOf(mm(block)), 2, 3)).toEqual([
      "CUT POCKET ⌀12 DEEP 6 AT 10,5",
      "CUT 4X ⌀6.6 THRU ON BC 50 FROM 45",
    ]);
    expect(carried(source, jobOf(mm("#1 ⌀12 ±.1", "#2 9 DEEP", block)), 2)).toEqual(["CUT POCKET ⌀#1 DEEP 6 AT 10,5"]);
  });
  it("keep their worth in a job of another unit; counts and angles are no lengths", async () => {
    const target = jobOf(inch("LEAVE BLOCK 4 X 3 X .75"));
    expect(carried(source, target, 2, 3)).toEqual([
      "CUT POCKET ⌀12mm DEEP 6mm AT 10mm,5mm",
      "CUT 4X ⌀6.6mm THRU ON BC 50mm FROM 45",
    ]);
    const pasted = pastedRows(copiedText([source.rows[1]], source), target, freshId);
    if (!pasted.ok) throw new Error(pasted.problems[0].message);
    const e = await evaluateJob({ ...target, rows: [...target.rows, ...pasted.value] });
    expect(e.solved.rows[1].removed).toBeCloseTo(Math.PI * 36 * 6, 6);
  });
  it("say which line is wrong", () => {
    const r = pastedRows("CUT ⌀5 THRU\nCUT NONSENSE", source, freshId);
    expect(r.ok ? "" : r.problems[0].message).toMatch(/^line 2, column 5: /);
  });
});
