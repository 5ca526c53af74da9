import fc from "fast-check";
import { atan2, Dual, hypot, least, notZero, Unknowns } from "./dual";
import { cross, dot, smooth, turned, turnedBy, unitOf, type Residual } from "./terms";

/** Derivatives by small changes, to compare with. */
function byChange(r: Residual, v: number[]): number[] {
  const h = 1e-6;
  return v.map((_, i) => {
    const at = (by: number) => r(new Unknowns(Float64Array.from(v, (x, k) => (k === i ? x + by : x)))).value;
    return (at(h) - at(-h)) / (2 * h);
  });
}
const vec = (k: number) => (u: Unknowns) => ({ x: u.at(2 * k), y: u.at(2 * k + 1) });
const terms: Record<string, Residual> = {
  sum: (u) => u.at(0).plus(u.at(1)).minus(u.at(2).scaled(3)).shifted(7),
  product: (u) => u.at(0).times(u.at(3)).over(u.at(4)),
  length: (u) => hypot(u.at(0), u.at(1)),
  angle: (u) => atan2(u.at(0), u.at(1)),
  smaller: (u) => least(u.at(0), u.at(1)),
  sine: (u) => cross(unitOf(vec(0)(u)), vec(1)(u)),
  cosine: (u) => dot(turned(vec(0)(u), 0.7), vec(2)(u)),
  smooth: (u) => smooth(vec(0)(u), vec(1)(u), false),
  eitherWay: (u) => smooth(vec(0)(u), vec(1)(u), true),
  sweep: turnedBy(0, 1, 2, 1.2),
};

/** Away from zero, and from the corners of a term (two lengths alike, a right angle), where small changes see both sides. */
const away = fc.integer({ min: 5, max: 500 }).chain((x) => fc.constantFrom(x / 10, -x / 10));
const numbers = fc.tuple(away, away, away, away, away, away).map((v) => v.map((x, i) => x + 0.0137 * Math.sqrt(i + 2)));
it.each(Object.keys(terms))("the derivatives of a %s are those of small changes", (name) => {
  fc.assert(
    fc.property(numbers, (v) => {
      const exact = terms[name](new Unknowns(Float64Array.from(v), [0, 1, 2, 3, 4, 5])).by;
      const scale = 1 + Math.max(...v.map(Math.abs)) ** 2;
      byChange(terms[name], v).forEach((d, i) => {
        // Across the cut of an angle a small change is a whole turn.
        fc.pre(Math.abs(d) < 1e5);
        expect(Math.abs(d - (exact[i] ?? 0))).toBeLessThan(1e-5 * scale);
      });
    }),
    { numRuns: 60 },
  );
});

it("two points in one place give no number that is none", () => {
  const nothing = hypot(new Dual(0, [1, 0]), new Dual(0, [0, 1]));
  expect([nothing.value, notZero(nothing).value > 0]).toEqual([0, true]);
  expect(atan2(new Dual(0, [1]), new Dual(0, [0])).value).toBe(0);
});
