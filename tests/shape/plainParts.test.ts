// Twenty-eight more parts of the harbour workshop, each with its volume worked out beside it. Lengths mm, or inches
// where a card says so.
import { evaluateCard, inch, mm } from "../helpers/card";

const { PI, tan, sqrt } = Math;
const rad = (degrees: number) => (degrees * PI) / 180;
const outline = (name: string, ...steps: string[]) => [`OUTLINE "${name}"`, ...steps, "END"].join("\n");
const disc = (d: number) => (PI / 4) * d * d;
/** A rectangle with rounded corners. */
const rounded = (l: number, w: number, r: number) => l * w - (4 - PI) * r * r;
/** A regular polygon across flats. */
const polygon = (n: number, af: number) => n * (af / 2) ** 2 * tan(PI / n);
const frustum = (d: number, D: number, h: number) => (PI * h * (d * d + d * D + D * D)) / 12;
/** The 118 degree point of a drill. */
const point = (d: number) => frustum(0, d, d / 2 / tan(rad(59)));
/** What a rounded rim loses: the spandrel of a quarter circle, turned about the axis (Pappus). */
const roundedRim = (d: number, r: number) =>
  2 * PI * (d / 2 - (r * (5 / 6 - PI / 4)) / (1 - PI / 4)) * (1 - PI / 4) * r * r;
/** Midpoint rule, fine enough for 1e-7. */
function integral(from: number, to: number, f: (x: number) => number, n = 40000): number {
  const h = (to - from) / n;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += f(from + (i + 0.5) * h);
  return sum * h;
}

