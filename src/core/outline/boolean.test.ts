import { v2 } from "../geometry/vec";
import { band, combine, insideRegion, offsetRegion, oriented } from "./boolean";
import { circle, loopArea, moveLoop, perimeter, rectangleCorners, roundedLoop, type Loop } from "./outline";

const rect = (l: number, w: number, x = 0, y = 0): Loop => moveLoop(roundedLoop(rectangleCorners(l, w), 0)!, v2(x, y));
const area = (r: Loop[]) => r.reduce((s, l) => s + loopArea(l), 0);

describe("regions of lines and arcs", () => {
  it("joins, cuts out and overlaps two circles: the lens has its closed form", () => {
    const r = 10,
      d = 12,
      lens = 2 * r * r * Math.acos(d / (2 * r)) - (d / 2) * Math.sqrt(4 * r * r - d * d);
    const a = [circle(r)],
      b = [circle(r, v2(d, 0))];
    expect(area(combine(a, b, "overlap"))).toBeCloseTo(lens, 8);
    expect(area(combine(a, b, "join"))).toBeCloseTo(2 * Math.PI * r * r - lens, 8);
    expect(area(combine(a, b, "cutout"))).toBeCloseTo(Math.PI * r * r - lens, 8);
    expect(combine(a, b, "join")[0].every((s) => s.kind === "arc")).toBe(true);
  });
  it("handles shared walls, islands and what lies apart", () => {
    expect(area(combine([rect(10, 10)], [rect(10, 10, 10, 0)], "join"))).toBeCloseTo(200, 9);
    expect(combine([rect(10, 10)], [rect(10, 10, 10, 0)], "join")).toHaveLength(1);
    expect(combine([rect(10, 10)], [rect(10, 10, 10, 0)], "join")[0]).toHaveLength(4);
    expect(area(combine([rect(10, 10)], [rect(10, 4, 0, 3)], "cutout"))).toBeCloseTo(60, 9);
    expect(combine([rect(10, 10)], [rect(4, 4)], "cutout")).toHaveLength(2);
    expect(area(combine([rect(10, 10)], [rect(4, 4)], "cutout"))).toBeCloseTo(84, 9);
    expect(combine([rect(10, 10)], [rect(4, 4, 30, 0)], "join")).toHaveLength(2);
    expect(combine([rect(10, 10)], [rect(4, 4, 30, 0)], "overlap")).toEqual([]);
    expect(area(combine([rect(10, 10)], [rect(10, 10)], "join"))).toBeCloseTo(100, 9);
    expect(combine([rect(10, 10)], [rect(10, 10)], "cutout")).toEqual([]);
  });
  it("tells inside from outside of arcs", () => {
    const ring = oriented([circle(10), circle(5)]);
    expect([
      insideRegion(ring, v2(7, 0)),
      insideRegion(ring, v2(0, 0)),
      insideRegion(ring, v2(0, 9.999)),
      insideRegion(ring, v2(11, 0)),
    ]).toEqual([true, false, true, false]);
    expect(area(ring)).toBeCloseTo(Math.PI * 75, 9);
  });
  it("offsets by Steiner: A + P d + π d² outwards of anything convex, A - P d + 4 d² inwards of a square", () => {
    for (const shape of [rect(40, 20), roundedLoop(rectangleCorners(40, 20), 6)!, circle(9)]) {
      const a = loopArea(shape),
        p = perimeter(shape);
      for (const d of [0.5, 3, 12]) expect(area(offsetRegion([shape], d))).toBeCloseTo(a + p * d + Math.PI * d * d, 6);
    }
    expect(area(offsetRegion([rect(40, 20)], -3))).toBeCloseTo(34 * 14, 8);
    expect(area(offsetRegion([circle(9)], -3))).toBeCloseTo(Math.PI * 36, 8);
    expect(offsetRegion([rect(40, 20)], -10.5)).toEqual([]);
    expect(offsetRegion([circle(9)], -9.5)).toEqual([]);
  });
  it("offsets an L inwards with its inside corner sharp and outwards with it sharp, round outside", () => {
    const l = combine([rect(40, 40)], [rect(20, 20, 10, 10)], "cutout");
    expect(area(offsetRegion(l, 2))).toBeCloseTo(1200 + 160 * 2 + 5 * Math.PI - 4, 6);
    expect(area(offsetRegion(l, -2))).toBeCloseTo(1200 - 160 * 2 + 5 * 4 - Math.PI, 6);
    const holed = combine([rect(40, 40)], [circle(8)], "cutout");
    expect(area(offsetRegion(holed, 2))).toBeCloseTo(1600 + 320 + 4 * Math.PI - Math.PI * 36, 6);
    // A dumb-bell falls into two when its neck closes.
    const bell = combine(combine([rect(20, 20, -20, 0)], [rect(20, 20, 20, 0)], "join"), [rect(30, 4)], "join");
    expect(offsetRegion(bell, -3)).toHaveLength(2);
  });
  it("makes a band round an open chain: 2 d L + π d²", () => {
    expect(area(band([{ kind: "line", from: v2(0, 0), to: v2(30, 0) }], 4))).toBeCloseTo(240 + 16 * Math.PI, 6);
    const bent = band(
      [
        { kind: "line", from: v2(0, 0), to: v2(30, 0) },
        { kind: "arc", centre: v2(30, 20), radius: 20, start: -Math.PI / 2, sweep: Math.PI / 2 },
      ],
      4,
    );
    expect(area(bent)).toBeCloseTo(2 * 4 * (30 + 10 * Math.PI) + 16 * Math.PI, 6);
  });
});
