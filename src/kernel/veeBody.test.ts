import { dice } from "../../tests/helpers/torture";
import { runs } from "../../tests/helpers/thorough";
import { sideFrame, v2 } from "@/core/geometry/vec";
import { band, offsetRegion } from "@/core/outline/boolean";
import { lettering } from "@/core/outline/letters";
import { endOf, loopArea, perimeter, roundedLoop, startOf, type Segment } from "@/core/outline";
import { veeRuns } from "@/core/outline/vee";
import type { BodyStep } from "@/core/engine/kernel";
import { copiesOf } from "./bodies";
import { Grooves } from "./grooves";
import { loadEngine } from "./node";
import type { OC } from "./oc";
import { isClosed, volumeOf } from "./topology";

let oc: OC;
beforeAll(async () => {
  oc = (await loadEngine()).oc;
});

const HALF_ANGLE = Math.PI / 6;
const stepOf = (chains: Segment[][], depth: number): BodyStep => ({
  op: "cut",
  row: "r",
  frame: sideFrame("top", 3),
  places: [v2(0, 0)],
  body: { body: "vee", chains, halfAngle: HALF_ANGLE, depth },
});

const covered = (r: Segment[][]) => r.reduce((sum, l) => sum + loopArea(l), 0);
/** Gauss's five points and weights on 0 to 1 (Abramowitz and Stegun, table 25.4). */
const GAUSS: [number, number][] = [
  [0.5, 0.5688888888888889 / 2],
  ...[0.5384693101056831, 0.906179845938664].flatMap((x, i): [number, number][] =>
    [1, -1].map((sign) => [(1 + sign * x) / 2, [0.47862867049936647, 0.23692688505618908][i] / 2]),
  ),
];

/**
 * The volume of a groove by what it covers at every height, which is the chain's band there: no wall of ours is in it.
 */
function volumeByBands(chain: Segment[], w: number, depth: number): number {
  const closed =
    Math.hypot(
      endOf(chain[chain.length - 1]).x - startOf(chain[0]).x,
      endOf(chain[chain.length - 1]).y - startOf(chain[0]).y,
    ) < 1e-6;
  const area = (out: number) =>
    closed
      ? Math.abs(covered(offsetRegion([chain], out)) - covered(offsetRegion([chain], -out)))
      : covered(band(chain, out));
  // Nothing is used up near the bottom: there it is 2 t L and a square of t, which the next slice tells.
  const [first, slices] = [0.05 * w, 24];
  const long = 2 * perimeter(chain);
  const square = (area(first) - long * first) / first ** 2;
  let sum = (long * first ** 2) / 2 + (square * first ** 3) / 3;
  const step = (w - first) / slices;
  for (let i = 0; i < slices; i++) for (const [t, weight] of GAUSS) sum += weight * step * area(first + step * (i + t));
  return (sum * depth) / w;
}

function solidOf(chain: Segment[], depth: number): { volume: number; pieces: number; closed: boolean } {
  const tools = new Grooves(oc).toolsOf(stepOf([chain], depth));
  return {
    volume: tools.reduce((sum, t) => sum + volumeOf(oc, t.shape), 0),
    pieces: tools.length,
    closed: tools.every((t) => isClosed(oc, t.shape)),
  };
}

const corner = (from: number, to: number, n: number, rnd: () => number) =>
  Array.from({ length: n }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.3 * rnd())) / n;
    const far = from + (to - from) * rnd();
    return v2(far * Math.cos(angle), far * Math.sin(angle));
  });

