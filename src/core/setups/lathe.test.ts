import { v3 } from "../geometry/vec";
import { angleOnLathe, onLathe } from "./lathe";

describe("a place on a lathe", () => {
  it("is a diameter and how far along the axis", () => {
    expect(onLathe(v3(3, 4, 7))).toEqual(v3(10, 0, 7));
    expect(onLathe(v3(-3, -4, -7))).toEqual(v3(10, 0, -7));
  });
  it("stands at an angle from X, within one turn; on the axis at none", () => {
    expect(angleOnLathe(v3(0, 5, 1))).toBeCloseTo(Math.PI / 2, 12);
    expect(angleOnLathe(v3(0, -5, 1))).toBeCloseTo((3 * Math.PI) / 2, 12);
    expect(angleOnLathe(v3(0, 0, 1))).toBeNull();
  });
});
