import { readCard, writeCard } from "../callout";
import { applyEdits, groupedName, groupOf, groupRuns, ownName, switchedRun } from ".";

const card = [
  'JOB "Groups" REV A',
  "UNIT mm",
  "LEAVE BLOCK 60 X 40 X 20",
  'CUT "ports / left": ⌀6 THRU AT -20,0',
  'CUT "ports / right": ⌀6 THRU AT 20,0',
  "CUT FACE DEEP 1",
  'CUT "ports / middle": ⌀8 THRU',
  'CUT "and/or": ⌀3 DEEP 4 AT 0,12',
  "",
].join("\n");
const rows = () => readCard(card).job.rows;

it("a group is the first part of a name, and stands in the card as it was typed", () => {
  expect(readCard(card).errors).toEqual([]);
  expect(rows().map(groupOf)).toEqual([null, "ports", "ports", null, "ports", null]);
  expect(rows().map(ownName)).toEqual(["", "left", "right", "", "middle", "and/or"]);
  expect(writeCard(readCard(card).job)).toBe(card);
});

it("rows that stand apart are runs of their own", () => {
  expect(groupRuns(rows())).toEqual([
    { name: "ports", from: 2, to: 3 },
    { name: "ports", from: 5, to: 5 },
  ]);
  expect(groupRuns([])).toEqual([]);
});

it("a name is put together from both, either may be empty", () => {
  expect(groupedName("ports", "left")).toBe("ports / left");
  expect(groupedName(" ", "left")).toBe("left");
  expect(groupedName("ports", "")).toBe("ports /");
  expect(groupOf({ name: groupedName("ports", "") })).toBe("ports");
  expect(groupOf({ name: "a / b / c" })).toBe("a");
  expect(ownName({ name: "a / b / c" })).toBe("b / c");
  expect(ownName({ name: groupedName("ports", "") })).toBe("");
  expect([groupOf({ name: " / left" }), groupOf({})]).toEqual([null, null]);
});

it("a run is switched off as a whole, also where some of it is off, and on again", () => {
  const { job } = readCard(card.replace('CUT "ports / left"', 'OFF CUT "ports / left"'));
  const [run] = groupRuns(job.rows);
  const off = applyEdits(job, switchedRun(job.rows, run));
  if (!off.ok) throw new Error(off.problems[0].message);
  expect(off.value.job.rows.map((r) => Boolean(r.off))).toEqual([false, true, true, false, false, false]);
  const on = applyEdits(off.value.job, switchedRun(off.value.job.rows, run));
  expect(on.ok && on.value.job.rows.some((r) => r.off)).toBe(false);
});
