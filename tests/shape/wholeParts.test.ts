// Whole parts of the harbour workshop, with volumes worked out beside each. Lengths mm, or inches where a card says so.
import { readFileSync } from "node:fs";
import { evaluateCard, inch, mm } from "../helpers/card";

const { PI, sin, tan, sqrt, acos, atan } = Math;
const rad = (degrees: number) => (degrees * PI) / 180;
const line = (name: string, ...steps: string[]) => [`OUTLINE "${name}"`, ...steps, "END"].join("\n");
/** Midpoint rule, fine enough for 1e-6. */
function integral(from: number, to: number, f: (x: number) => number, n = 40000): number {
  const h = (to - from) / n;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += f(from + (i + 0.5) * h);
  return sum * h;
}
const disc = (d: number) => (PI / 4) * d * d;
const segment = (r: number, distance: number) =>
  r * r * acos(distance / r) - distance * sqrt(r * r - distance * distance);

async function holds(card: string, volume: number) {
  const e = await evaluateCard(card);
  expect(e.solved.rows.filter((r) => r.state === "failed").map((r) => `row ${r.number}: ${r.message}`)).toEqual([]);
  expect(e.part!.solids).toBe(1);
  expect(Math.abs(e.part!.volume / volume - 1)).toBeLessThan(1e-6);
  return e;
}

it("a five-sided bar with rounded corners, counterbored ends and holes on its flats", async () => {
  // Regular pentagon about a circle of 30: apothem 15, area 5 · 15² tan 36°; each corner of 108° rounded by 3 loses
  // 9 (tan 36° - 36° in radians).
  const area = 5 * 225 * tan(rad(36)) - 5 * 9 * (tan(rad(36)) - rad(36));
  const counterbored = disc(5) * 10 + (disc(9) - disc(5)) * 4;
  const card = mm(
    "LEAVE POLYGON 5 AF 30 X 100 R3",
    "CUT ⌀5 DEEP 10 FLAT CBORE ⌀9 DEEP 4",
    "CUT ⌀5 DEEP 10 FLAT CBORE ⌀9 DEEP 4 ON BOTTOM",
    "CUT ⌀4 DEEP 4 FLAT ON SIDE 1 OF 1 AT 0,50",
    "CUT 2X ⌀3 DEEP 4 FLAT ON SIDE 2 OF 1 AT 0,40 0,60",
    "CUT 2X ⌀3 DEEP 4 FLAT ON SIDE 5 OF 1 AT 0,40 0,60",
  );
  await holds(card, area * 100 - 2 * counterbored - disc(4) * 4 - 4 * disc(3) * 4);
});

it("a bent bracket with full-round ends, and a pad on its web", async () => {
  // Strip 4 thick along 40, a bend of inner radius 6 and 30, width 20: middle line 40 + 8 π/2 + 30 for MIDDLE, arcs exact by Pappus.
  const web = (40 + (PI / 2) * 8 + 30) * 4 * 20 - 2 * (200 - (PI / 2) * 100) * 4;
  await holds(
    mm(
      line("web", "START 0,0", "LINE TO X 40", "ARC TANGENT CENTRE 40,8 TO 48,8", "LINE TO Y 38"),
      'LEAVE STRIP "web" THICK 4 MIDDLE X 20 ROUNDED',
      "CUT ⌀6 DEEP TO NEXT AT 8,10 ON FRONT",
      "CUT 2X ⌀4 DEEP TO NEXT AT 24,7 24,13 ON RIGHT",
    ),
    web - disc(6) * 4 - 2 * disc(4) * 4,
  );
});

it("a taper socket 1 : 20 in a rectangular holder: half angle 1°25'56\"", async () => {
  expect((atan(1 / 40) * 180) / PI).toBeCloseTo(1 + 25 / 60 + 56 / 3600, 3);
  const cone = (d: number, D: number, l: number) => (PI * l * (d * d + d * D + D * D)) / 12;
  const card = mm(
    "LEAVE BLOCK 60 X 40 X 80",
    "CUT TAPER ⌀24 1:20 DEEP 60",
    "CUT ⌀10 THRU",
    "CUT SLOT CENTRES 20 X 8 DEEP TO NEXT ON FRONT AT 0,12 TURN 90",
  );
  const e = await evaluateCard(card);
  expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok", "ok", "ok"]);
  expect(e.solved.rows[1].removed).toBeCloseTo(cone(24, 21, 60), 4);
  expect(e.solved.rows[2].removed).toBeCloseTo(disc(10) * 20, 4);
});

