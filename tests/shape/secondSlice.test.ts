// Rows, planes and ends of the second slice against what is worked out by hand beside each. Lengths mm.
import { evaluateCard, mm } from "../helpers/card";

const { PI, tan, sqrt } = Math;
const rad = (degrees: number) => (degrees * PI) / 180;
const BLOCK = "LEAVE BLOCK 60 X 40 X 20";
const line = (name: string, ...steps: string[]) => [`OUTLINE "${name}"`, ...steps, "END"].join("\n");
const straight = line("straight", "START -20,0", "LINE TO X 20");
const ell = line("ell", "START 0,0", "LINE TO X 30", "LINE TO Y 20");

/** Part, card and volume. */
type Case = [what: string, volume: number, ...card: string[]];

async function check(volume: number, card: string[]) {
  const e = await evaluateCard(mm(...card));
  const failed = e.solved.rows.filter((r) => r.state === "failed").map((r) => `row ${r.number}: ${r.message}`);
  expect(failed).toEqual([]);
  expect(Math.abs(e.part!.volume - volume) / volume).toBeLessThan(1e-6);
  return e;
}
const cases = (list: Case[]) =>
  it.each(list)("%s", async (_, volume, ...card) => {
    await check(volume, card);
  });

describe("ends", () => {
  cases([
    [
      "a pocket to the floor of another",
      48000 - 20 * 10 * 5 - 10 * 10 * 5,
      BLOCK,
      "CUT POCKET 20 X 10 DEEP 5",
      "CUT POCKET 10 X 10 DEEP TO FLOOR OF 2 AT 20,0",
    ],
    [
      "and a little past it",
      48000 - 1000 - 10 * 10 * 5.5,
      BLOCK,
      "CUT POCKET 20 X 10 DEEP 5",
      "CUT POCKET 10 X 10 DEEP TO FLOOR OF 2 +.5 AT 20,0",
    ],
    [
      "and short of it",
      48000 - 1000 - 10 * 10 * 4.5,
      BLOCK,
      "CUT POCKET 20 X 10 DEEP 5",
      "CUT POCKET 10 X 10 DEEP TO FLOOR OF 2 -.5 AT 20,0",
    ],
    [
      "a boss up to the top of another",
      48000 + 10 * 10 * 7 + (PI / 4) * 64 * 7,
      BLOCK,
      "LEAVE BLOCK 10 X 10 X 7 ON TOP AT -20,0",
      "LEAVE ROUND ⌀8 X TO TOP OF 2 ON TOP OF 1 AT 20,0",
    ],
    // Two legs of 10 with 40 between: the hole goes through the first alone.
    [
      "a hole up to the next void",
      48000 - 40 * 40 * 20 - (PI / 4) * 25 * 10,
      BLOCK,
      "CUT POCKET 40 X 40 THRU",
      "CUT ⌀5 DEEP TO NEXT ON LEFT AT 0,10",
    ],
    [
      "and through both",
      48000 - 40 * 40 * 20 - (PI / 4) * 25 * 20,
      BLOCK,
      "CUT POCKET 40 X 40 THRU",
      "CUT ⌀5 THRU ON LEFT AT 0,10",
    ],
    [
      "a boss down to the material",
      48000 + (PI / 4) * 100 * 15,
      BLOCK,
      'PLANE "high" OFFSET 15 FROM TOP',
      'LEAVE ROUND ⌀10 X TO NEXT ON PLANE "high"',
    ],
    ["half to each side", 48000 + 10 * 10 * 5, BLOCK, "LEAVE BLOCK 10 X 10 X 10 BOTH ON TOP"],
    [
      "down into the material side",
      48000 + 10 * 10 * 8 - 10 * 10 * 5,
      BLOCK,
      "LEAVE BLOCK 10 X 10 X 8 DOWN AT 35,0 ON TOP",
      "CUT POCKET 10 X 10 DEEP 5",
    ],
  ]);
  it("a boss down onto a cylinder ends on its round", async () => {
    // Square boss 10 x 10 from z = 30 down to a lying bar of radius 20: ∫ (30 - sqrt(400 - y²)) over ±5 by 10.
    const under = 5 * sqrt(400 - 25) + 400 * Math.asin(5 / 20);
    const bar = line("bar", "START 0,0", "LINE TO X 20", "LINE TO Y 50", "LINE TO X 0", "CLOSE");
    await check(PI * 400 * 50 + 10 * (30 * 10 - under), [
      bar,
      'PLANE "over" OFFSET 10 FROM TOP',
      'LEAVE TURNED "bar" AXIS X',
      'LEAVE BLOCK 10 X 10 X TO NEXT AT 25,0 ON PLANE "over"',
    ]);
  });
});

