import { numberScope } from "@/core/engine/numbers";
import { sideFrame, v3 } from "@/core/geometry/vec";
import { circle } from "@/core/outline";
import { emptyJob, type Region } from "@/core/job";
import { toNumberText } from "@/core/number";
import { boxEdges, boxFaces, chainDotted, drillMark, loopLines, stockBottom, stockEdges } from "./outlines";
import { layPrint } from "./printPlace";

const scope = numberScope(emptyJob("x", "mm", ""));
const n = toNumberText;
const part = { min: v3(-50, -30, 0), max: v3(50, 30, 20) };
const region = (change: Partial<Region> = {}): Region => ({
  view: "top",
  page: 1,
  a: { x: 0.25, y: 0.3 },
  b: { x: 0.75, y: 0.3 },
  distance: n("100"),
  direction: "x",
  place: { x: n("-50"), y: n("0") },
  ...change,
});
const printCorners = (r: Region, aspect: number, box: typeof part, s: typeof scope, turn = 0) =>
  layPrint(r, turn, aspect, box, s)?.corners ?? null;

describe("a print laid over a view", () => {
  it("comes to scale, point a to its place", () => {
    // Half of the width is 100 mm: the picture is 200 wide, 120 high at an aspect of .6.
    const [a, b, c, d] = printCorners(region(), 0.6, part, scope)!;
    expect([a.x, a.y]).toEqual([expect.closeTo(-100, 9), expect.closeTo(-60, 9)]);
    expect([b.x, b.y]).toEqual([expect.closeTo(100, 9), expect.closeTo(-60, 9)]);
    expect([c.x, c.y]).toEqual([expect.closeTo(100, 9), expect.closeTo(60, 9)]);
    expect([d.x, d.y]).toEqual([expect.closeTo(-100, 9), expect.closeTo(60, 9)]);
    expect(a.z).toBeGreaterThan(20);
  });

  it("is straightened when it was photographed askew", () => {
    const corners = printCorners(region({ b: { x: 0.75, y: 0.25 } }), 0.6, part, scope)!;
    const [a, b] = corners;
    const tilt = Math.atan2(b.y - a.y, b.x - a.x);
    expect(tilt).toBeCloseTo(-Math.atan2(0.05, 0.5), 9);
  });

  it("stands in front of any side", () => {
    const [a] = printCorners(region({ view: "front", place: { x: n("-50"), y: n("10") } }), 0.6, part, scope)!;
    expect(a.y).toBeLessThan(-30);
    expect(a.z).toBeCloseTo(10 - 60, 9);
  });

  it("shows only the stretch it was bound to, at the same scale", () => {
    const at = layPrint(region({ box: { x0: 0.5, y0: 0.3, x1: 0.25, y1: 0.1 } }), 0, 0.6, part, scope)!;
    expect(at.uv).toEqual({ u0: 0.25, u1: 0.5, v0: expect.closeTo(0.5, 9), v1: expect.closeTo(1 - 0.1 / 0.6, 9) });
    expect([at.corners[0].x, at.corners[0].y]).toEqual([expect.closeTo(-50, 9), expect.closeTo(0, 9)]);
    expect([at.corners[2].x, at.corners[2].y]).toEqual([expect.closeTo(0, 9), expect.closeTo(40, 9)]);
  });

  it("stands upright when the page is read in quarter turns, whichever way a and b were picked", () => {
    // Read with a quarter turn to the right, what is up on the page lies to the right of it: along x as read is up
    // the stored page.
    for (const [a, b] of [
      [0.5, 0.1],
      [0.1, 0.5],
    ]) {
      const [p, q] = printCorners(
        region({ a: { x: 0.5, y: a }, b: { x: 0.5, y: b }, direction: "x" }),
        0.6,
        part,
        scope,
        1,
      )!;
      const right = { x: q.x - p.x, y: q.y - p.y };
      expect(right.x).toBeCloseTo(0, 9);
      expect(right.y).toBeLessThan(0);
    }
  });

  it("is not laid where a number is missing or the points are one", () => {
    expect(printCorners(region({ distance: n("?") }), 1, part, scope)).toBeNull();
    expect(printCorners(region({ b: { x: 0.25, y: 0.3 } }), 1, part, scope)).toBeNull();
  });
});

describe("lines drawn on the stage", () => {
  it("a box has twelve edges and twelve triangles", () => {
    expect(boxEdges(part)).toHaveLength(12);
    expect(boxFaces(part)).toHaveLength(12 * 9);
  });

  it("a chain-dotted line goes from end to end with gaps", () => {
    const p = chainDotted([[v3(0, 0, 0), v3(100, 0, 0)]], 2);
    expect(p[0]).toBe(0);
    const drawn = Array.from({ length: p.length / 6 }, (_, i) => p[6 * i + 3] - p[6 * i]).reduce((a, b) => a + b, 0);
    expect(drawn).toBeGreaterThan(50);
    expect(drawn).toBeLessThan(80);
    expect(chainDotted([[v3(1, 1, 1), v3(1, 1, 1)]], 2)).toEqual([]);
  });

  it("a round stock has its radius everywhere", () => {
    const stock = {
      shape: "round" as const,
      diameter: 80,
      volume: 0,
      box: { min: v3(-40, -40, 0), max: v3(40, 40, 30) },
    };
    for (const [a] of stockEdges(stock)) expect(Math.hypot(a.x, a.y)).toBeCloseTo(40, 9);
    // A fan of 70 triangles over 72 corners, and of two over four.
    expect(stockBottom(stock)).toHaveLength(70 * 9);
    expect(stockBottom({ ...stock, shape: "plate", diameter: undefined })).toHaveLength(18);
  });

  it("loops and drill points lie at their depth", () => {
    const top = sideFrame("top", 20);
    const l = loopLines(top, circle(5), 8);
    for (let i = 2; i < l.length; i += 3) expect(l[i]).toBeCloseTo(12, 9);
    expect(l.slice(0, 3)).toEqual([l[l.length - 3], l[l.length - 2], l[l.length - 1]]);
    const m = drillMark(top, { x: 3, y: 4 }, 10, 2);
    expect(m).toHaveLength(18);
    expect(m[17]).toBe(10);
  });
});
