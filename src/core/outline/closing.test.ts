// Growing a region and shrinking it again: what a round cutter leaves. Lengths mm.
import { v2 } from "../geometry/vec";
import { combine, insideRegion, offsetRegion, type Region } from "./boolean";
import { circle, loopArea, rectangleBetween } from "./outline";
import fc from "fast-check";

const area = (region: Region) => region.reduce((sum, l) => sum + loopArea(l), 0);
/** Two jaws, so far apart, with a nest of 60 x 40 cut into both. */
function jaws(gap: number): Region {
  const jaw = (side: 1 | -1): Region[number] => {
    const at = (x: number, y: number) => v2(x, side * y);
    const points = [
      at(-50, gap / 2),
      at(-30, gap / 2),
      at(-30, 20),
      at(30, 20),
      at(30, gap / 2),
      at(50, gap / 2),
      at(50, 40),
      at(-50, 40),
    ];
    const way = side > 0 ? points : points.reverse();
    return way.map((from, i) => ({ kind: "line", from, to: way[(i + 1) % way.length] }));
  };
  return [jaw(1), jaw(-1)];
}
const closed = (region: Region, r: number) => offsetRegion(offsetRegion(region, r), -r);

describe("what stands, grown and shrunk again", () => {
  const r = 1.5875;
  it.each([0, 1e-12, -1e-12, 1e-9, -1e-9, 1e-6, -1e-6, 1e-3, -1e-3, 0.1, -0.1, 1, -1])(
    "keeps all of two jaws whose gap is as wide as the cutter and %d more",
    (more) => {
      const solid = jaws(2 * r + more);
      const made = closed(solid, r);
      // Nothing is lost; at most the gaps beside the nest are filled, two of 20 long, and the nest's four corners.
      expect(area(made)).toBeGreaterThanOrEqual(area(solid) - 1e-6);
      const filled = more <= 1e-6 ? 2 * 20 * (2 * r + more) : 0;
      expect(area(made)).toBeLessThanOrEqual(area(solid) + filled + 4 * (1 - Math.PI / 4) * r * r + 1e-3);
      expect(insideRegion(made, v2(0, 30))).toBe(true);
      expect(insideRegion(made, v2(0, 0))).toBe(false);
      expect(insideRegion(made, v2(29.9, 19.9))).toBe(true);
    },
  );
  it("fills a gap that is narrower, but for what the cutter reaches from its ends", () => {
    const made = closed(jaws(1), r);
    const whole = [rectangleBetween(v2(-50, -40), v2(50, 40))];
    // Each mouth of a gap of 1 is left open as far as a cutter of radius r goes in between its corners.
    const half = Math.asin(0.5 / r);
    const segment = (r * r * (2 * half - Math.sin(2 * half))) / 2;
    expect(area(made)).toBeCloseTo(area(whole) - 60 * 40 + 4 * (1 - Math.PI / 4) * r * r - 4 * segment, 6);
  });
});

describe("shapes on a grid, which touch, lap and leave slots as wide as what they are grown by", () => {
  const piece = fc.record({
    x: fc.integer({ min: 0, max: 11 }),
    y: fc.integer({ min: 0, max: 11 }),
    wide: fc.integer({ min: 1, max: 6 }),
    high: fc.integer({ min: 1, max: 6 }),
    isRound: fc.boolean(),
    isCut: fc.boolean(),
  });
  const made = (pieces: { x: number; y: number; wide: number; high: number; isRound: boolean; isCut: boolean }[]) =>
    pieces.reduce<Region>((region, { x, y, wide, high, isRound, isCut }) => {
      const shape = isRound ? circle(Math.min(wide, 3), v2(x, y)) : rectangleBetween(v2(x, y), v2(x + wide, y + high));
      return region.length ? combine(region, [shape], isCut ? "cutout" : "join") : [shape];
    }, []);
  it("lose nothing when they are grown and shrunk, and gain nothing the other way round", () => {
    fc.assert(
      fc.property(fc.array(piece, { minLength: 2, maxLength: 6 }), fc.integer({ min: 1, max: 4 }), (pieces, half) => {
        const region = made(pieces);
        const by = half / 2;
        const whole = area(region);
        const opened = offsetRegion(offsetRegion(region, -by), by);
        return area(closed(region, by)) >= whole - 1e-6 && area(opened) <= whole + 1e-6;
      }),
      { numRuns: 400, seed: 13 },
    );
  });
});