describe("planes", () => {
  const tube = (d: number, deep: number) => (PI / 4) * d * d * deep;
  cases([
    [
      "sides of a row",
      48000 - tube(4, 6) * 2,
      BLOCK,
      "LEAVE BLOCK 10 X 10 X 1 AT 0,0,19",
      "CUT ⌀4 DEEP 6 FLAT ON RIGHT OF 1 AT 0,10",
      "CUT ⌀4 DEEP 6 FLAT ON FRONT OF 1 AT 10,10",
    ],
    [
      "a flat of a polygon",
      (sqrt(3) / 2) * 900 * 12 - 3 * tube(4, 5),
      "LEAVE POLYGON 6 AF 30 X 12",
      "CUT ⌀4 DEEP 5 FLAT ON SIDE 1 OF 1 AT 0,6",
      "CUT ⌀4 DEEP 5 FLAT ON SIDE 2 OF 1 AT 0,6",
      "CUT ⌀4 DEEP 5 FLAT ON SIDE 5 OF 1 AT 0,6",
    ],
    ["offset", 48000 - 100 * 15, 'PLANE "p" OFFSET -5 FROM TOP', BLOCK, 'CUT POCKET 10 X 10 THRU ON PLANE "p"'],
    [
      "midway",
      48000 + 4 * 4 * 10,
      'PLANE "m" MIDWAY TOP OF 1 BOTTOM OF 1',
      BLOCK,
      'LEAVE BLOCK 4 X 4 X 20 AT 32,0 ON PLANE "m"',
      "CUT POCKET 4 X 4 DEEP 10 AT 32,0",
    ],
    // Tilted about Y through the top's right edge by 45°: a prism of 10 x 10 x 8 stands on it, half of it in the air.
    [
      "index",
      48000 - 4 * tube(4, 5),
      'PLANE "a" INDEX 90 ABOUT X',
      'PLANE "b" INDEX 180 ABOUT X',
      'PLANE "c" INDEX 270 ABOUT X',
      BLOCK,
      "CUT ⌀4 DEEP 5 FLAT AT 20,0",
      'CUT ⌀4 DEEP 5 FLAT ON PLANE "a" AT 20,-10',
      'CUT ⌀4 DEEP 5 FLAT ON PLANE "b" AT 20,0',
      'CUT ⌀4 DEEP 5 FLAT ON PLANE "c" AT 20,10',
    ],
  ]);
  it("tilted through an edge: what goes down into the corner", async () => {
    // 10 x 10 x 8 down from a plane at 45° on the top right edge. Across the edge the corner of the block takes
    // ∫ 2 min(5, depth) over 8 = 55 of its 80.
    await check(48000 + (80 - 55) * 10, [
      'PLANE "t" TILT 45 ABOUT Y AT 30,0,20',
      BLOCK,
      'LEAVE BLOCK 10 X 10 X 8 DOWN AT (sqrt(50)),0 ON PLANE "t"',
    ]);
  });
  it("tangent to a round, the hole counted from the plane", async () => {
    // ⌀6 hole 8 deep from the tangent plane of ⌀40: cylinder less what the plane stands off the round.
    const r = 3;
    let air = 0;
    const n = 20000;
    for (let i = 0; i < n; i++) {
      const x = -r + ((i + 0.5) * 2 * r) / n;
      air += (20 - sqrt(400 - x * x)) * 2 * sqrt(r * r - x * x) * ((2 * r) / n);
    }
    await check(PI * 400 * 30 - (PI * 9 * 8 - air), [
      'PLANE "t" TANGENT TO 1 AT 90',
      "LEAVE ROUND ⌀40 X 30",
      'CUT ⌀6 DEEP 8 FLAT ON PLANE "t" AT 0,15',
    ]);
  });
  it("beside the crest of a round the depth counts from where the axis meets the face", async () => {
    // ⌀6 hole 8 deep, 10 beside the crest of ⌀40: from y = sqrt(400 - 100) at its axis down by 8.
    const bottom = sqrt(300) - 8;
    const n = 20000;
    let volume = 0;
    for (let i = 0; i < n; i++) {
      const x = -3 + ((i + 0.5) * 6) / n;
      volume += (sqrt(400 - (10 + x) ** 2) - bottom) * 2 * sqrt(9 - x * x) * (6 / n);
    }
    const card = ['PLANE "t" TANGENT TO 1 AT 90', "LEAVE ROUND ⌀40 X 30", 'CUT ⌀6 DEEP 8 FLAT ON PLANE "t" AT 10,15'];
    await check(PI * 400 * 30 - volume, card);
  });
});

