import { bezierAt, bezierThrough } from "../geometry/bezier";
import { v2 } from "../geometry/vec";
import { band, offsetRegion } from "./boolean";
import { circle, loopArea, perimeter, roundedLoop, rectangleCorners, type Segment } from "./outline";
import { veeRuns } from "./vee";
import { veeCells, withCorners, type VeeCells, type VeeRun } from "./veeCells";
import { lettering } from "./letters";

const line = (x0: number, y0: number, x1: number, y1: number): Segment => ({
  kind: "line",
  from: v2(x0, y0),
  to: v2(x1, y1),
});
const length = (r: ReturnType<typeof veeRuns>) => r.runs.reduce((s, x) => s + perimeter(x.elements), 0);

describe("stretches of a groove", () => {
  it("are whole loops where nothing is sharp and nothing laps", () => {
    const r = veeRuns([circle(10), roundedLoop(rectangleCorners(40, 20), 5)!], 1);
    expect(r.runs.map((x) => x.closed)).toEqual([true, true]);
    expect(r.cones).toEqual([]);
  });
  it("run on through sharp corners, and end round where the chain ends", () => {
    const square = veeRuns([[line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 10), line(0, 10, 0, 0)]], 1);
    expect([square.runs.length, square.cones.length]).toEqual([1, 0]);
    const open = veeRuns([[line(0, 0, 10, 0), line(10, 0, 20, 0)]], 1);
    expect(open.runs.map((x) => x.caps)).toEqual([{ start: true, end: true }]);
    expect(open.cones).toEqual([]);
  });
  it("run on through arcs tighter than the groove is wide", () => {
    const loop = roundedLoop(rectangleCorners(40, 20), 0.5)!;
    for (const w of [0.3, 1]) {
      const r = veeRuns([loop], w);
      expect(r.runs).toHaveLength(1);
      expect(length(r)).toBeCloseTo(perimeter(loop), 9);
    }
  });
  it("leave an arc alone whose round ends would lap over each other", () => {
    const ring: Segment = { kind: "arc", centre: v2(0, 0), radius: 5, start: 0, sweep: 2 * Math.PI - 0.2 };
    const r = veeRuns([[ring]], 1);
    expect(r.runs.map((x) => x.caps)).toEqual([{ start: false, end: false }]);
    expect(r.cones).toHaveLength(2);
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
    expect(lapping.runs.length).toBeGreaterThan(1);
    expect(length(lapping)).toBeCloseTo(
      perimeter([line(0, 0, 30, 0), line(30, 6, 10, 2), line(10, 2, 0, 2)]) + 3 * Math.PI,
      9,
    );
  });
});

const runOf = (chain: Segment[], closed: boolean): VeeRun => ({
  elements: withCorners(chain, closed),
  closed,
  caps: { start: !closed, end: !closed },
});
const walled = (run: VeeRun, w: number): VeeCells => {
  const cells = veeCells(run, w);
  if ("element" in cells) throw new Error(`no wall at ${cells.element}`);
  return cells;
};
const covered = (r: Segment[][]) => r.reduce((sum, l) => sum + loopArea(l), 0);

describe("the walls of a groove", () => {
  it("meet in a mitre inside a corner and turn round it outside", () => {
    // A triangle of sides 30, 40, 50: 2wL and at every corner w²(θ/2 − tan θ/2), θ its turn.
    const triangle = [line(0, 0, 40, 0), line(40, 0, 0, 30), line(0, 30, 0, 0)];
    const w = 2;
    const cells = walled(runOf(triangle, true), w);
    const turns = [Math.PI - Math.atan2(30, 40), Math.PI - Math.atan2(40, 30), Math.PI / 2];
    const corners = turns.reduce((sum, t) => sum + w * w * (t / 2 - Math.tan(t / 2)), 0);
    expect(cells.area).toBeCloseTo(2 * w * 120 + corners, 9);
    // Two flats a side, a third of a cone a corner.
    expect(cells.walls.map((q) => q.wall).sort()).toEqual([...Array(6).fill("flat"), ...Array(3).fill("turned")]);
  });
  it("of an open line are two flats and two half cones", () => {
    const cells = walled(runOf([line(0, 0, 9, 0)], false), 1.5);
    expect(cells.walls.map((q) => q.wall)).toEqual(["flat", "flat", "turned", "turned"]);
    expect(cells.area).toBeCloseTo(2 * 1.5 * 9 + Math.PI * 1.5 ** 2, 9);
  });
  it("use up a stub between two of them before the top", () => {
    // A stub of 0.5 between two right turns is gone at a depth where its mitres meet: half its length.
    const chain = [line(0, 0, 10, 0), line(10, 0, 10, 0.5), line(10, 0.5, 0, 8)];
    const cells = walled(runOf(chain, false), 2);
    expect(cells.area).toBeCloseTo(covered(band(chain, 2)), 6);
  });
  it("cover what the exact bands of letters cover", () => {
    let told = 0;
    for (const font of ["plain", "mono"] as const)
      for (const letter of "BDGOQRS2368agks&") {
        const text = lettering({ text: letter, height: 8, font });
        if (!text.ok) throw new Error(letter);
        for (const loop of text.value) {
          const { runs } = veeRuns([loop], 0.15);
          if (runs.length > 1) continue;
          const cells = veeCells(runs[0], 0.15);
          if ("element" in cells) continue;
          const [out, into] = [offsetRegion([loop], 0.15), offsetRegion([loop], -0.15)].map(covered);
          expect(Math.abs(cells.area - Math.abs(out - into))).toBeLessThan(1e-6);
          told++;
        }
      }
    expect(told).toBeGreaterThan(45);
  });
  it("cannot be told where an arc at an open end is used up", () => {
    const tight: Segment = { kind: "arc", centre: v2(0, 0.4), radius: 0.4, start: -Math.PI / 2, sweep: Math.PI / 2 };
    expect(veeCells(runOf([line(-5, 0, 0, 0), tight], false), 1)).toEqual({ element: 1 });
  });
});

describe("a band round a way with slight kinks", () => {
  it("keeps its inner side at every width: stubs of parallels that hardly cross lead nowhere", () => {
    // Letters are full of kinks of a degree; nothing of a band may be missing, whatever its width.
    for (const letter of "VN4YWkz")
      for (const width of [0.0025, 0.006, 0.02, 0.05, 0.2]) {
        const text = lettering({ text: letter, height: 8, font: "mono" });
        if (!text.ok) throw new Error(letter);
        for (const loop of text.value) {
          const cells = veeCells(runOf(loop, true), width);
          if ("element" in cells) continue;
          const [out, into] = [offsetRegion([loop], width), offsetRegion([loop], -width)].map(covered);
          // Where it laps over itself it covers less than its walls one by one, never more.
          expect(Math.abs(out - into)).toBeLessThan(cells.area + 1e-6);
          expect(Math.abs(out - into)).toBeGreaterThan(0.8 * cells.area);
        }
      }
  });
});

describe("a curve through a way", () => {
  it("keeps to it, or says that it does not", () => {
    const round = (t: number) => [Math.cos(t), Math.sin(t)];
    const poles = bezierThrough(round, 1e-9)!;
    for (const t of [0, 0.123, 0.5, 0.87, 1])
      expect(Math.hypot(...bezierAt(poles, t).map((x, k) => x - round(t)[k]))).toBeLessThan(1e-9);
    expect(bezierThrough((t) => [Math.sqrt(t), t], 1e-9)).toBeNull();
    expect(bezierThrough((t) => [1 / (t - 0.5)], 1e-9)).toBeNull();
  });
});
