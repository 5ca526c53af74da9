import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { table } from "./table";

const upTo500 = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500];
const over500 = [630, 800, 1000, 1250, 1600, 2000, 2500, 3150];

/**
 * Standard tolerance grades by nominal size: `upTo` are the upper ends of the size ranges in mm, each row
 * micrometres.
 */
export const toleranceGrades = table<{ grade: string; um: readonly number[] }>({
  source: "ISO 286-1:2010, table 1; from memory",
  checked:
    "against the formula i = 0.45 ∛D + 0.001 D of the standard and its steps of ten, and worked examples, in fits.test.ts",
  rows: [
    ["01", 0.3, 0.4, 0.4, 0.5, 0.6, 0.6, 0.8, 1, 1.2, 2, 2.5, 3, 4],
    ["0", 0.5, 0.6, 0.6, 0.8, 1, 1, 1.2, 1.5, 2, 3, 4, 5, 6],
    ["1", 0.8, 1, 1, 1.2, 1.5, 1.5, 2, 2.5, 3.5, 4.5, 6, 7, 8, 9, 10, 11, 13, 15, 18, 22, 26],
    ["2", 1.2, 1.5, 1.5, 2, 2.5, 2.5, 3, 4, 5, 7, 8, 9, 10, 11, 13, 15, 18, 21, 25, 30, 36],
    ["3", 2, 2.5, 2.5, 3, 4, 4, 5, 6, 8, 10, 12, 13, 15, 16, 18, 21, 24, 29, 35, 41, 50],
    ["4", 3, 4, 4, 5, 6, 7, 8, 10, 12, 14, 16, 18, 20, 22, 25, 28, 33, 39, 46, 55, 68],
    ["5", 4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27, 32, 36, 40, 47, 55, 65, 78, 96],
    ["6", 6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40, 44, 50, 56, 66, 78, 92, 110, 135],
    ["7", 10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63, 70, 80, 90, 105, 125, 150, 175, 210],
    ["8", 14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97, 110, 125, 140, 165, 195, 230, 280, 330],
    ["9", 25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155, 175, 200, 230, 260, 310, 370, 440, 540],
    ["10", 40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250, 280, 320, 360, 420, 500, 600, 700, 860],
    ["11", 60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400, 440, 500, 560, 660, 780, 920, 1100, 1350],
    [
      "12",
      100,
      120,
      150,
      180,
      210,
      250,
      300,
      350,
      400,
      460,
      520,
      570,
      630,
      700,
      800,
      900,
      1050,
      1250,
      1500,
      1750,
      2100,
    ],
    [
      "13",
      140,
      180,
      220,
      270,
      330,
      390,
      460,
      540,
      630,
      720,
      810,
      890,
      970,
      1100,
      1250,
      1400,
      1650,
      1950,
      2300,
      2800,
      3300,
    ],
    [
      "14",
      250,
      300,
      360,
      430,
      520,
      620,
      740,
      870,
      1000,
      1150,
      1300,
      1400,
      1550,
      1750,
      2000,
      2300,
      2600,
      3100,
      3700,
      4400,
      5400,
    ],
    [
      "15",
      400,
      480,
      580,
      700,
      840,
      1000,
      1200,
      1400,
      1600,
      1850,
      2100,
      2300,
      2500,
      2800,
      3200,
      3600,
      4200,
      5000,
      6000,
      7000,
      8600,
    ],
    [
      "16",
      600,
      750,
      900,
      1100,
      1300,
      1600,
      1900,
      2200,
      2500,
      2900,
      3200,
      3600,
      4000,
      4400,
      5000,
      5600,
      6600,
      7800,
      9200,
      11000,
      13500,
    ],
    [
      "17",
      1000,
      1200,
      1500,
      1800,
      2100,
      2500,
      3000,
      3500,
      4000,
      4600,
      5200,
      5700,
      6300,
      7000,
      8000,
      9000,
      10500,
      12500,
      15000,
      17500,
      21000,
    ],
    [
      "18",
      1400,
      1800,
      2200,
      2700,
      3300,
      3900,
      4600,
      5400,
      6300,
      7200,
      8100,
      8900,
      9700,
      11000,
      12500,
      14000,
      16500,
      19500,
      23000,
      28000,
      33000,
    ],
  ].map(([grade, ...um]) => ({ grade: String(grade), um: um as number[] })),
});