describe("the groove of a pointed cutter", () => {
  const depth = 1;
  const w = depth * Math.tan(HALF_ANGLE);

  it("along a square takes w d L, a cone's share outside every corner, less its mitres inside", () => {
    const square = roundedLoop([v2(0, 0), v2(20, 0), v2(20, 20), v2(0, 20)], 0)!;
    const made = solidOf(square, depth);
    expect(made).toMatchObject({ pieces: 1, closed: true });
    const corners = 4 * ((Math.PI / 4) * w * w - w * w) * (depth / 3);
    expect(made.volume).toBeCloseTo(w * depth * 80 + corners, 9);
  });

  it("along one line is a wedge and a cone", () => {
    const made = solidOf([{ kind: "line", from: v2(1, 1), to: v2(8, 1) }], depth);
    expect(made.volume).toBeCloseTo(w * depth * 7 + (Math.PI * w * w * depth) / 3, 9);
  });

  it("round a circle is turned: its section times the way of its middle", () => {
    const made = solidOf([{ kind: "arc", centre: v2(2, 0), radius: 6, start: 0, sweep: 2 * Math.PI }], depth);
    expect(made).toMatchObject({ pieces: 1, closed: true });
    expect(made.volume).toBeCloseTo(w * depth * 2 * Math.PI * 6, 8);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8])("takes what the bands of a random rounded way cover, %d", (seed) => {
    const rnd = dice(seed);
    const loop = roundedLoop(corner(6, 11, 3 + Math.floor(rnd() * 5), rnd), [0, 0.2, 0.45, 0.9][Math.floor(rnd() * 4)]);
    if (!loop) throw new Error("the rounds do not fit");
    const made = solidOf(loop, depth);
    expect(made).toMatchObject({ pieces: 1, closed: true });
    expect(made.volume / volumeByBands(loop, w, depth)).toBeCloseTo(1, 5);
  });

  it("where arcs meet sharply, inside and outside", () => {
    // Three arcs of three radii, bulging out and in: the walls between them meet in curves.
    const points = [v2(0, 0), v2(12, 0), v2(5, 9)];
    const bulged = (a: { x: number; y: number }, b: { x: number; y: number }, radius: number): Segment => {
      const chord = Math.hypot(b.x - a.x, b.y - a.y);
      const half = Math.asin(chord / 2 / Math.abs(radius)) * Math.sign(radius);
      const off = (chord / 2 / Math.tan(half)) * 1;
      const [ux, uy] = [(b.x - a.x) / chord, (b.y - a.y) / chord];
      const centre = v2((a.x + b.x) / 2 - uy * off, (a.y + b.y) / 2 + ux * off);
      const start = Math.atan2(a.y - centre.y, a.x - centre.x);
      return { kind: "arc", centre, radius: Math.abs(radius), start, sweep: 2 * half };
    };
    const radii = [9, -14, 11];
    const chain = points.map((p, i) => bulged(p, points[(i + 1) % 3], radii[i]));
    const made = solidOf(chain, depth);
    expect(made).toMatchObject({ pieces: 1, closed: true });
    expect(made.volume / volumeByBands(chain, w, depth)).toBeCloseTo(1, 6);
  });

  it.each(runs(["R", "8", "a", "5", "k"], ["R", "8"]))("takes what the bands of a letter cover: %s", (letter) => {
    const text = lettering({ text: letter, height: 8, font: "plain" });
    if (!text.ok) throw new Error(letter);
    for (const loop of text.value) {
      const made = solidOf(loop, 0.3);
      expect(made.closed).toBe(true);
      expect(made.volume / volumeByBands(loop, 0.3 * Math.tan(HALF_ANGLE), 0.3)).toBeCloseTo(1, 5);
    }
  });

  it("needs no boolean for most letters", () => {
    const alone = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789"].filter((letter) => {
      const text = lettering({ text: letter, height: 8, font: "plain" });
      return text.ok && text.value.every((loop) => veeRuns([loop], 0.17).runs.length === 1);
    });
    expect(alone.length).toBeGreaterThan(33);
  });

  it("is put together from pieces where it laps over itself", () => {
    const hairpin: Segment[] = [
      { kind: "line", from: v2(0, 0), to: v2(12, 0) },
      { kind: "arc", centre: v2(12, 0.4), radius: 0.4, start: -Math.PI / 2, sweep: Math.PI },
      { kind: "line", from: v2(12, 0.8), to: v2(0, 0.8) },
    ];
    const pieces = copiesOf(oc, stepOf([hairpin], depth));
    expect(pieces.length).toBeGreaterThan(1);
    for (const t of pieces) t.shape.delete();
    expect(solidOf(hairpin, depth).volume / volumeByBands(hairpin, w, depth)).toBeCloseTo(1, 4);
  });
});
