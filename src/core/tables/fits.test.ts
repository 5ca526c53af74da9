import { fitDeviations, gradeWidth, toleranceGrades, shaftDeviations } from "./fits";
import { generalTolerance } from "./generalTolerances";

const um = (size: number, zone: string) => {
  const r = fitDeviations(size, zone);
  if (!r.ok) throw new Error(r.problems[0].message);
  return [r.value.upper, r.value.lower].map((v) => Math.round(v * 1e4) / 10 + 0);
};

describe("fits of ISO 286-1", () => {
  // Published in the usual tables of limits and in the examples of the standard (130 N4, 45 H7, 90 F7, 30 h6 ...);
  // from memory.
  it.each<[number, string, number, number]>([
    [20, "H7", 21, 0],
    [20, "h6", 0, -13],
    // At the very end of a range, of which 3 is the first: a step to either side is another row of the table.
    [3, "H7", 10, 0],
    [3.01, "H7", 12, 0],
    [3, "K7", 0, -10],
    [3.01, "K7", 3, -9],
    [3, "k6", 6, 0],
    [3.01, "k6", 9, 1],
    [3, "M7", -2, -12],
    [3, "N7", -4, -14],
    [6, "H7", 12, 0],
    [6.01, "H7", 15, 0],
    [18, "g6", -6, -17],
    [18.01, "g6", -7, -20],
    // J has its own row for the grades 6, 7 and 8.
    [10, "J8", 12, -10],
    [18, "J8", 15, -12],
    [30, "J8", 20, -13],
    [10, "J7", 8, -7],
    [10, "J6", 5, -4],
    // Over grade 7 a k begins at the size itself.
    [10, "k8", 22, 0],
    [10, "k9", 36, 0],
    [40, "k11", 160, 0],
    [10, "k7", 16, 1],
    [25, "g6", -7, -20],
    [25, "f7", -20, -41],
    [40, "H8", 39, 0],
    [50, "k6", 18, 2],
    [50, "K7", 7, -18],
    [25, "N7", -7, -28],
    [40, "P7", -17, -42],
    [60, "R7", -30, -60],
    [130, "N4", -23, -35],
    [10, "p6", 24, 15],
    [30, "s6", 48, 35],
    [100, "d9", -120, -207],
    [100, "D9", 207, 120],
    [12, "JS7", 9, -9],
    [12, "js6", 5.5, -5.5],
    [80, "m6", 30, 11],
    [80, "M7", 0, -30],
    [6, "H11", 75, 0],
    [3, "h9", 0, -25],
    [2, "K7", 0, -10],
    [2, "N9", -4, -29],
    [300, "H7", 52, 0],
    [300, "M6", -9, -41],
    [300, "M7", 0, -52],
    [8, "E8", 47, 25],
    [18, "u6", 44, 33],
    [75, "X7", -135, -165],
    [15, "c11", -95, -205],
    [15, "A11", 400, 290],
    [50, "j6", 11, -5],
    [50, "J7", 14, -11],
    [120, "k5", 18, 3],
    [120, "k8", 54, 0],
    [1000, "H7", 90, 0],
    [1000, "f8", -86, -226],
    [700, "p7", 168, 88],
    [3150, "h11", 0, -1350],
    [24, "Z7", -65, -86],
    [45, "ZC8", -325, -364],
    [4, "fg5", -6, -11],
  ])("%d %s is %d / %d µm", (size, zone, upper, lower) => expect(um(size, zone)).toEqual([upper, lower]));

  it("follows i = 0.45 ∛D + 0.001 D of the standard from grade 5 to 18, up to 500 mm", () => {
    const ends = [0, 3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500];
    const times: Record<string, number> = {
      5: 7,
      6: 10,
      7: 16,
      8: 25,
      9: 40,
      10: 64,
      11: 100,
      12: 160,
      13: 250,
      14: 400,
      15: 640,
      16: 1000,
      17: 1600,
      18: 2500,
    };
    for (const [grade, k] of Object.entries(times))
      for (let r = 1; r < ends.length - 1; r++) {
        const D = r === 0 ? Math.sqrt(3) : Math.sqrt(ends[r] * ends[r + 1]);
        const i = 0.45 * Math.cbrt(D) + 0.001 * D;
        // The standard rounds to whole micrometres and then to its own steps.
        expect(Math.abs(gradeWidth(ends[r + 1], grade)! * 1000 - k * i)).toBeLessThan(0.09 * k * i + 0.3);
      }
  });
  it("multiplies by ten every five grades from 6 on", () => {
    for (const size of [5, 25, 100, 450, 2000])
      for (let g = 6; g <= 12; g++)
        expect(gradeWidth(size, String(g + 5))! / gradeWidth(size, String(g))!).toBeCloseTo(10, -0.5);
  });
  it("grows with size and with grade", () => {
    for (const g of toleranceGrades.rows)
      for (let i = 1; i < g.um.length; i++) expect(g.um[i]).toBeGreaterThanOrEqual(g.um[i - 1]);
    for (const s of shaftDeviations.rows)
      for (let i = 1; i < s.um.length; i++)
        if (s.um[i] !== null && s.um[i - 1] !== null && s.letter !== "k")
          expect(s.um[i]!).toBeGreaterThanOrEqual(s.um[i - 1]!);
  });
  it("follows the formulas of d, e, f and g: 16 D^0.44, 11 D^0.41, 5.5 D^0.41, 2.5 D^0.34", () => {
    for (const [letter, f] of [
      ["d", (D: number) => 16 * D ** 0.44],
      ["e", (D: number) => 11 * D ** 0.41],
      ["f", (D: number) => 5.5 * D ** 0.41],
      ["g", (D: number) => 2.5 * D ** 0.34],
    ] as const)
      for (const [lo, hi] of [
        [10, 18],
        [18, 30],
        [50, 80],
        [120, 180],
        [400, 500],
      ])
        expect(Math.abs(um(hi, `${letter}7`)[0] + f(Math.sqrt(lo * hi)))).toBeLessThan(Math.max(1.2, 0.05 * f(hi)));
  });
  it("says what it does not cover", () => {
    for (const [size, zone] of [
      [4000, "H7"],
      [0, "H7"],
      [20, "H19"],
      [20, "hH7"],
      [20, "t6"],
      [20, "Q7"],
      [600, "a11"],
    ] as const)
      expect(fitDeviations(size, zone).ok).toBe(false);
  });
});