const METRIC: [name: string, rows: string[], volume: number][] = [
  [
    "a flange with a bore and counterbored holes",
    ["LEAVE ROUND ⌀120 X 14", "CUT ⌀40 THRU", "CUT 6X ⌀9 THRU CBORE ⌀15 DEEP 6 ON BC 90"],
    (disc(120) - disc(40)) * 14 - 6 * (disc(9) * 14 + (disc(15) - disc(9)) * 6),
  ],
  [
    "a base with a pocket and blind holes",
    ["LEAVE BLOCK 100 X 60 X 20 R8", "CUT POCKET 60 X 30 R5 DEEP 12", "CUT 4X ⌀6 DEEP 10 GRID 2 2 BY 84 44"],
    rounded(100, 60, 8) * 20 - rounded(60, 30, 5) * 12 - 4 * (disc(6) * 10 + point(6)),
  ],
  [
    "a hexagon spacer, tapped through",
    ["LEAVE POLYGON 6 AF 12 X 30", "CUT M6 THRU"],
    polygon(6, 12) * 30 - disc(5) * 30,
  ],
  [
    "a bearing ring with a groove in its bore",
    ["LEAVE RING OD 80 ID 50 X 20", "CUT GROOVE BORE ⌀56 WIDE 4 START 8"],
    (disc(80) - disc(50)) * 20 - (disc(56) - disc(50)) * 4,
  ],
  [
    "a seal plate with a ring groove on each face",
    ["LEAVE ROUND ⌀60 X 10", "CUT GROOVE OD 40 ID 30 DEEP 3", "CUT GROOVE OD 50 ID 44 DEEP 2 ON BOTTOM"],
    disc(60) * 10 - (disc(40) - disc(30)) * 3 - (disc(50) - disc(44)) * 2,
  ],
  ["a stepped block", ["LEAVE BLOCK 80 X 50 X 30", "CUT STEP LEFT 15 DEEP 10"], 80 * 50 * 30 - 15 * 50 * 10],
  [
    "a plate with countersunk holes",
    ["LEAVE BLOCK 60 X 40 X 8", "CUT 4X ⌀5 THRU CSK ⌀10 X 90 GRID 2 2 BY 40 20"],
    60 * 40 * 8 - 4 * (disc(5) * 8 + frustum(5, 10, 2.5) - disc(5) * 2.5),
  ],
  [
    "a guide with slots of three kinds",
    [
      "LEAVE BLOCK 120 X 80 X 12",
      "CUT SLOT 40 X 10 THRU AT -30,25",
      "CUT SLOT CENTRES 30 X 8 DEEP 4 AT 30,25",
      "CUT SLOT ARC ⌀60 X 8 FROM 180 TO 270 DEEP 5 AT 20,0",
    ],
    120 * 80 * 12 - (30 * 10 + disc(10)) * 12 - (30 * 8 + disc(8)) * 4 - ((PI / 2) * 30 * 8 + disc(8)) * 5,
  ],
  [
    "a socket with two tapers",
    ["LEAVE ROUND ⌀50 X 40", "CUT TAPER ⌀20 TO ⌀10 DEEP 15", "CUT TAPER ⌀20 1:10 DEEP 20 ON BOTTOM"],
    disc(50) * 40 - frustum(20, 10, 15) - frustum(20, 18, 20),
  ],
  [
    "a pillar with leaning walls",
    [outline("o", "RECTANGLE 40 X 30"), 'LEAVE PRISM "o" X 10 DRAFT 5'],
    1200 * 10 - 70 * tan(rad(5)) * 100 + (4 / 3) * tan(rad(5)) ** 2 * 1000,
  ],
  [
    "a bent pipe",
    [outline("p", "START 0,0", "LINE TO X 50", "ARC TANGENT CENTRE 50,30 TO 80,30"), 'LEAVE TUBE "p" OD 20 ID 12'],
    (disc(20) - disc(12)) * (50 + (PI / 2) * 30),
  ],
  [
    "a ball with a hole through its middle",
    [outline("half", "START 0,-15", "ARC TO 0,15 CENTRE 0,0 CCW", "CLOSE"), 'LEAVE TURNED "half"', "CUT ⌀12 THRU"],
    // What is left of a drilled ball: π h³ / 6, h the height of the hole's wall.
    (PI / 6) * (2 * sqrt(225 - 36)) ** 3,
  ],
  [
    "a wheel of six pockets repeated about its axis",
    ["LEAVE ROUND ⌀100 X 10", "CUT POCKET 12 X 8 R2 DEEP 6 AT 35,0", "REPEAT 2 6X AROUND Z"],
    disc(100) * 10 - 6 * rounded(12, 8, 2) * 6,
  ],
  [
    "a saddle mirrored in x",
    ["LEAVE BLOCK 80 X 40 X 15", "CUT POCKET 15 X 20 R3 DEEP 7 AT 25,0", "MIRROR 2 ABOUT X"],
    80 * 40 * 15 - 2 * rounded(15, 20, 3) * 7,
  ],
  ["a tray", ["LEAVE BLOCK 60 X 40 X 30", "CUT SHELL 3 OPEN TOP"], 60 * 40 * 30 - 54 * 34 * 27],
  [
    "a stud: its thread is said, its solid the blank's",
    ["LEAVE ROUND ⌀10 X 40", "CUT THREAD M10-6g LEN 20 ON SHAFT OF 1"],
    disc(10) * 40,
  ],
  [
    "a cover with spotfaced holes",
    ["LEAVE ROUND ⌀70 X 9", "CUT 5X ⌀6 THRU SPOTFACE ⌀12 DEEP 1 ON BC 50 FROM 90"],
    disc(70) * 9 - 5 * (disc(6) * 9 + (disc(12) - disc(6)) * 1),
  ],
  [
    "a nut holder: a hexagon pocket over a bore",
    ["LEAVE BLOCK 40 X 40 X 20", "CUT POCKET POLYGON 6 AF 20 DEEP 5", "CUT ⌀10 THRU ON FLOOR OF 2"],
    40 * 40 * 20 - polygon(6, 20) * 5 - disc(10) * 15,
  ],
  [
    "a plate with a turned pocket",
    ["LEAVE BLOCK 60 X 60 X 10", "CUT POCKET 30 X 12 R3 DEEP 4 TURN 30"],
    60 * 60 * 10 - rounded(30, 12, 3) * 4,
  ],
  [
    "a shaft with a groove and a bored end",
    ["LEAVE ROUND ⌀30 X 40", "CUT GROOVE SHAFT ⌀24 WIDE 3 START 10", "CUT ⌀12 DEEP 15 FLAT"],
    disc(30) * 40 - (disc(30) - disc(24)) * 3 - disc(12) * 15,
  ],
  [
    "a plug with a chamfered rim",
    ["LEAVE ROUND ⌀40 X 20", "CUT CHAMFER 2 OUTER TOP"],
    disc(40) * 20 - 2 * 2 * PI * (20 - 2 / 3),
  ],
  [
    "a plug with a chamfer of two legs",
    ["LEAVE ROUND ⌀40 X 20", "CUT CHAMFER 3 BY 1.5 OUTER TOP"],
    disc(40) * 20 - ((3 * 1.5) / 2) * 2 * PI * (20 - 1),
  ],
  [
    "a knob with both rims rounded",
    ["LEAVE ROUND ⌀40 X 20", "CUT ROUND 3 OUTER TOP, OUTER BOTTOM"],
    disc(40) * 20 - 2 * roundedRim(40, 3),
  ],
  [
    "a block with rounded upright corners",
    ["LEAVE BLOCK 50 X 40 X 20", "CUT ROUND 5 VERTICAL"],
    rounded(50, 40, 5) * 20,
  ],
  [
    "a hexagon collar with a set screw's hole up to its bore",
    ["LEAVE POLYGON 6 AF 40 X 20", "CUT ⌀20 THRU", "CUT ⌀5 DEEP TO NEXT ON SIDE 1 OF 1 AT 0,10"],
    (polygon(6, 40) - disc(20)) * 20 - integral(-2.5, 2.5, (x) => 2 * sqrt(6.25 - x * x) * (20 - sqrt(100 - x * x))),
  ],
  [
    "a foot with a boss on it, bored through both",
    ["LEAVE BLOCK 70 X 50 X 12", "LEAVE ROUND ⌀30 X 10 ON TOP", "CUT ⌀16 THRU"],
    70 * 50 * 12 + disc(30) * 10 - disc(16) * 22,
  ],
  [
    "a bracket drilled from three sides",
    [
      "LEAVE BLOCK 60 X 40 X 30",
      "CUT 2X ⌀6 DEEP 9 FLAT LINE 2 BY 30 AT -15,8 ON FRONT",
      "CUT ⌀8 DEEP 12 FLAT AT 0,15 ON LEFT",
      "CUT POCKET 20 X 10 R2 DEEP 5 ON BACK AT 0,22",
    ],
    60 * 40 * 30 - 2 * disc(6) * 9 - disc(8) * 12 - rounded(20, 10, 2) * 5,
  ],
];
const INCH: [name: string, rows: string[], volume: number][] = [
  [
    "a pad with tapped holes, in inches",
    ["LEAVE BLOCK 4 X 2.5 X .75", "CUT 4X 1/4-20 UNC-2B DEEP .5 DRILL ⌀.201 DEEP .6 GRID 2 2 BY 3 1.5"],
    4 * 2.5 * 0.75 - 4 * (disc(0.201) * 0.6 + point(0.201)),
  ],
  [
    "a lid of fractions: a pocket, a groove, holes",
    [
      "LEAVE ROUND ⌀2-1/2 X 3/4",
      "CUT POCKET ⌀1-1/4 DEEP 7/16",
      "CUT GROOVE OD 1.5 ID 1.375 DEEP 1/16",
      "CUT 4X ⌀9/32 THRU ON BC 2 FROM 45",
    ],
    disc(2.5) * 0.75 - disc(1.25) * 0.4375 - (disc(1.5) - disc(1.375)) / 16 - 4 * disc(9 / 32) * 0.75,
  ],
];

