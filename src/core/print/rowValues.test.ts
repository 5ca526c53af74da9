import { prepare } from "../engine/prepare";
import { rowNames } from "../job/names";
import { inch, jobOf } from "../../../tests/helpers/card";
import { rowValues } from "./rowValues";

const pieces = (...lines: string[]) => {
  const job = jobOf(inch(...lines));
  const { rows } = prepare(job);
  const last = rows[rows.length - 1];
  return rowValues(last.row, last.numbers, job, rowNames(job.rows));
};
const text = (...lines: string[]) =>
  pieces(...lines)
    .map((p) => p.text)
    .join("");

describe("a row with its values", () => {
  it("stands as the print gives it, with its balloons beside", () => {
    const all = pieces(
      "#1 8X ⌀.281",
      "#2 ⌀.438",
      "#3 .280 DEEP",
      "LEAVE BLOCK 5 X 5 X 1",
      "CUT 8X ⌀#1 THRU CBORE ⌀#2 DEEP #3 ON BC 3.5",
    );
    expect(all.map((p) => p.text).join("")).toBe("8X ⌀.281 THRU CBORE ⌀.438 DEEP .280 ON BC 3.5");
    expect(all.filter((p) => p.balloons.length).map((p) => [p.text, p.balloons, p.typed])).toEqual([
      [".281", [1], "#1"],
      [".438", [2], "#2"],
      [".280", [3], "#3"],
    ]);
  });
  it("works out what is made of balloons and named values", () => {
    expect(text("LET wall = .125", "#1 2.5", "LEAVE BLOCK 5 X #1 X (#1/2 - wall)")).toBe("BLOCK 5 X 2.5 X 1.125");
  });
  it("keeps what was typed, without the mark of its source", () => {
    expect(text("LEAVE BLOCK 1-1/2 X 2.000! X 3/8 R.25")).toBe("BLOCK 1-1/2 X 2.000 X 3/8 R.25");
  });
});
