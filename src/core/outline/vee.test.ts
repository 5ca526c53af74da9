import { v2 } from "../geometry/vec";
import { circle, perimeter, roundedLoop, rectangleCorners, type Segment } from "./outline";
import { veeRuns } from "./vee";

const line = (x0: number, y0: number, x1: number, y1: number): Segment => ({
  kind: "line",
  from: v2(x0, y0),
  to: v2(x1, y1),
});
const length = (r: ReturnType<typeof veeRuns>) => r.runs.reduce((s, x) => s + perimeter(x.segments), 0);

describe("stretches of a groove", () => {
  it("are whole loops where nothing is sharp and nothing laps", () => {
    const r = veeRuns([circle(10), roundedLoop(rectangleCorners(40, 20), 5)!], 1);
    expect(r.runs.map((x) => x.closed)).toEqual([true, true]);
    expect(r.cones).toEqual([]);
  });
  it("end at sharp corners and at open ends, with a cone there", () => {
    const square = veeRuns([[line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 10), line(0, 10, 0, 0)]], 1);
    expect([square.runs.length, square.cones.length]).toEqual([4, 4]);
    const open = veeRuns([[line(0, 0, 10, 0), line(10, 0, 20, 0)]], 1);
    expect([open.runs.length, open.cones]).toEqual([1, [v2(20, 0), v2(0, 0)]]);
  });
  it("part at arcs tighter than the groove is wide, which stay alone", () => {
    const loop = roundedLoop(rectangleCorners(40, 20), 0.5)!;
    expect(veeRuns([loop], 0.3).runs).toHaveLength(1);
    const r = veeRuns([loop], 1);
    expect(r.runs.filter((x) => x.segments.length === 1 && x.segments[0].kind === "arc")).toHaveLength(4);
    expect(length(r)).toBeCloseTo(perimeter(loop), 9);
  });
  it("part where the groove would lap over another stretch of itself", () => {
    // A narrow loop, 1.5 wide, with a groove 1 to either side.
    const narrow = roundedLoop(rectangleCorners(40, 3), 1.5)!;
    expect(veeRuns([narrow], 1.2).runs).toHaveLength(1);
    const hairpin: Segment[] = [
      line(0, 0, 30, 0),
      { kind: "arc", centre: v2(30, 1.3), radius: 1.3, start: -Math.PI / 2, sweep: Math.PI },
      line(30, 2.6, 0, 2.6),
    ];
    const r = veeRuns([hairpin], 1.29),
      lapping = veeRuns(
        [
          [
            line(0, 0, 30, 0),
            { kind: "arc", centre: v2(30, 3), radius: 3, start: -Math.PI / 2, sweep: Math.PI },
            line(30, 6, 10, 2),
            line(10, 2, 0, 2),
          ],
        ],
        1.2,
      );
    expect(r.runs).toHaveLength(1);
    expect(lapping.runs.length).toBeGreaterThan(2);
    expect(length(lapping)).toBeCloseTo(
      perimeter([line(0, 0, 30, 0), line(30, 6, 10, 2), line(10, 2, 0, 2)]) + 3 * Math.PI,
      9,
    );
  });
});