const fine = [
  3, 6, 10, 14, 18, 24, 30, 40, 50, 65, 80, 100, 120, 140, 160, 180, 200, 225, 250, 280, 315, 355, 400, 450, 500,
];
const fineOver = [560, 630, 710, 800, 900, 1000, 1120, 1250, 1400, 1600, 1800, 2000, 2240, 2500, 2800, 3150];

/** One value for each main range, spread over the finer ranges. */
const spread = (main: (number | null)[]): (number | null)[] => fine.map((f) => main[upTo500.findIndex((m) => f <= m)]);
const spreadOver = (main: number[]): number[] => fineOver.map((f) => main[over500.findIndex((m) => f <= m)]);

type Deviation = { letter: string; um: readonly (number | null)[] };
const d = (letter: string, um: (number | null)[], over: number[] = []): Deviation => ({ letter, um: [...um, ...over] });

/**
 * Fundamental deviations of shafts, micrometres without their sign: the upper one (es, negative) for a to h, the
 * lower one (ei, positive) for k to zc.
 * Ranges: `fine` then `fineOver`.
 */
export const shaftDeviations = table<Deviation>({
  source: "ISO 286-1:2010, tables 4 and 5; from memory",
  checked: "formulas of the standard for d to g and n to p, and worked examples, in fits.test.ts",
  rows: [
    d(
      "a",
      [
        270, 270, 280, 290, 290, 300, 300, 310, 320, 340, 360, 380, 410, 460, 520, 580, 660, 740, 820, 920, 1050, 1200,
        1350, 1500, 1650,
      ],
    ),
    d(
      "b",
      [
        140, 140, 150, 150, 150, 160, 160, 170, 180, 190, 200, 220, 240, 260, 280, 310, 340, 380, 420, 480, 540, 600,
        680, 760, 840,
      ],
    ),
    d(
      "c",
      [
        60, 70, 80, 95, 95, 110, 110, 120, 130, 140, 150, 170, 180, 200, 210, 230, 240, 260, 280, 300, 330, 360, 400,
        440, 480,
      ],
    ),
    d("cd", [34, 46, 56]),
    d(
      "d",
      spread([20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230]),
      spreadOver([260, 290, 320, 350, 390, 430, 480, 520]),
    ),
    d(
      "e",
      spread([14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135]),
      spreadOver([145, 160, 170, 195, 220, 240, 260, 290]),
    ),
    d("ef", [10, 14, 18]),
    d(
      "f",
      spread([6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68]),
      spreadOver([76, 80, 86, 98, 110, 120, 130, 145]),
    ),
    d("fg", [4, 6, 8]),
    d("g", spread([2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20]), spreadOver([22, 24, 26, 28, 30, 32, 34, 38])),
    d("h", spread(upTo500.map(() => 0)), spreadOver(over500.map(() => 0))),
    d("k", spread([0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5]), spreadOver(over500.map(() => 0))),
    d("m", spread([2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23]), spreadOver([26, 30, 34, 40, 48, 58, 68, 76])),
    d("n", spread([4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40]), spreadOver([44, 50, 56, 66, 78, 92, 110, 135])),
    d(
      "p",
      spread([6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68]),
      spreadOver([78, 88, 100, 120, 140, 170, 195, 240]),
    ),
    d(
      "r",
      [10, 15, 19, 23, 23, 28, 28, 34, 34, 41, 43, 51, 54, 63, 65, 68, 77, 80, 84, 94, 98, 108, 114, 126, 132],
      [150, 155, 175, 185, 210, 220, 250, 260, 300, 330, 370, 400, 440, 460, 550, 580],
    ),
    d(
      "s",
      [14, 19, 23, 28, 28, 35, 35, 43, 43, 53, 59, 71, 79, 92, 100, 108, 122, 130, 140, 158, 170, 190, 208, 232, 252],
      [280, 310, 340, 380, 430, 470, 520, 580, 640, 720, 820, 920, 1000, 1100, 1250, 1400],
    ),
    d(
      "t",
      [
        null,
        null,
        null,
        null,
        null,
        null,
        41,
        48,
        54,
        66,
        75,
        91,
        104,
        122,
        134,
        146,
        166,
        180,
        196,
        218,
        240,
        268,
        294,
        330,
        360,
      ],
      [400, 450, 500, 560, 620, 680, 780, 840, 960, 1050, 1200, 1350, 1500, 1650, 1900, 2100],
    ),
    d(
      "u",
      [
        18, 23, 28, 33, 33, 41, 48, 60, 70, 87, 102, 124, 144, 170, 190, 210, 236, 258, 284, 315, 350, 390, 435, 490,
        540,
      ],
      [600, 660, 740, 840, 940, 1050, 1150, 1300, 1450, 1600, 1850, 2000, 2300, 2500, 2900, 3200],
    ),
    d("v", [
      null,
      null,
      null,
      null,
      39,
      47,
      55,
      68,
      81,
      102,
      120,
      146,
      172,
      202,
      228,
      252,
      284,
      310,
      340,
      385,
      425,
      475,
      530,
      595,
      660,
    ]),
    d(
      "x",
      [
        20, 28, 34, 40, 45, 54, 64, 80, 97, 122, 146, 178, 210, 248, 280, 310, 350, 385, 425, 475, 525, 590, 660, 740,
        820,
      ],
    ),
    d("y", [
      null,
      null,
      null,
      null,
      null,
      63,
      75,
      94,
      114,
      144,
      174,
      214,
      254,
      300,
      340,
      380,
      425,
      470,
      520,
      580,
      650,
      730,
      820,
      920,
      1000,
    ]),
    d(
      "z",
      [
        26, 35, 42, 50, 60, 73, 88, 112, 136, 172, 210, 258, 310, 365, 415, 465, 520, 575, 640, 710, 790, 900, 1000,
        1100, 1250,
      ],
    ),
    d(
      "za",
      [
        32, 42, 52, 64, 77, 98, 118, 148, 180, 226, 274, 335, 400, 470, 535, 600, 670, 740, 820, 920, 1000, 1150, 1300,
        1450, 1600,
      ],
    ),
    d(
      "zb",
      [
        40, 50, 67, 90, 108, 136, 160, 200, 242, 300, 360, 445, 525, 620, 700, 780, 880, 960, 1050, 1200, 1300, 1500,
        1650, 1850, 2100,
      ],
    ),
    d(
      "zc",
      [
        60, 80, 97, 130, 150, 188, 218, 274, 325, 405, 480, 585, 690, 800, 900, 1000, 1150, 1250, 1350, 1550, 1700,
        1900, 2100, 2400, 2600,
      ],
    ),
  ],
});