it("a knurled, threaded screw: said of the part, its solid the blank's", async () => {
  const card = mm(
    "LEAVE ROUND ⌀16 X 10",
    "LEAVE ROUND ⌀6 X 25 ON BOTTOM",
    "CUT KNURL STRAIGHT PITCH 1 LEN 8 ON SHAFT OF 1 START 1",
    "CUT THREAD M6-6g LEN 20 ON SHAFT OF 2",
    "CUT CHAMFER .8 OUTER TOP OF 2",
    "CUT SLOT 20 X 2 DEEP 3",
  );
  const slot = 3 * (2 * integral(0, 8, (x) => (x > sqrt(63) ? 2 * sqrt(64 - x * x) : 2)));
  const e = await evaluateCard(card);
  expect(e.solved.rows.map((r) => r.message)).toEqual(["", "", "", "", "", ""]);
  const chamfer = PI * (9 * 0.8 - (0.8 * (9 + 3 * 2.2 + 2.2 * 2.2)) / 3);
  expect(Math.abs(e.part!.volume - (disc(16) * 10 + disc(6) * 25 - chamfer - slot))).toBeLessThan(1e-3);
});

it("a star on a flange, its rim broken", async () => {
  // Star of 5 points: ten triangles of outer radius R and inner r: area 5 R r sin 36°.
  const rim = (r: number, b: number) => PI * (r * r * b - (b * (r * r + r * (r - b) + (r - b) ** 2)) / 3);
  const card = mm(
    line("star", "STAR 5 OD 40 ID 18"),
    "LEAVE ROUND ⌀60 X 8",
    'LEAVE TEXT "star" X 3 ON TOP',
    "CUT BREAK .5 OUTER TOP OF 1, OUTER BOTTOM OF 1",
  );
  await holds(card, disc(60) * 8 + 5 * 20 * 9 * sin(rad(36)) * 3 - 2 * rim(30, 0.5));
});

it("a ring housing: seven flats, seven bores up to the next material, four studs round each", async () => {
  const bore = 2 * integral(0, 8, (x) => 2 * sqrt(64 - x * x) * (55 - sqrt(2025 - x * x)));
  const card = mm(
    "LEAVE RING OD 120 ID 90 X 40",
    "CUT FACE DEEP 5 ON FRONT",
    "CUT ⌀16 DEEP TO NEXT ON FRONT AT 0,20",
    "CUT 4X ⌀3.3 DEEP 6 FLAT ON BC 24 FROM 45 AT 0,20 ON FRONT",
    "REPEAT 2-4 7X AROUND Z",
  );
  const e = await holds(card, (disc(120) - disc(90)) * 40 - 7 * segment(60, 55) * 40 - 7 * bore - 28 * disc(3.3) * 6);
  expect(e.solved.rows[4].removed).toBeCloseTo(e.solved.rows.slice(1, 4).reduce((s, r) => s + r.removed, 0) * 6, 2);
});

it("a finned cylinder with pads and holes up to the next void", async () => {
  const fin = (disc(60) - disc(40)) * 2;
  const card = mm(
    "LEAVE ROUND ⌀40 X 60",
    "CUT POCKET ⌀30 DEEP 55",
    "LEAVE RING OD 60 ID 40 X 2 AT 0,0,10",
    "REPEAT 3 LINE 5X BY 8 ALONG Z",
    "CUT ⌀6 DEEP TO NEXT ON TOP AT 25,0",
    "REPEAT 5 6X AROUND Z",
  );
  await holds(card, disc(40) * 60 - disc(30) * 55 + 5 * fin - 6 * disc(6) * 2);
});

it("an elbow of two flanges with a swept bore", async () => {
  const way = 20 + (PI / 2) * 30 + 20;
  const card = mm(
    line("way", "START 0,0", "LINE TO Y 20", "ARC TANGENT CENTRE 30,20 TO 30,50 CW", "LINE TO X 50"),
    'LEAVE TUBE "way" OD 24',
    "LEAVE ROUND ⌀50 X 6 ON FRONT",
    "LEAVE ROUND ⌀50 X 6 ON RIGHT AT 50,0",
    'CUT TUBE "way" ⌀18',
    "CUT 4X ⌀5 DEEP TO NEXT ON BC 38 FROM 45 ON FRONT OF 2",
  );
  // The flanges stand off the tube's ends and close its bore: each is bored by a hole of its own.
  const e = await evaluateCard(card);
  expect(e.solved.rows.map((r) => r.message)).toEqual(["", "", "", "", ""]);
  expect(
    Math.abs(e.part!.volume / (way * (disc(24) - disc(18)) + 2 * disc(50) * 6 - 4 * disc(5) * 6) - 1),
  ).toBeLessThan(1e-6);
});