describe("rows", () => {
  const elbow = line("elbow", "START 0,0", "LINE TO X 30", "ARC TANGENT CENTRE 30,20 TO 50,20", "LINE TO Y 40");
  const bend = 30 + (PI / 2) * 20 + 20;
  cases([
    ["strip to the left", (30 * 3 + 17 * 3) * 20, ell, 'LEAVE STRIP "ell" THICK 3 LEFT X 20'],
    ["strip to the right", (33 * 3 + 20 * 3) * 20, ell, 'LEAVE STRIP "ell" THICK 3 RIGHT X 20'],
    [
      "strip in the middle, to both sides",
      (31.5 * 3 + 18.5 * 3) * 20,
      ell,
      'LEAVE STRIP "ell" THICK 3 MIDDLE X 20 BOTH',
    ],
    [
      "strip with full rounds",
      (40 * 20 - (400 - PI * 100)) * 3,
      straight,
      'LEAVE STRIP "straight" THICK 3 LEFT X 20 ROUNDED',
    ],
    [
      "strip with a full round at its start",
      (40 * 20 - (200 - PI * 50)) * 3,
      straight,
      'LEAVE STRIP "straight" THICK 3 LEFT X 20 ROUNDED START',
    ],
    [
      "strip with an arc",
      (30 * 3 + (PI / 4) * (400 - 289) + 20 * 3) * 12,
      elbow,
      'LEAVE STRIP "elbow" THICK 3 LEFT X 12',
    ],
    ["tube", PI * (100 - 64) * bend, elbow, 'LEAVE TUBE "elbow" OD 20 ID 16'],
    ["rod and bore", PI * (100 - 64) * bend, elbow, 'LEAVE TUBE "elbow" OD 20', 'CUT TUBE "elbow" ⌀16'],
    [
      "rib between walls, to the floor",
      48000 - 40 * 20 * 10 + 40 * 2 * 10,
      BLOCK,
      straight,
      "CUT POCKET 40 X 20 DEEP 10",
      'LEAVE RIB "straight" THICK 2 TO NEXT ON TOP',
    ],
    [
      "rib so far down",
      48000 - 40 * 20 * 10 + 40 * 2 * 4,
      BLOCK,
      line("short", "START -5,0", "LINE TO X 5"),
      "CUT POCKET 40 X 20 DEEP 10",
      'LEAVE RIB "short" THICK 2 DOWN 4 ON TOP',
    ],
    [
      "the inside corners a rib makes, rounded",
      48000 - 40 * 20 * 10 + 40 * 2 * 10 + 4 * (1 - PI / 4) * 9 * 10,
      BLOCK,
      straight,
      "CUT POCKET 40 X 20 DEEP 10",
      'LEAVE RIB "straight" THICK 2 TO NEXT ON TOP',
      "CUT ROUND 3 VERTICAL OF 3",
    ],
    [
      "the same, by their direction",
      48000 - 40 * 20 * 10 + 40 * 2 * 10 + 4 * (1 - PI / 4) * 9 * 10,
      BLOCK,
      straight,
      "CUT POCKET 40 X 20 DEEP 10",
      'LEAVE RIB "straight" THICK 2 TO NEXT ON TOP',
      "CUT ROUND 3 ALONG Z OF 3",
    ],
    [
      "slot to a plane",
      48000 - (20 * 10 + PI * 25) * 8,
      BLOCK,
      'PLANE "p" OFFSET -8 FROM TOP',
      'CUT SLOT CENTRES 20 X 10 TO PLANE "p"',
    ],
    [
      "slot along an arc",
      PI * 900 * 10 - ((rad(90) / 2) * (23 ** 2 - 17 ** 2) + PI * 9) * 4,
      "LEAVE ROUND ⌀60 X 10",
      "CUT SLOT ARC ⌀40 X 6 FROM 30 TO 120 DEEP 4",
    ],
    [
      "shaft groove",
      PI * 100 * 40 - PI * (100 - 81) * 2,
      "LEAVE ROUND ⌀20 X 40",
      "CUT GROOVE SHAFT ⌀18 WIDE 2 START 5",
    ],
    [
      "shaft groove of the second",
      PI * 400 * 10 + PI * 100 * 30 - PI * (100 - 64) * 3,
      "LEAVE ROUND ⌀40 X 10",
      "LEAVE ROUND ⌀20 X 30 ON TOP",
      "CUT GROOVE SHAFT ⌀16 WIDE 3 START 27 OF 2",
    ],
    ["taper by two diameters", 48000 - (PI * 10 * (100 + 70 + 49)) / 3, BLOCK, "CUT TAPER ⌀20 TO ⌀14 DEEP 10"],
    [
      "taper by ratio",
      60 * 40 * 60 - (PI * 50 * (10 ** 2 + 10 * 8.75 + 8.75 ** 2)) / 3,
      "LEAVE BLOCK 60 X 40 X 60",
      "CUT TAPER ⌀20 1:20 DEEP 50",
    ],
    [
      "taper by half its angle",
      48000 - (PI * 10 * (100 + 10 * (10 - 10 * tan(rad(5))) + (10 - 10 * tan(rad(5))) ** 2)) / 3,
      BLOCK,
      "CUT TAPER ⌀20 A 5 DEEP 10",
    ],
    [
      "raised text of two loops",
      48000 + 2 * PI * 9 * 1.5,
      BLOCK,
      line("dots", "CIRCLE ⌀6 AT -10,0", "CIRCLE ⌀6 AT 10,0"),
      'LEAVE TEXT "dots" X 1.5 ON TOP',
    ],
    // The first loop is the smaller one: what comes of all is more than the first as often as there are loops.
    [
      "raised text of unlike loops",
      48000 + PI * (4 + 64) * 1.5,
      BLOCK,
      line("unlike", "CIRCLE ⌀4 AT -10,0", "CIRCLE ⌀16 AT 10,0"),
      'LEAVE TEXT "unlike" X 1.5 ON TOP',
    ],
    ["spotface and counterbore", 48000 - PI * 4 * 20 - PI * (36 - 4) * 2, BLOCK, "CUT ⌀4 THRU SPOTFACE ⌀12 DEEP 2"],
    ["reamed", 48000 - PI * 25 * 20, BLOCK, "CUT ⌀10 H7 REAM THRU"],
    [
      "a cosmetic thread and knurl",
      PI * 9 * 30,
      "LEAVE ROUND ⌀6 X 30",
      "CUT THREAD M6-6g LEN 18 ON SHAFT OF 1",
      "CUT KNURL DIAMOND PITCH 1 LEN 8 ON SHAFT OF 1 START 20",
    ],
    ["shell open at the top", 48000 - 54 * 34 * 17, BLOCK, "CUT SHELL 3 OPEN TOP"],
    ["shell closed", 48000 - 54 * 34 * 14, BLOCK, "CUT SHELL 3"],
    [
      "prism with draft",
      (10 * (1600 + 40 * (40 - 20 * tan(rad(5))) + (40 - 20 * tan(rad(5))) ** 2)) / 3,
      line("sq", "RECTANGLE 40 X 40"),
      'LEAVE PRISM "sq" X 10 DRAFT 5',
    ],
    [
      "turned part of the way",
      (rad(90) / 2) * (400 - 100) * 30,
      line("half", "START 10,0", "LINE TO X 20", "LINE TO Y 30", "LINE TO X 10", "CLOSE"),
      'LEAVE TURNED "half" AXIS Y SWEEP 90 FROM 45',
    ],
    [
      "vee groove",
      48000 - 20 * 4 - (PI * 4 * 2) / 3,
      BLOCK,
      line("across", "START -10,0", "LINE TO X 10"),
      'CUT GROOVE VEE 90 DEEP 2 "across"',
    ],
  ]);
});

