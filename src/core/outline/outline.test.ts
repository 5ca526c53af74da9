import fc from "fast-check";
import {
  circle,
  cornerRest,
  endOf,
  flatsFromCorners,
  insetCorners,
  insideOffset,
  insideRest,
  loopArea,
  loopBox,
  moveLoop,
  outlineArea,
  outsideOffset,
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
  it("leaves four corner kites behind a 10 mm cutter", () => {
    const rest = insideRest({ corners: rectangleCorners(50, 30), radius: 0 }, 5);
    expect(rest.area).toBeCloseTo(4 * (1 - Math.PI / 4) * 25, 9);
    expect(rest.loops).toHaveLength(4);
    expect(rest.loops.reduce((s, l) => s + loopArea(l), 0)).toBeCloseTo(rest.area, 9);
    expect(rest.loops.every(closed)).toBe(true);
    expect(cornerRest(5, Math.PI / 2)).toBeCloseTo((1 - Math.PI / 4) * 25, 12);
  });
  it("leaves nothing where the corner is as round as the cutter", () => {
    expect(insideRest({ corners: rectangleCorners(50, 30), radius: 5 }, 5)).toEqual({ area: 0, loops: [] });
    const between = insideRest({ corners: rectangleCorners(50, 30), radius: 2 }, 5);
    expect(between.area).toBeCloseTo((4 - Math.PI) * (25 - 4), 9);
    expect(between.loops.reduce((s, l) => s + loopArea(l), 0)).toBeCloseTo(between.area, 9);
  });
  it("leaves the whole pocket when the cutter does not go in", () => {
    expect(insideRest({ corners: rectangleCorners(50, 8), radius: 0 }, 5).area).toBeCloseTo(400, 9);
    expect(insideOffset({ corners: rectangleCorners(50, 8), radius: 0 }, 5)).toBeNull();
  });
  it("keeps the corner formula for any polygon", () => {
    for (const n of [3, 5, 6, 8]) {
      const inner = ((n - 2) * Math.PI) / n;
      expect(insideRest({ corners: polygonCorners(n, 60), radius: 0 }, 4).area).toBeCloseTo(
        n * cornerRest(4, inner),
        8,
      );
    }
  });
  it("moves walls in by the radius", () => {
    const inner = insideOffset({ corners: rectangleCorners(50, 30), radius: 8 }, 5)!;
    expect(loopArea(inner)).toBeCloseTo(40 * 20 - (4 - Math.PI) * 9, 9);
    expect(insetCorners(rectangleCorners(10, 10), 5)).toBeNull();
  });
  it("goes round the outside exactly: A + P r + π r²", () => {
    for (const loop of [
      roundedLoop(rectangleCorners(40, 25), 0)!,
      roundedLoop(rectangleCorners(40, 25), 4)!,
      roundedLoop(polygonCorners(6, 30), 2)!,
      circle(12),
    ]) {
      const out = outsideOffset(loop, 6);
      expect(closed(out)).toBe(true);
      expect(loopArea(out)).toBeCloseTo(loopArea(loop) + perimeter(loop) * 6 + Math.PI * 36, 8);
    }
  });
});
