// Grooves of a pointed cutter laid round: it always points at the axis. Lengths mm, volumes mm³, worked by hand.
import { kindOf } from "@/core/rows";
import { evaluateCard, mm } from "../helpers/card";

const [R, L, DEEP] = [20, 60, 1];
const ROUND = `LEAVE ROUND ⌀${2 * R} X ${L}`;
const outline = (name: string, ...lines: string[]) => [`OUTLINE "${name}"`, ...lines, "END"];
const solidOf = async (...card: string[]) => {
  const e = await evaluateCard(mm(...card));
  return { failed: e.solved.rows.filter((r) => r.state !== "ok").map((r) => r.message), volume: e.part?.volume ?? 0 };
};
const taken = async (...card: string[]) => {
  const { failed, volume } = await solidOf(...card);
  expect(failed).toEqual([]);
  return Math.PI * R * R * L - volume;
};

/** What a straight V takes of the section of a round: between its two walls and the circle. */
function sectionOfTick(half: number): number {
  const [tan, low] = [Math.tan(half), R - DEEP];
  // x = (y - low) tan, x² + y² = R²
  const [a, b, c] = [1 + 1 / tan ** 2, (2 * low) / tan, low * low - R * R];
  const x = (-b + Math.sqrt(b * b - 4 * a * c)) / (2 * a);
  return R * R * Math.asin(x / R) - low * x;
}
/** Half of what the cutter's cone takes at one place, by summing heights over its shadow. */
function halfCone(half: number): number {
  const [steps, turns] = [2000, 400];
  let sum = 0;
  for (let i = 0; i < turns; i++) {
    const psi = ((i + 0.5) * Math.PI) / turns;
    const height = (r: number) => Math.sqrt(R * R - (r * Math.cos(psi)) ** 2) - (R - DEEP) - r / Math.tan(half);
    let [low, high] = [0, 2 * DEEP * Math.tan(half)];
    for (let k = 0; k < 60; k++)
      [low, high] = height((low + high) / 2) > 0 ? [(low + high) / 2, high] : [low, (low + high) / 2];
    const dr = low / steps;
    for (let k = 0; k < steps; k++) sum += height((k + 0.5) * dr) * (k + 0.5) * dr * dr;
  }
  return (sum * Math.PI) / turns;
}

