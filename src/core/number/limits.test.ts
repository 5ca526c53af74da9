import { emptyJob } from "../job";
import { numberScope } from "../engine/numbers";
import { evaluateNumber, INCH, type LengthUnit, type Quantity } from "./index";

const taken = (text: string, quantity: Quantity, unit: LengthUnit) =>
  evaluateNumber(text, quantity, numberScope(emptyJob("x", unit, ""))).ok;

describe("how long and how far a number may be, in millimetres whatever the job's unit", () => {
  // 0.001 mm and 100 m: the same in an inch job, where they are 1/25400 and 3937.0079 in.
  it.each<[LengthUnit, string, string]>([
    ["mm", "0.001", "0.00099"],
    ["in", String(0.00100001 / INCH), String(0.00099 / INCH)],
    ["in", "0.00005", "0.00003"],
  ])("a length in %s is no shorter: %s is taken, %s is not", (unit, shortest, shorter) => {
    expect(taken(shortest, "length", unit)).toBe(true);
    expect(taken(shorter, "length", unit)).toBe(false);
  });
  it.each<[LengthUnit, Quantity, string, string]>([
    ["mm", "length", "100000", "100000.1"],
    ["in", "length", "3937", "3938"],
    ["mm", "offset", "100000", "100000.1"],
    ["in", "offset", "3937", "3938"],
    ["mm", "coordinate", "100000", "100000.1"],
    ["mm", "coordinate", "-100000", "-100000.1"],
    ["in", "coordinate", "3937", "3938"],
    ["in", "coordinate", "-3937", "-3938"],
  ])("a %s %s ends there: %s is taken, %s is not", (unit, quantity, farthest, farther) => {
    expect(taken(farthest, quantity, unit)).toBe(true);
    expect(taken(farther, quantity, unit)).toBe(false);
  });
  it.each<[Quantity, string, boolean]>([
    ["offset", "0", true],
    ["offset", "-0.1", false],
    ["length", "0", false],
    ["angle", "3600", true],
    ["angle", "3600.1", false],
    ["angle", "-3600", true],
    ["angle", "-3600.1", false],
    ["includedAngle", "0", false],
    ["includedAngle", "179.9", true],
    ["includedAngle", "180", false],
    ["count", "1", true],
    ["count", "0", false],
    ["count", "5000", true],
    ["count", "5001", false],
    ["count", "1.5", false],
  ])("%s %s: %s", (quantity, text, is) => expect(taken(text, quantity, "mm")).toBe(is));
});
