import { circleThroughAll } from "./circleThroughAll";
import { v3 } from "./vec";

const round = (sweep: number, lean = 0) =>
  Array.from({ length: 9 }, (_, i) => {
    const [c, s] = [Math.cos((sweep * i) / 8), Math.sin((sweep * i) / 8)];
    return v3(3 + 5 * c, -2 + 5 * s * Math.cos(lean), 7 + 5 * s * Math.sin(lean));
  });

describe("the circle of points along a curve", () => {
  it.each([
    ["a whole one", 2 * Math.PI, 0],
    ["half of one, leaning", Math.PI, 0.6],
    ["a short arc the other way", -0.3, 1.2],
  ])("is found: %s", (_, sweep, lean) => {
    const found = circleThroughAll(round(sweep, lean))!;
    expect(found.radius).toBeCloseTo(5, 8);
    expect(found.centre.x).toBeCloseTo(3, 7);
    expect(found.centre.y).toBeCloseTo(-2, 7);
    expect(found.centre.z).toBeCloseTo(7, 7);
    expect(found.axis.z).toBeCloseTo(Math.sign(sweep) * Math.cos(lean), 7);
  });
  it("goes through any three points", () => {
    expect(circleThroughAll([v3(0, 0, 0), v3(2, 0, 0), v3(0, 2, 0)])!.centre).toEqual(v3(1, 1, 0));
  });
  it("is none of an ellipse, a line, or a helix", () => {
    expect(circleThroughAll(round(2 * Math.PI).map((p) => v3(p.x * 1.001, p.y, p.z)))).toBeNull();
    expect(circleThroughAll([0, 1, 2, 3].map((x) => v3(x, 2 * x, 0)))).toBeNull();
    expect(circleThroughAll(round(3).map((p, i) => v3(p.x, p.y, p.z + 0.01 * i)))).toBeNull();
    expect(circleThroughAll([v3(0, 0, 0), v3(1, 0, 0)])).toBeNull();
  });
});