describe("patterns and shapes of outlines", () => {
  const slotted = line("s", "RECTANGLE 40 X 20", "ROUND 4 ALL");
  const hole = (d: number, deep: number) => (PI / 4) * d * d * deep;
  // The pentagram's area by its inner radius R cos 72° / cos 36°, ten triangles R r sin 36° / 2.
  const pentagram = 5 * 20 * ((20 * Math.cos((2 * PI) / 5)) / Math.cos(PI / 5)) * Math.sin(PI / 5);
  cases([
    [
      "holes at the centres of its rounds",
      48000 - 4 * hole(3, 6),
      slotted,
      BLOCK,
      'CUT 4X ⌀3 DEEP 6 FLAT PLACES "s" ROUNDS',
    ],
    [
      "at its corners",
      48000 - 4 * hole(3, 6),
      line("r", "RECTANGLE 40 X 20"),
      BLOCK,
      'CUT ⌀3 DEEP 6 FLAT PLACES "r" CORNERS',
    ],
    [
      "at its circles, a counterbore each",
      48000 - 2 * hole(6, 2),
      line("c", "CIRCLE ⌀4 AT -9,0", "CIRCLE ⌀4 AT 9,0"),
      BLOCK,
      'CUT CBORE ⌀6 DEEP 2 PLACES "c" CIRCLES',
    ],
    ["a star by its points and their step", pentagram * 3, line("p", "STAR 5 STEP 2 OD 40"), 'LEAVE PRISM "p" X 3'],
  ]);
  it("say what is wrong with them", async () => {
    const e = await evaluateCard(
      mm(
        slotted,
        BLOCK,
        'CUT 3X ⌀3 DEEP 6 PLACES "s" ROUNDS',
        'CUT ⌀3 DEEP 6 PLACES "s" CIRCLES',
        'CUT ⌀3 DEEP 6 PLACES "t" CORNERS',
      ),
    );
    expect(e.solved.rows.slice(1).map((r) => r.failure?.message)).toEqual([
      "3X does not agree with the 4 places given",
      'outline "s": it has no circles',
      'there is no outline "t"',
    ]);
  });
});

