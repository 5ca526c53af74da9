import { evaluateJob, jobOf, kernel, mm } from "../../../tests/helpers/card";
import { runs } from "../../../tests/helpers/thorough";
import { sideFrame, v2 } from "../geometry/vec";
import { combine, joined, type Region } from "../outline/boolean";
import { loopArea, rectangleBetween } from "../outline";
import { rectanglesIn } from "../outline/rectangles";
import { levelsBetween, sectionAt, shadowOfBand } from "./shadow";

const areaOf = (region: Region): number => region.reduce((sum, loop) => sum + loopArea(loop), 0);
/** At how many levels a band is cut through besides those at which it changes. */
const LOOKS = runs(40, 8);
const LETTERS = ['OUTLINE "t"', 'TEXT "TG7" HEIGHT 8 MIDDLE', "END"];

/** The last state of a part, seen from above. */
async function solid(...lines: string[]) {
  const e = await evaluateJob(jobOf(mm(...lines)));
  expect(e.solved.rows.filter((r) => r.state !== "ok").map((r) => r.message)).toEqual([]);
  const key = e.solved.finalKey!;
  const k = await kernel();
  const { min, max } = k.measure(key).box;
  return { k, key, frame: sideFrame("top", max.z), high: max.z - min.z };
}

describe("the shadow of a band", () => {
  it.each([
    ["steps on two sides", ["LEAVE BLOCK 60 X 40 X 30", "CUT STEP LEFT 8 DEEP 12", "CUT STEP FRONT 5 DEEP 20"]],
    ["a flange between two necks", ["LEAVE ROUND ⌀20 X 40", "LEAVE ROUND ⌀50 X 6 AT 0,0,17"]],
    [
      "a leaning hole and a chamfer",
      ["LEAVE BLOCK 60 X 40 X 30", "CUT CHAMFER 4 OUTER TOP", "CUT POCKET 30 X 20 R5 THRU"],
    ],
    [
      "a ball on a stem",
      [
        'OUTLINE "h"',
        "START 0,0",
        "LINE TO X 6",
        "LINE TO Y 12",
        "ARC TO 0,34 R 12 CCW LONG",
        "CLOSE",
        "END",
        'LEAVE TURNED "h" AXIS Z',
      ],
    ],
    [
      "letters cut and raised",
      [...LETTERS, "LEAVE BLOCK 60 X 40 X 10", 'CUT ENGRAVE "t" V 60 DEEP .4', 'LEAVE TEXT "t" X 1 ON BOTTOM'],
    ],
  ])("holds every section and no more: %s", async (_, lines) => {
    const { k, key, frame, high } = await solid(...lines);
    const bands = [
      [0, high],
      [high / 4, high * 0.8],
      [0, high / 3],
    ];
    for (const [from, to] of bands.slice(0, runs(3, 2))) {
      const shadow = shadowOfBand(k, key, frame, from, to);
      if (!shadow.ok) throw new Error(shadow.problems[0].message);
      let all: Region = [];
      const levels = levelsBetween(k, key, frame, from, to);
      const evenly = Array.from({ length: LOOKS }, (__, i) => from + ((to - from) * (i + 0.37)) / LOOKS);
      for (const depth of [...evenly, ...levels.flatMap((d) => [d - 6e-4, d + 6e-4])]) {
        if (depth <= from || depth >= to) continue;
        const section = sectionAt(k, key, frame, depth);
        if (section.ok && section.value.length) all = all.length ? joined(all, section.value) : section.value;
      }
      expect(areaOf(combine(all, shadow.value, "cutout"))).toBeLessThan(0.05);
      expect(areaOf(combine(shadow.value, all, "cutout"))).toBeLessThan(0.05);
    }
  });
  it("does not look into letters that lie within what is covered", async () => {
    const { k, key, frame, high } = await solid(...LETTERS, "LEAVE BLOCK 60 X 40 X 10", 'CUT ENGRAVE "t" V 60 DEEP .4');
    let looked = 0;
    const counting = Object.create(k, {
      crossing: { value: (...a: Parameters<typeof k.crossing>) => (looked++, k.crossing(...a)) },
    }) as typeof k;
    const shadow = shadowOfBand(counting, key, frame, 0, high);
    expect(shadow.ok && areaOf(shadow.value)).toBeCloseTo(2400, 6);
    expect(looked).toBeLessThanOrEqual(4);
  });
});

describe("a rectangle and a region", () => {
  const square = rectangleBetween(v2(0, 0), v2(10, 10));
  const round: Region = [[{ kind: "arc", centre: v2(0, 0), radius: 10, start: 0, sweep: 2 * Math.PI }]];
  const at = (x: number, y: number, half = 1) => ({ min: v2(x - half, y - half), max: v2(x + half, y + half) });
  it("lies in it, out of it, or across its border", () => {
    expect([at(5, 5), at(20, 5), at(10, 5)].map(rectanglesIn([square]))).toEqual(["in", "out", "across"]);
    expect([at(0, 0, 6), at(7, 0), at(9.5, 0), at(9, 9)].map(rectanglesIn(round))).toEqual([
      "in",
      "in",
      "across",
      "out",
    ]);
    expect(rectanglesIn([])(at(0, 0))).toBe("out");
  });
});
