import { applyEdits } from "../job/edits";
import { inch, jobOf } from "../../../tests/helpers/card";
import { link, linkable } from "./linking";

const lid = inch(
  "#1 ⌀3.250",
  "#2 .600",
  "#3 6X ⌀.201",
  "#4 .250 DEEP",
  "#5 ⌀.250",
  "#6 (.600)",
  "#7 45°",
  "#8 R.125",
  "#9 .500",
  "#10 .500 DEEP",
  "LEAVE ROUND ⌀3.250 X .600",
  "CUT 6X ⌀.201 THRU ON BC 2.5 FROM 45",
  "CUT POCKET 1.5 X 1 R.125 DEEP .25",
  "CUT ⌀.25 DEEP .5 AT .5,0!",
);

describe("bare numbers and the balloons that print them", () => {
  const { sure, asked } = linkable(jobOf(lid));
  it("are linked where one unused balloon of a fitting kind prints the same, however many zeros it has", () => {
    expect(sure.map((l) => [l.number, l.path, l.balloons])).toEqual([
      [1, "diameter", [1]],
      [1, "height", [2]],
      [2, "diameter", [3]],
      [2, "pattern.from", [7]],
      [3, "radius", [8]],
      [3, "deep", [4]],
      [4, "diameter", [5]],
      [4, "pattern.points.0.x", [9]],
    ]);
  });
  it("are asked where two do, and left alone where none does", () => {
    expect(asked.map((l) => [l.number, l.path, l.balloons])).toEqual([[4, "deep", [9, 10]]]);
  });
  it("are all made their balloons' in one edit, and nothing is left to link", () => {
    const job = jobOf(lid);
    const done = applyEdits(job, [...sure.map((l) => link(l, l.balloons[0])), link(asked[0], 10)]);
    if (!done.ok) throw new Error(done.problems[0].message);
    expect(done.value.job.rows[2].body).toMatchObject({ radius: "#8", deep: "#4" });
    expect(linkable(done.value.job)).toEqual({ sure: [], asked: [] });
  });
});