describe("edges", () => {
  const corner = (r: number) => (1 - PI / 4) * r * r;
  cases([
    [
      "along an axis of a row",
      48000 + 10 * 10 * 10 - 10 * corner(2) * 2,
      BLOCK,
      "LEAVE BLOCK 10 X 10 X 10 ON TOP",
      "CUT ROUND 2 BETWEEN TOP OF 2 AND LEFT OF 2, BETWEEN TOP OF 2 AND RIGHT OF 2",
    ],
    ["all along X", 48000 - 4 * 60 * corner(3), BLOCK, "CUT ROUND 3 ALONG X"],
    [
      "upright corners of a pocket",
      48000 - 20 * 10 * 5 + 4 * 5 * corner(2),
      BLOCK,
      "CUT POCKET 20 X 10 DEEP 5",
      "CUT ROUND 2 VERTICAL OF 2",
    ],
    ["one single corner", 48000 - 20 * corner(8), BLOCK, "CUT ROUND 8 EDGE AT 30,20,10"],
    [
      "rim of a boss",
      48000 + PI * 100 * 5 - PI * 1 * (100 - (100 + 90 + 81) / 3),
      BLOCK,
      "LEAVE ROUND ⌀20 X 5 ON TOP",
      "CUT CHAMFER 1 OUTER TOP OF 2",
    ],
    ["two legs", 48000 - (2 * 1 * 40) / 2, BLOCK, "CUT CHAMFER 2 BY 1 BETWEEN TOP AND LEFT"],
  ]);
});

