import fc from "fast-check";
import { combine, offsetRegion } from "./boolean";
import {
  circle,
  endOf,
  flatsFromCorners,
  loopArea,
  loopBox,
  moveLoop,
  outlineArea,
  perimeter,
  polygonCorners,
  rectangleCorners,
  roundedLoop,
  startOf,
  type Loop,
} from ".";

const closed = (loop: Loop) =>
  loop.every((s, i) => {
    const a = endOf(s),
      b = startOf(loop[(i + 1) % loop.length]);
    return Math.hypot(a.x - b.x, a.y - b.y) < 1e-9;
  });

describe("outlines", () => {
  it("have the areas of elementary geometry", () => {
    expect(loopArea(circle(5))).toBeCloseTo(25 * Math.PI, 10);
    expect(loopArea(roundedLoop(rectangleCorners(40, 30), 0)!)).toBeCloseTo(1200, 10);
    expect(loopArea(roundedLoop(rectangleCorners(40, 30), 5)!)).toBeCloseTo(1200 - (4 - Math.PI) * 25, 10);
    // Hexagon of 30 across flats: (√3/2) a²
    expect(loopArea(roundedLoop(polygonCorners(6, 30), 0)!)).toBeCloseTo((Math.sqrt(3) / 2) * 900, 9);
    expect(outlineArea({ outer: circle(10), holes: [circle(4)] })).toBeCloseTo(84 * Math.PI, 9);
    expect(flatsFromCorners(6, 34.6410161514)).toBeCloseTo(30, 8);
  });
  it("stand with a flat to the front", () => {
    const front = polygonCorners(5, 20).filter((p) => Math.abs(p.y + 10) < 1e-9);
    expect(front).toHaveLength(2);
  });
  it("refuse rounds that do not fit", () => {
    expect(roundedLoop(rectangleCorners(10, 4), 2.01)).toBeNull();
    expect(roundedLoop(rectangleCorners(10, 4), 2)).not.toBeNull();
  });
  it("turn without losing area and close", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 50, noNaN: true }),
        fc.double({ min: 1, max: 50, noNaN: true }),
        fc.double({ min: 0, max: 0.49, noNaN: true }),
        fc.double({ min: -7, max: 7, noNaN: true }),
        (l, w, share, turn) => {
          const loop = roundedLoop(rectangleCorners(l, w), share * Math.min(l, w))!;
          const moved = moveLoop(loop, { x: 3, y: -2 }, turn);
          expect(closed(moved)).toBe(true);
          expect(loopArea(moved)).toBeCloseTo(loopArea(loop), 6);
          expect(perimeter(moved)).toBeCloseTo(perimeter(loop), 6);
        },
      ),
    );
  });
  it("have boxes that count the quadrants of arcs", () => {
    const b = loopBox(moveLoop(circle(7), { x: 1, y: 2 }));
    expect([b.min.x, b.min.y, b.max.x, b.max.y]).toEqual([-6, -5, 8, 9].map((n) => expect.closeTo(n, 9)));
  });
});

describe("offsets and what a cutter leaves", () => {
  const rest = (loop: Loop, radius: number) =>
    combine([loop], offsetRegion(offsetRegion([loop], -radius), radius), "cutout");
  const areaOf = (region: Loop[]) => region.reduce((sum, l) => sum + loopArea(l), 0);
  // What a round cutter leaves between two walls at an angle: the kite of the tangent points less the sector.
  const cornerRest = (radius: number, angle: number) =>
    radius * radius * (1 / Math.tan(angle / 2) - (Math.PI - angle) / 2);

  it("leaves four corner kites behind a 10 mm cutter", () => {
    const left = rest(roundedLoop(rectangleCorners(50, 30), 0)!, 5);
    expect(areaOf(left)).toBeCloseTo(4 * (1 - Math.PI / 4) * 25, 9);
    expect(left).toHaveLength(4);
    expect(left.every(closed)).toBe(true);
  });
  it("leaves the ring between the rounds where the corner is rounder than sharp and smaller than the cutter", () => {
    expect(areaOf(rest(roundedLoop(rectangleCorners(50, 30), 2)!, 5))).toBeCloseTo((4 - Math.PI) * (25 - 4), 6);
    expect(areaOf(rest(roundedLoop(rectangleCorners(50, 30), 5)!, 5))).toBeCloseTo(0, 9);
  });
  it("leaves the whole pocket when the cutter does not go in", () => {
    expect(offsetRegion([roundedLoop(rectangleCorners(50, 8), 0)!], -5)).toEqual([]);
  });
  it("keeps the corner formula for any polygon", () => {
    for (const n of [3, 5, 6, 8]) {
      const inner = ((n - 2) * Math.PI) / n;
      expect(areaOf(rest(roundedLoop(polygonCorners(n, 60), 0)!, 4))).toBeCloseTo(n * cornerRest(4, inner), 7);
    }
  });
  it("moves walls in by the radius", () => {
    const inner = offsetRegion([roundedLoop(rectangleCorners(50, 30), 8)!], -5);
    expect(areaOf(inner)).toBeCloseTo(40 * 20 - (4 - Math.PI) * 9, 9);
    expect(offsetRegion([roundedLoop(rectangleCorners(10, 10), 0)!], -5)).toEqual([]);
  });
  it("goes round the outside exactly: A + P r + π r²", () => {
    for (const loop of [
      roundedLoop(rectangleCorners(40, 25), 0)!,
      roundedLoop(rectangleCorners(40, 25), 4)!,
      roundedLoop(polygonCorners(6, 30), 2)!,
      circle(12),
    ]) {
      const out = offsetRegion([loop], 6);
      expect(out).toHaveLength(1);
      expect(closed(out[0])).toBe(true);
      expect(loopArea(out[0])).toBeCloseTo(loopArea(loop) + perimeter(loop) * 6 + Math.PI * 36, 8);
    }
  });
});
