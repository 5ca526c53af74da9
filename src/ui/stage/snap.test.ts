import { readCard } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import { v2 } from "@/core/geometry/vec";
import { evaluateOutlines } from "@/core/outline/evaluateOutline";
import { framed } from "./closeUp";
import { snapTo } from "./snap";

const outline = (...lines: string[]) => {
  const { job } = readCard(["UNIT mm", 'OUTLINE "o"', ...lines, "END"].join("\n"));
  return [...evaluateOutlines(job.outlines, numberScope(job)).values()][0];
};
const walk = outline("CIRCLE ⌀20 AT 30,0", "START 0,0", "LINE TO 0,-25");

describe("places picked on the stage", () => {
  it("are ends, centres, quadrants, middles and crossings, the nearest of the better kind", () => {
    expect(snapTo(walk, v2(0.4, -24.7), 1, "mm")).toEqual({ text: "0,-25", what: "end" });
    expect(snapTo(walk, v2(30.3, 0.2), 1, "mm")).toEqual({ text: "30,0", what: "centre" });
    expect(snapTo(walk, v2(30.2, 9.8), 1, "mm")).toEqual({ text: "30,10", what: "quadrant" });
    expect(snapTo(walk, v2(0.2, -12.1), 1, "mm")).toEqual({ text: "0,-12.5", what: "middle" });
    const crossed = outline("CIRCLE ⌀20", "START -20,6", "LINE TO X 20");
    expect(snapTo(crossed, v2(8.2, 6.1), 1, "mm")).toEqual({ text: "8,6", what: "crossing" });
  });
  it("are the points where a line from the walk’s end touches a circle", () => {
    // From 0,-25 to the circle of radius 10 about 30,0: the foot of the tangent is square to its radius.
    const d = Math.hypot(30, 25),
      half = Math.acos(10 / d),
      back = Math.atan2(-25, -30),
      a = back - half,
      p = v2(30 + 10 * Math.cos(a), 10 * Math.sin(a));
    const s = snapTo(walk, v2(p.x + 0.3, p.y + 0.2), 1, "mm"),
      [x, y] = s.text.split(",").map(Number);
    expect(s.what).toBe("tangent");
    expect((x - 30) * x + y * (y + 25)).toBeCloseTo(0, 2);
    expect(Math.hypot(x - 30, y)).toBeCloseTo(10, 3);
  });
  it("are the grid’s where nothing is near", () => {
    expect(snapTo(walk, v2(-41.2, 17.9), 1.5, "mm")).toEqual({ text: "-40,20", what: "grid" });
  });
});

describe("the stretch an outline is looked at in", () => {
  it("stays while the outline stays in it, and widens when it leaves", () => {
    const box = (x0: number, y0: number, x1: number, y1: number) => ({ min: { x: x0, y: y0 }, max: { x: x1, y: y1 } });
    const first = framed(null, "a", box(0, 0, 10, 10));
    expect(framed(first, "a", box(-3, 0, 13, 12))).toBe(first);
    const wider = framed(first, "a", box(0, 0, 30, 10));
    expect(wider.max.x).toBeGreaterThan(30);
    expect(framed(wider, "b", box(0, 0, 10, 10))).toEqual({ ...first, id: "b" });
  });
});
