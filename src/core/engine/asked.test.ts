import { readCard } from "../callout";
import { applyEdits } from "../job/edits";
import { toNumberText } from "../number";
import { numberScope } from "./numbers";
import { noting, stillAnswers } from "./asked";
import { prepare } from "./prepare";

const job = readCard(
  "UNIT mm\n#1 20\n#2 8\nLET wall = #1/4\nLEAVE BLOCK 60 X 40 X #1\nCUT ⌀#2 THRU\nCUT ⌀wall DEEP 3 AT 20,0",
).job;
const withBalloon = (n: number, value: string) => {
  const balloon = { ...job.balloons.find((b) => b.number === n)!, value: toNumberText(value) };
  const r = applyEdits(job, [{ edit: "setBalloon", number: n, balloon }]);
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value.job;
};

test("a row is worked out anew only when a number it reads comes out otherwise", () => {
  const before = prepare(job).rows;
  const after = prepare(withBalloon(2, "9")).rows;
  expect(after.map((r, i) => r.recipe === before[i].recipe)).toEqual([true, false, true]);
  // Through a named value too.
  const again = prepare(job).rows;
  const thick = prepare(withBalloon(1, "24")).rows;
  expect(thick.map((r, i) => r.recipe === again[i].recipe)).toEqual([false, true, false]);
});

test("the same value written otherwise is the same answer", () => {
  const before = prepare(job).rows;
  expect(prepare(withBalloon(2, "16/2")).rows[1].recipe).toBe(before[1].recipe);
});

test("what failed is asked again", () => {
  const { scope, asked } = noting(numberScope(job));
  scope.balloon(9);
  scope.name?.("rim");
  expect(stillAnswers(asked, numberScope(job))).toBe(true);
  const more = { ...job, names: [...job.names, { name: "rim", value: toNumberText("3") }] };
  expect(stillAnswers(asked, numberScope(more))).toBe(false);
});