it("an angled guide block with a lug on a 45° plane", async () => {
  // The plane through the top right edge leans 45°: the lug 10 x 12 goes 9 out and 6 down from it; below it the corner takes
  // ∫ 2 min(5, depth) over 6 = 35 of its 60 by 12.
  const card = mm(
    'PLANE "lug" TILT 45 ABOUT Y AT 40,0,30',
    "LEAVE BLOCK 80 X 40 X 30",
    'LEAVE BLOCK 10 X 12 X 9 AT (10/sqrt(2)),0 ON PLANE "lug"',
    'LEAVE BLOCK 10 X 12 X 6 DOWN AT (10/sqrt(2)),0 ON PLANE "lug"',
    "CUT ⌀4 DEEP 9 FLAT AT (10/sqrt(2)),0 ON TOP OF 2",
  );
  await holds(card, 80 * 40 * 30 + 10 * 12 * 9 + (60 - 35) * 12 - disc(4) * 9);
});

it("a mounting block with single rounded corners and a slot to the edge, in inches", async () => {
  const corner = (1 - PI / 4) * 0.5 * 0.5;
  const card = inch(
    "LEAVE BLOCK 4 X 3 X .75",
    "CUT ROUND .5 EDGE AT 2,1.5,.4, EDGE AT -2,-1.5,.4",
    "CUT POCKET 1.5 X .5 THRU AT -1.25,.75",
    "CUT ROUND .125 VERTICAL OF 3",
  );
  // The pocket runs out at the left edge: two of its corners are inside.
  const pocket = 1.5 * 0.5 - 2 * (1 - PI / 4) * 0.125 ** 2;
  const e = await evaluateCard(card);
  expect(e.solved.rows.map((r) => r.message)).toEqual(["", "", "", ""]);
  expect(Math.abs(e.part!.volume / 25.4 ** 3 / ((12 - 2 * corner - pocket) * 0.75) - 1)).toBeLessThan(1e-6);
});

it("a fixture plate whose nests follow another part, and follow it when it grows", async () => {
  const card = readFileSync("tests/shape/plate.card", "utf8");
  const { readCard } = await import("@/core/callout");
  const { evaluateParts } = await import("@/core/evaluate/parts");
  const { evaluate } = await import("@/core/evaluate");
  const { jobOf } = await import("@/core/job");
  const { kernel } = await import("../helpers/card");
  const k = await kernel();
  const plateOf = async (text: string) => {
    const { document, errors } = readCard(text);
    expect(errors).toEqual([]);
    const parts = await evaluateParts(document, await evaluate(jobOf(document), k), k);
    return parts.find((p) => p.name === "plate")!.evaluation.part!.volume;
  };
  const nest = (l: number, w: number, r: number) => l * w - (4 - PI) * r * r;
  expect(await plateOf(card)).toBeCloseTo(600000 - 2 * 5 * nest(60.2, 40.2, 4.1), 4);
  expect(await plateOf(card.replace("BLOCK 60 X 40 X 20", "BLOCK 66 X 40 X 20"))).toBeCloseTo(
    600000 - 2 * 5 * nest(66.2, 40.2, 4.1),
    4,
  );
});

it("jaws may be in two pieces and chuck jaws in three; a workpiece may not", async () => {
  const { readCard } = await import("@/core/callout");
  const { evaluate } = await import("@/core/evaluate");
  const { evaluateParts } = await import("@/core/evaluate/parts");
  const { jobOf } = await import("@/core/job");
  const { kernel } = await import("../helpers/card");
  const k = await kernel();
  const blocks = (n: number) => Array.from({ length: n }, (_, i) => `LEAVE BLOCK 10 X 10 X 10 AT ${20 * i},0`);
  const said = async (kind: string, n: number) => {
    const text = mm("LEAVE BLOCK 9 X 9 X 9", `PART "held by" ${kind}`, ...blocks(n));
    const { document, errors } = readCard(text);
    expect(errors).toEqual([]);
    const parts = await evaluateParts(document, await evaluate(jobOf(document), k), k);
    return parts.find((p) => p.name === "held by")!.evaluation.findings.some((f) => f.rule === "in-pieces");
  };
  expect(await said("JAWS", 2)).toBe(false);
  expect(await said("JAWS", 3)).toBe(true);
  expect(await said("CHUCKJAWS", 3)).toBe(false);
  expect(await said("PLATE", 2)).toBe(true);
});
