import fc from "fast-check";
import {
  add,
  boxInFrame,
  boxOf,
  cross,
  dot,
  fromFrame,
  length,
  rotate2,
  scale,
  sideFrame,
  sideNormal,
  sides,
  sub,
  toFrame,
  unit,
  v2,
  v3,
} from "./vec";

const coordinate = fc.double({ min: -500, max: 500, noNaN: true });

describe("frames of the six sides", () => {
  it.each(sides)("%s is right-handed and looks out of the part", (side) => {
    const f = sideFrame(side, 12);
    expect(cross(f.x, f.y)).toEqual({
      x: expect.closeTo(f.normal.x, 12),
      y: expect.closeTo(f.normal.y, 12),
      z: expect.closeTo(f.normal.z, 12),
    });
    expect(dot(f.origin, sideNormal(side))).toBe(12);
    expect(dot(f.x, f.normal)).toBe(0);
  });

  it("have the coordinates a sheet gives them", () => {
    const p = v3(1, 2, 3);
    const seen = (side: (typeof sides)[number]) => {
      const q = toFrame(sideFrame(side, 0), p);
      return [q.x, q.y];
    };
    expect(seen("top")).toEqual([1, 2]);
    expect(seen("bottom")).toEqual([1, -2]);
    expect(seen("front")).toEqual([1, 3]);
    expect(seen("back")).toEqual([-1, 3]);
    expect(seen("right")).toEqual([2, 3]);
    expect(seen("left")).toEqual([-2, 3]);
  });

  it("bring every point back", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...sides),
        coordinate,
        coordinate,
        coordinate,
        coordinate,
        (side, offset, x, y, depth) => {
          const f = sideFrame(side, offset);
          const q = toFrame(f, fromFrame(f, v2(x, y), depth));
          expect(q.x).toBeCloseTo(x, 9);
          expect(q.y).toBeCloseTo(y, 9);
          expect(q.z).toBeCloseTo(-depth, 9);
        },
      ),
    );
  });
});

describe("vectors and boxes", () => {
  it("keep their length when turned", () => {
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, (x, y, a) => {
        const r = rotate2(v2(x, y), a);
        expect(Math.hypot(r.x, r.y)).toBeCloseTo(Math.hypot(x, y), 8);
      }),
    );
  });

  it("add, subtract and scale", () => {
    expect(sub(add(v3(1, 2, 3), v3(4, 5, 6)), v3(4, 5, 6))).toEqual(v3(1, 2, 3));
    expect(length(unit(v3(3, 4, 12)))).toBeCloseTo(1, 12);
    expect(scale(v3(1, -2, 3), -2)).toEqual(v3(-2, 4, -6));
  });

  it("hold their points, in any frame", () => {
    const box = boxOf([v3(-1, 5, 2), v3(4, -3, 8)]);
    expect(box).toEqual({ min: v3(-1, -3, 2), max: v3(4, 5, 8) });
    const seen = boxInFrame(sideFrame("front", 3), box);
    expect(seen.min).toEqual(v3(-1, 2, -8));
    expect(seen.max).toEqual(v3(4, 8, 0));
  });
});