/** Deviations of j (lower) and J (upper), which depend on the grade: micrometres for the main ranges up to 500 mm. */
const jDeviations = table<{ zone: string; um: readonly number[] }>({
  source: "ISO 286-1:2010, table 2 (J) and table 4 (j); from memory",
  checked: "worked examples in fits.test.ts",
  rows: [
    { zone: "j5", um: [-2, -2, -2, -3, -4, -5, -7, -9, -11, -13, -16, -18, -20] },
    { zone: "j6", um: [-2, -2, -2, -3, -4, -5, -7, -9, -11, -13, -16, -18, -20] },
    { zone: "j7", um: [-4, -4, -5, -6, -8, -10, -12, -15, -18, -21, -26, -28, -32] },
    { zone: "J6", um: [2, 5, 5, 6, 8, 10, 13, 16, 18, 22, 25, 29, 33] },
    { zone: "J7", um: [4, 6, 8, 10, 12, 14, 18, 22, 26, 30, 36, 39, 43] },
    { zone: "J8", um: [6, 10, 12, 15, 20, 24, 28, 34, 41, 47, 55, 60, 66] },
  ],
});

const allMain = [...upTo500, ...over500],
  allFine = [...fine, ...fineOver];

/** Width of a standard tolerance grade for a size, mm; null where the standard gives none. */
export function gradeWidth(size: number, grade: string): number | null {
  const i = allMain.findIndex((m) => size <= m);
  const um = i < 0 || size <= 0 ? undefined : toleranceGrades.rows.find((r) => r.grade === grade)?.um[i];
  return um === undefined ? null : um / 1000;
}