async function holds(card: string, volume: number) {
  const e = await evaluateCard(card);
  expect(e.solved.rows.filter((r) => r.state !== "ok").map((r) => `row ${r.number}: ${r.message}`)).toEqual([]);
  expect(e.part!.solids).toBe(1);
  expect(Math.abs(e.part!.volume / volume - 1)).toBeLessThan(1e-6);
  // Weighed in parts, row by row, it is the same: what every row took adds up to what the first left.
  const [first, ...rest] = e.solved.rows;
  const sum = rest.reduce((left, r) => left - r.removed!, first.volumeAfter!);
  expect(Math.abs(sum / volume - 1)).toBeLessThan(1e-6);
}

it.each(METRIC)("%s", (_, rows, volume) => holds(mm(...rows), volume));
it.each(INCH)("%s", (_, rows, volume) => holds(inch(...rows), volume * 25.4 ** 3));

describe("more copies than a boolean ends with", () => {
  it("that lap in one chain are refused with the number that can be made, and the rest stands", async () => {
    const e = await evaluateCard(mm("LEAVE ROUND ⌀100 X 20", "CUT 400X ⌀3 DEEP 5 ON BC 60", "CUT ⌀10 THRU"));
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "failed", "ok"]);
    expect(e.solved.rows[1].message).toMatch(/more than 150 copies lap over one another .*at most 150/);
    expect(e.part!.volume).toBeCloseTo(Math.PI * (2500 - 25) * 20, 6);
  });
  it("are made where only a few of them lap and the others stand apart", async () => {
    const apart = Array.from({ length: 150 }, (_, i) => `${-72 + 6 * (i % 25)},${10 + 6 * Math.floor(i / 25)}`);
    const lapping = Array.from({ length: 14 }, (_, i) => `${-13 + 2 * i},-20`);
    const e = await evaluateCard(
      mm("LEAVE BLOCK 160 X 100 X 10", `CUT POCKET ⌀3 DEEP 2 AT ${[...apart, ...lapping].join(" ")}`),
    );
    expect(e.solved.rows.map((r) => r.message)).toEqual(["", ""]);
    // Circles of radius 1.5 that stand 2 apart: each overlap is a lens.
    const lens = 2 * 2.25 * Math.acos(2 / 3) - Math.sqrt(9 - 4);
    const area = 164 * Math.PI * 2.25 - 13 * lens;
    expect(e.part!.volume).toBeCloseTo(160000 - 2 * area, 5);
  });
});