describe("a pointed cutter round a row", () => {
  const half = Math.PI / 4;
  it("along the axis, off both ends", async () => {
    const row = 'CUT GROOVE VEE 90 DEEP 1 "tick" ON ROUND OF 1 AT 25,-5';
    const v = await taken(...outline("tick", "START 0,0", "LINE BY 0,70"), ROUND, row);
    expect(v / (sectionOfTick(half) * L)).toBeCloseTo(1, 6);
  });
  it("all the way round", async () => {
    const row = 'CUT ENGRAVE "ring" V 90 DEEP 1 ON ROUND OF 1 AT 0,30';
    const v = await taken(...outline("ring", "START 0,0", `LINE BY ${2 * Math.PI * R},0`), ROUND, row);
    // A triangle turned (Pappus): its middle a third of its depth under the surface.
    expect(v / (Math.tan(half) * DEEP ** 2 * 2 * Math.PI * (R - DEEP / 3))).toBeCloseTo(1, 6);
  });
  it("a tick with its own ends, on 40 places", async () => {
    const row = 'CUT ENGRAVE "tick" V 60 DEEP 1 ON ROUND OF 1 AT 10,20';
    const v = await taken(...outline("tick", "START 0,0", "LINE BY 0,10"), ROUND, row, "REPEAT 2 40X AROUND Z");
    const expected = 40 * (sectionOfTick(Math.PI / 6) * 10 + 2 * halfCone(Math.PI / 6));
    expect(v / expected).toBeCloseTo(1, 5);
  });
  it("part of the way round with its ends, and mirrored the same", async () => {
    const arc = outline("arc", "START 0,0", "LINE BY 15,0");
    const rows = ['CUT ENGRAVE "arc" V 60 DEEP 1 ON ROUND OF 1 AT 10,20', "MIRROR 2 ABOUT X"];
    const one = await taken(...arc, ROUND, rows[0]);
    // Its end points square to the arc: the half of the cone that lies along the girth.
    const straight = (Math.tan(Math.PI / 6) * DEEP ** 2 * (R - DEEP / 3) * 15) / R;
    expect(one).toBeGreaterThan(straight);
    expect(one / (straight + 2 * halfCone(Math.PI / 6))).toBeCloseTo(1, 5);
    expect((await taken(...arc, ROUND, ...rows)) / one).toBeCloseTo(2, 6);
  });
  it("round a corner, and a frame that closes", async () => {
    const angle = outline("angle", "START 0,0", "LINE BY 0,10", "LINE BY 12,0");
    const both = await taken(...angle, ROUND, 'CUT ENGRAVE "angle" V 60 DEEP 1 ON ROUND OF 1 AT 0,20');
    expect(both).toBeGreaterThan(0);
    const frame = outline("frame", "RECTANGLE 12 X 10");
    const all = await taken(...frame, ROUND, 'CUT ENGRAVE "frame" V 60 DEEP 1 ON ROUND OF 1 AT 0,30');
    const [tick, arc] = [sectionOfTick(Math.PI / 6), Math.tan(Math.PI / 6) * (1 - 1 / 60)];
    // Two ticks and two arcs; corners are a whole cone together, and lap inside within a width or two.
    expect(all).toBeGreaterThan(2 * 10 * tick + 2 * 12 * arc - 2);
    expect(all).toBeLessThan(2 * 10 * tick + 2 * 12 * arc + 1);
  });
  it("aslant: as wide as between along and round, either hand alike, and no jump beside the axis", async () => {
    const slanted = (x: number, y: number) =>
      taken(
        ...outline("t", "START 0,0", `LINE BY ${x},${y}`),
        ROUND,
        'CUT ENGRAVE "t" V 60 DEEP 1 ON ROUND OF 1 AT 0,20',
      );
    const ends = 2 * halfCone(Math.PI / 6);
    const [tick, arc] = [sectionOfTick(Math.PI / 6), Math.tan(Math.PI / 6) * (1 - 1 / 60)];
    const right = await slanted(12, 12);
    const each = (right - ends) / Math.hypot(12, 12);
    expect(each).toBeGreaterThan(Math.min(tick, arc) - 1e-3);
    expect(each).toBeLessThan(Math.max(tick, arc) + 1e-3);
    expect((await slanted(-12, 12)) / right).toBeCloseTo(1, 6);
    expect((await slanted(0.02, 10)) / (tick * 10 + ends)).toBeCloseTo(1, 4);
    expect((await slanted(10, 0.02)) / (arc * 10 + ends)).toBeCloseTo(1, 3);
  });
  it("arcs: a circle, and a smooth way of lines and arcs", async () => {
    const circle = await taken(
      ...outline("c", "CIRCLE ⌀12"),
      ROUND,
      'CUT ENGRAVE "c" V 60 DEEP .5 ON ROUND OF 1 AT 0,30',
    );
    const area = Math.tan(Math.PI / 6) * 0.25;
    expect(circle / (area * Math.PI * 12)).toBeCloseTo(1, 1);
    const slot = await taken(
      ...outline("s", "SLOT 20 X 8"),
      ROUND,
      'CUT ENGRAVE "s" V 60 DEEP .5 ON ROUND OF 1 AT 0,30',
    );
    expect(slot / (area * (24 + 8 * Math.PI))).toBeCloseTo(1, 1);
  });
  it.each([
    ['CUT ENGRAVE "t" V 60 DEEP 20 ON ROUND OF 1 AT 0,20', /as deep as the axis/],
    ['CUT ENGRAVE "t" V 60 DEEP 1 AT 5,5 ON ROUND OF 1 AT 0,20', /on that round alone/],
    ['CUT ENGRAVE "word" V 60 DEEP 1 ON ROUND OF 1 AT 0,20', /too many to be cut/],
    ['CUT ENGRAVE "tight" V 60 DEEP 1 ON ROUND OF 1 AT 0,20', /tighter than half the groove/],
    ['CUT ENGRAVE "long" V 60 DEEP 1 ON ROUND OF 1 AT 0,20', /longer than the girth/],
  ])("%s", async (row, why) => {
    const lines = [
      ...outline("t", "START 0,0", "LINE BY 0,5"),
      ...outline("word", 'TEXT "TIDE" HEIGHT 8'),
      ...outline("tight", "CIRCLE ⌀1"),
      ...outline("long", "START 0,0", "LINE BY 200,0"),
    ];
    expect((await solidOf(...lines, ROUND, row)).failed[0]).toMatch(why);
  });
  it("has no field for a plane or places of its own, which a flat one has", async () => {
    const idleOf = async (row: string) => {
      const { solved } = await evaluateCard(mm(...outline("t", "START 0,0", "LINE BY 0,5"), ROUND, row));
      const { body } = solved.rows[1].row;
      return kindOf(body).idle?.(body) ?? [];
    };
    expect(await idleOf('CUT ENGRAVE "t" V 60 DEEP 1 ON ROUND OF 1 AT 0,20')).toEqual(
      expect.arrayContaining(["pattern", "plane"]),
    );
    expect(await idleOf('CUT ENGRAVE "t" V 60 DEEP 1 ON TOP')).toEqual([]);
  });
});
