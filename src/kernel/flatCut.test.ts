import fc from "fast-check";
import type { Vec2 } from "@/core/geometry/vec";
import { betterSides, cutOut, earsOf, ringArea, type FlatTriangles } from "./flatCut";

const square: Vec2[] = [
  { x: 0, y: 0 },
  { x: 100, y: 0 },
  { x: 100, y: 100 },
  { x: 0, y: 100 },
];
const whole = (): FlatTriangles => ({ corners: square.flatMap((p) => [p.x, p.y]), triangles: earsOf([square]) });

/** A star of 2n points: rings of pockets are not convex. */
const star = (at: Vec2, n: number, outer: number, inner: number): Vec2[] =>
  Array.from({ length: 2 * n }, (_, i) => {
    const r = i % 2 ? inner : outer;
    return { x: at.x + r * Math.cos((Math.PI * i) / n), y: at.y + r * Math.sin((Math.PI * i) / n) };
  });

function trianglesOf({ corners, triangles }: FlatTriangles): Vec2[][] {
  const at = (i: number) => ({ x: corners[2 * i], y: corners[2 * i + 1] });
  return Array.from({ length: triangles.length / 3 }, (_, t) => [0, 1, 2].map((k) => at(triangles[3 * t + k])));
}

const spots = fc.uniqueArray(fc.integer({ min: 0, max: 24 }), { minLength: 1, maxLength: 25 });
const shape = fc.record({ n: fc.integer({ min: 3, max: 12 }), inner: fc.double({ min: 0.3, max: 1, noNaN: true }) });

test("rings cut out one after another leave the area there is, in triangles that all turn one way", () => {
  fc.assert(
    fc.property(spots, fc.array(shape, { minLength: 25, maxLength: 25 }), (at, shapes) => {
      const flat = whole();
      let left = 100 * 100;
      for (const k of at) {
        const { n, inner } = shapes[k];
        const ring = star({ x: 10 + 20 * (k % 5), y: 10 + 20 * Math.floor(k / 5) }, n, 8, 8 * inner);
        expect(cutOut(flat, ring)).toBe(true);
        left -= ringArea(ring);
      }
      const areas = trianglesOf(flat).map(ringArea);
      expect(Math.min(...areas)).toBeGreaterThan(-1e-9);
      expect(areas.reduce((a, b) => a + b, 0)).toBeCloseTo(left, 6);
    }),
    { numRuns: 60, seed: 20261127 },
  );
});

test("no triangle lies over a ring that was cut out", () => {
  const flat = whole();
  const rings = [star({ x: 30, y: 30 }, 20, 9, 9), star({ x: 62, y: 55 }, 6, 20, 8), star({ x: 30, y: 80 }, 20, 9, 9)];
  for (const r of rings) cutOut(flat, r);
  const middles = trianglesOf(flat).map(([a, b, c]) => ({ x: (a.x + b.x + c.x) / 3, y: (a.y + b.y + c.y) / 3 }));
  for (const m of middles) {
    expect(Math.hypot(m.x - 30, m.y - 30)).toBeGreaterThan(8.8);
    expect(Math.hypot(m.x - 30, m.y - 80)).toBeGreaterThan(8.8);
    expect(Math.hypot(m.x - 62, m.y - 55)).toBeGreaterThan(6);
  }
});

test("a ring that runs out of the flat is refused, and nothing is changed", () => {
  const flat = whole();
  const before = structuredClone(flat);
  expect(cutOut(flat, star({ x: 99, y: 50 }, 12, 8, 8))).toBe(false);
  expect(flat).toEqual(before);
});

test("flipping sides keeps the triangles' number and area and makes the least angle no smaller", () => {
  const ring = star({ x: 50, y: 50 }, 24, 45, 44);
  const points = [...square, ...ring];
  const ears = earsOf([square, ring]);
  const better = betterSides(points, ears);
  const leastAngle = (list: number[]) => {
    const corners = points.flatMap((p) => [p.x, p.y]);
    const angles = trianglesOf({ corners, triangles: list }).flatMap((t) =>
      t.map((p, i) => {
        const [q, r] = [t[(i + 1) % 3], t[(i + 2) % 3]];
        const dot = (q.x - p.x) * (r.x - p.x) + (q.y - p.y) * (r.y - p.y);
        return Math.acos(dot / Math.hypot(q.x - p.x, q.y - p.y) / Math.hypot(r.x - p.x, r.y - p.y));
      }),
    );
    return Math.min(...angles);
  };
  expect(better.length).toBe(ears.length);
  expect(leastAngle(better)).toBeGreaterThanOrEqual(leastAngle(ears));
});