describe("repeats and mirrors", () => {
  const hole = (d: number, deep: number) => (PI / 4) * d * d * deep;
  cases([
    [
      "round an axis",
      PI * 900 * 10 - 7 * hole(5, 10),
      "LEAVE ROUND ⌀60 X 10",
      "CUT ⌀5 THRU AT 20,0",
      "REPEAT 2 7X AROUND Z",
    ],
    [
      "in a line, skipping one",
      48000 - 3 * hole(4, 6),
      BLOCK,
      "CUT ⌀4 DEEP 6 FLAT AT -20,0",
      "REPEAT 2 LINE 4X BY 12 ALONG X SKIP 3",
    ],
    ["on a grid", 48000 - 6 * 16 * 3, BLOCK, "CUT POCKET 4 X 4 DEEP 3 AT -10,-10", "REPEAT 2 GRID 3 2 BY 10 20"],
    [
      "at the places of another",
      48000 - 4 * hole(4, 20) - 4 * (hole(8, 3) - hole(4, 3)),
      BLOCK,
      "CUT 4X ⌀4 THRU GRID 2 2 BY 30 20",
      "CUT CBORE ⌀8 DEEP 3 AT -15,-10",
      "REPEAT 3 LIKE 2",
    ],
    [
      "mirrored, leave and cut",
      48000 + 2 * (10 * 8 * 6 - 5 * 4 * 3),
      BLOCK,
      "LEAVE BLOCK 10 X 8 X 6 ON TOP AT 20,8",
      "CUT POCKET 5 X 4 DEEP 3 AT 21,9 ON TOP OF 2",
      "MIRROR 2-3 ABOUT X",
    ],
    ["mirrored in a middle", 48000 - 2 * 5 * 4 * 3, BLOCK, "CUT POCKET 5 X 4 DEEP 3", "MIRROR 2 ABOUT MIDWAY OF 1"],
    [
      "mirrored in a named plane",
      48000 - 2 * 5 * 4 * 3,
      'PLANE "m" OFFSET -25 FROM RIGHT',
      BLOCK,
      "CUT POCKET 5 X 4 DEEP 3 AT 10,0",
      'MIRROR 2 ABOUT PLANE "m"',
    ],
    [
      "nested",
      48000 - 9 * hole(2, 5),
      BLOCK,
      "CUT ⌀2 DEEP 5 FLAT AT -10,-10",
      "REPEAT 2 LINE 3X BY 8 ALONG X",
      "REPEAT 2-3 LINE 3X BY 8 ALONG Y",
    ],
    [
      "edges with the rows",
      48000 - 2 * (hole(10, 5) + (PI * (36 + 30 + 25)) / 3 - PI * 25),
      BLOCK,
      "CUT POCKET ⌀10 DEEP 5 AT -15,0",
      "CUT CHAMFER 1 MOUTH OF 2",
      "REPEAT 2-3 LINE 2X BY 30 ALONG X",
    ],
    [
      "each with its own end",
      48000 - 20 * 40 * 10 - hole(6, 20) - hole(6, 10),
      BLOCK,
      "CUT STEP RIGHT 20 DEEP 10",
      "CUT ⌀6 DEEP TO NEXT AT -20,0 ON TOP OF 1",
      "REPEAT 3 LINE 2X BY 40 ALONG X",
    ],
    [
      "mirrored wedge of a turning",
      2 * (rad(60) / 2) * 400 * 10,
      line("half", "START 0,0", "LINE TO X 20", "LINE TO Y 10", "LINE TO X 0", "CLOSE"),
      'LEAVE TURNED "half" SWEEP 60 FROM 10',
      "MIRROR 1 ABOUT Y",
    ],
  ]);
});