/**
 * Deviations of a tolerance zone of ISO 286-1 such as H7 or g6 at a size.
 * @param size nominal, mm   @returns upper and lower deviation, mm
 * @source rules of ISO 286-1:2010, 4.3: a hole's deviation is the shaft's turned over, with Δ = IT(n) − IT(n−1)
 * added for K, M, N up to grade 8 and P to ZC up to grade 7, over 3 and up to 500 mm
 */
export function fitDeviations(size: number, zone: string): Result<{ upper: number; lower: number }> {
  const m = /^([A-Za-z]{1,2})(01|\d{1,2})$/.exec(zone);
  if (!m) return fail(problems.notAZone(zone));
  const [, letters, grade] = m;
  const hole = letters === letters.toUpperCase();
  if (!hole && letters !== letters.toLowerCase()) return fail(problems.zoneOfBothKinds(zone));
  if (!(size > 0) || size > 3150) return fail(problems.fitSizeOutOfRange());
  const width = gradeWidth(size, grade);
  if (width === null) return fail(problems.gradeNotGiven(grade));
  const n = Number(grade),
    letter = letters.toLowerCase();
  const main = allMain.findIndex((x) => size <= x);
  const none = () => fail(problems.zoneNotGiven(zone, size));
  if (letter === "js") return ok({ upper: width / 2, lower: -width / 2 });
  if (letter === "j") {
    const um = jDeviations.rows.find((r) => r.zone === zone)?.um[main];
    if (um === undefined) return none();
    return ok(hole ? { upper: um / 1000, lower: um / 1000 - width } : { lower: um / 1000, upper: um / 1000 + width });
  }
  const um = shaftDeviations.rows.find((r) => r.letter === letter)?.um[allFine.findIndex((x) => size <= x)];
  if (um === undefined || um === null) return none();
  const at = um / 1000;
  if (letter <= "h" && letter.length <= 2 && letter[0] <= "h")
    return ok(hole ? { lower: at, upper: at + width } : { upper: 0 - at, lower: 0 - at - width });
  if (!hole) {
    // k has its deviation in grades 4 to 7 only.
    const ei = letter === "k" && (n < 4 || n > 7) ? 0 : at;
    return ok({ lower: ei, upper: ei + width });
  }
  const shifted = size > 3 && size <= 500 && (["k", "m", "n"].includes(letter) ? n <= 8 : n <= 7);
  const finer = gradeWidth(size, grade === "0" ? "01" : String(n - 1));
  const delta = shifted && finer !== null && n >= 3 ? width - finer : 0;
  let es = -at + delta;
  if (letter === "k" && n > 8) es = 0;
  if (letter === "n" && n > 8) es = size <= 3 ? -at : 0;
  // The one exception of the standard: M6 from 250 to 315 mm.
  if (zone === "M6" && size > 250 && size <= 315) es = -0.009;
  es = Number(es.toFixed(6));
  return ok({ upper: es, lower: es - width });
}
