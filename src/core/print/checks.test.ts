import { inch, jobOf } from "../../../tests/helpers/card";
import { numberScope } from "../engine/numbers";
import { checkFigure, compareChecks } from "./checks";

const part = { mass: 453.59237 * 1.25, volume: 25.4 ** 3 * 2 } as Parameters<typeof compareChecks>[1];

describe("check values as a print has them", () => {
  const job = jobOf(inch("LEAVE BLOCK 2 X 1 X 1", "CHECK MASS 1.25 LB", "CHECK VOLUME 2.000", "CHECK MASS 567 G"));
  const [pounds, volume, grams] = compareChecks(job, part, numberScope(job));
  it("agree with the model whatever unit the mass is printed in", () => {
    expect([pounds, volume, grams].map((c) => c.agrees)).toEqual([true, true, true]);
    // International pound, 1959: 0.45359237 kg.
    expect(pounds.expected).toBeCloseTo(566.99046, 4);
  });
  it("are said in the unit they are printed in, never in another", () => {
    expect(checkFigure(pounds, pounds.actual!, "in")).toBe("1.2500 lb");
    expect(checkFigure(grams, grams.actual!, "in")).toBe("566.99 g");
    expect(checkFigure(volume, volume.actual!, "in")).toBe("2.0000 in³");
  });
});