describe("wrapped round a shaft", () => {
  const shaft = "LEAVE ROUND ⌀40 X 60";
  const tab = line("tab", "RECTANGLE 10 X 6");
  const kite = line("kite", "START 0,0", "LINE TO 10,2", "LINE TO 3,8", "CLOSE");
  const eye = line("eye", "RING OD 8 ID 4");
  // Radial walls: an area A laid on radius R and carried from r1 to r2 fills A (r2² - r1²) / 2 R.
  const filled = (area: number, r1: number, r2: number) => (area * (r2 ** 2 - r1 ** 2)) / 40;
  const bare = PI * 400 * 60;
  cases([
    ["a raised tab", bare + filled(60, 20, 22), tab, shaft, 'LEAVE TEXT "tab" X 2 ON ROUND OF 1 AT 30,20'],
    ["a cut one", bare - filled(60, 18, 20), tab, shaft, 'CUT POCKET "tab" DEEP 2 ON ROUND OF 1 AT 200,40'],
    ["slanted walls", bare + filled(37, 20, 21), kite, shaft, 'LEAVE TEXT "kite" X 1 ON ROUND OF 1 AT 0,20'],
    ["a ring", bare - filled(12 * PI, 19, 20), eye, shaft, 'CUT POCKET "eye" DEEP 1 ON ROUND OF 1 AT 90,20'],
    [
      "three of them by a repeat, and round a lying shaft",
      bare + 3 * filled(60, 20, 22),
      tab,
      "LEAVE ROUND ⌀40 X 60 ON FRONT",
      'LEAVE TEXT "tab" X 2 ON ROUND OF 1 AT 30,20',
      "REPEAT 2 3X AROUND Y",
    ],
  ]);
  it.each([
    ["another place besides", 'CUT POCKET "tab" DEEP 2 ON ROUND OF 1 AT 0,20 AT 1,1', "on that round alone"],
    ["through", 'CUT POCKET "tab" THRU ON ROUND OF 1 AT 0,20', "in figures"],
    ["past the axis", 'CUT POCKET "tab" DEEP 20 ON ROUND OF 1 AT 0,20', "as deep as the axis"],
    ["round what is not round", 'LEAVE TEXT "tab" X 2 ON ROUND OF 2 AT 0,20', "no round outside"],
  ])("is refused: %s", async (_, row, why) => {
    const e = await evaluateCard(mm(tab, shaft, "LEAVE BLOCK 4 X 4 X 70", row));
    expect(e.solved.rows[2].message).toContain(why);
    expect(e.part!.volume).toBeGreaterThan(bare);
  });
});

describe("teeth of a straight knurl cut into the solid", () => {
  const half = PI / 63;
  const root = 10 * (Math.cos(half) - Math.sin(half));
  cases([
    [
      "63 teeth of pitch 1 on ⌀20",
      PI * 100 * 40 - (PI * 100 - 63 * 10 * root * Math.sin(half)) * 12,
      "LEAVE ROUND ⌀20 X 40",
      "CUT KNURL STRAIGHT PITCH 1 LEN 12 ON SHAFT OF 1 START 5 SOLID",
    ],
  ]);
});

describe("a thread cut as a helix", () => {
  // Every section across the axis is the same one, turned: its area times the length is what goes.
  const groove = (d: number, pitch: number, length: number) => {
    const root = d / 2 - (5 / 16) * sqrt(3) * pitch;
    const under = (r: number) => 2 * PI * ((pitch / 8) * r ** 2 + (2 / sqrt(3)) * (r ** 3 / 3 - (root * r ** 2) / 2));
    return ((under(d / 2) - under(root)) / pitch) * length;
  };
  cases([
    [
      "from the end of its shaft",
      PI * 25 * 20 - groove(10, 1.5, 6),
      "LEAVE ROUND ⌀10 X 20",
      "CUT THREAD M10-6g LEN 6 ON SHAFT OF 1 HELIX",
    ],
    [
      "in its middle, and again on the second of two",
      2 * (PI * 36 * 20 - groove(12, 1.75, 5)),
      "LEAVE ROUND ⌀12 X 20",
      "CUT THREAD M12-6g LEN 5 ON SHAFT OF 1 START 4 HELIX",
      "REPEAT 1-2 LINE 2X BY 40 ALONG X",
    ],
  ]);
  it.each([
    ["a shaft that does not carry it", "CUT THREAD M8-6g LEN 6 ON SHAFT OF 1 HELIX", "does not carry"],
    ["longer than its shaft", "CUT THREAD M10-6g LEN 21 ON SHAFT OF 1 HELIX", "longer than its shaft"],
  ])("is refused: %s", async (_, row, why) => {
    const e = await evaluateCard(mm("LEAVE ROUND ⌀10 X 20", row));
    expect(e.solved.rows[1].message).toContain(why);
  });
});