describe("general tolerances of ISO 2768-1", () => {
  const t = (kind: "linear" | "broken" | "angular", size: number, c: "f" | "m" | "c" | "v") => {
    const r = generalTolerance(kind, size, c);
    return r.ok ? r.value : r.problems[0].message;
  };
  it("has the figures of its three tables", () => {
    expect([
      t("linear", 3, "f"),
      t("linear", 3.01, "m"),
      t("linear", 6.1, "m"),
      t("linear", 30, "m"),
      t("linear", 31, "m"),
      t("linear", 120.5, "c"),
      t("linear", 1500, "v"),
    ]).toEqual([0.05, 0.1, 0.2, 0.2, 0.3, 1.2, 6]);
    expect([t("broken", 1, "m"), t("broken", 5, "f"), t("broken", 12, "m"), t("broken", 12, "c")]).toEqual([
      0.2, 0.5, 1, 2,
    ]);
    expect([t("angular", 8, "m"), t("angular", 40, "m"), t("angular", 100, "c"), t("angular", 500, "v")]).toEqual([
      1,
      0.5,
      0.5,
      20 / 60,
    ]);
  });
  it("gives nothing where the standard gives nothing", () => {
    expect(t("linear", 0.4, "m")).toMatch(/0.5 mm/);
    expect(t("linear", 2, "v")).toMatch(/no class v/);
    expect(t("linear", 5000, "m")).toMatch(/no class m/);
  });
});
