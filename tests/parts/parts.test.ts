import { evaluateCard, inch, mm } from "../helpers/card";

/**
 * Whole parts against figures worked out by hand: every volume here is put together from prisms, cylinders, cones
 * and frustums.
 * The cards use what a print uses: names, expressions, balloons, other planes, patterns.
 */
const IN3 = 25.4 ** 3;
const cylinder = (d: number, h: number) => (Math.PI / 4) * d * d * h;
const frustum = (d: number, e: number, h: number) => (Math.PI * h * (d * d + d * e + e * e)) / 12;
const point = (d: number, angle = 118) => frustum(d, 0, d / 2 / Math.tan((angle * Math.PI) / 360));
const rounded = (l: number, w: number, r: number) => l * w - (4 - Math.PI) * r * r;
const hexagon = (flats: number) => (Math.sqrt(3) / 2) * flats * flats;

async function expectVolume(card: string, expected: number): Promise<void> {
  const e = await evaluateCard(card);
  const failed = e.solved.rows.filter((r) => r.state === "failed").map((r) => `row ${r.number}: ${r.message}`);
  expect(failed).toEqual([]);
  expect(Math.abs(e.part!.volume / expected - 1)).toBeLessThan(1e-6);
}

describe("milled parts", () => {
  it("a lid: recess below, seal groove, counterbored bolt circle", async () => {
    const card = inch(
      "#1 ⌀3.250",
      "#2 .600",
      "LEAVE ROUND ⌀#1 X #2",
      'CUT "well": POCKET ⌀1.750 DEEP .350 ON BOTTOM',
      'CUT "seal": GROOVE OD 2.300 ID 2.064 DEEP .077 ON BOTTOM',
      "CUT 6X ⌀.201 THRU CBORE ⌀.344 DEEP .170 ON BC 2.750",
    );
    const whole = cylinder(3.25, 0.6);
    const well = cylinder(1.75, 0.35);
    const seal = cylinder(2.3, 0.077) - cylinder(2.064, 0.077);
    const screw = cylinder(0.201, 0.6) + cylinder(0.344, 0.17) - cylinder(0.201, 0.17);
    await expectVolume(card, (whole - well - seal - 6 * screw) * IN3);
  });

  it("a clamp: step, pocket on the step side, tapped holes in the step", async () => {
    const card = inch(
      "LEAVE BLOCK 4.5 X 3 X .875 R.25",
      "CUT STEP LEFT .75 DEEP .3",
      "CUT POCKET 2 X 1-1/4 R1/8 DEEP .4 AT .5,0",
      "CUT 2X 3/8-16 UNC-2B DEEP .3 DRILL DEEP .45 AT -1.9,-.6 -1.9,.6 ON FLOOR OF 2",
    );
    const block = rounded(4.5, 3, 0.25) * 0.875;
    // The step takes the rounded left corners with it: its strip less two corner slivers.
    const step = (0.75 * 3 - ((4 - Math.PI) * 0.25 ** 2) / 2) * 0.3;
    const pocket = rounded(2, 1.25, 0.125) * 0.4;
    const tapped = cylinder(0.3125, 0.45) + point(0.3125);
    await expectVolume(card, (block - step - pocket - 2 * tapped) * IN3);
  });

  it("a bracket: holes from the front and the right, crossing nothing", async () => {
    const card = mm(
      "LEAVE BLOCK 80 X 50 X 30 CORNER",
      "CUT ⌀8 THRU AT 20,15 ON FRONT",
      "CUT ⌀6 DEEP 12 FLAT AT 25,8 ON RIGHT",
      "CUT 2X ⌀5 DEEP 10 POINT 140 AT 60,10 60,40",
    );
    await expectVolume(card, 80 * 50 * 30 - cylinder(8, 50) - cylinder(6, 12) - 2 * (cylinder(5, 10) + point(5, 140)));
  });

  it("a nut blank: hexagon with a through thread and both rims chamfered", async () => {
    const card = mm("LEAVE POLYGON 6 AF 30 X 15", "CUT M16 THRU CSK ⌀17 X 120", "CUT FACE DEEP 1 ON BOTTOM");
    const mouth = frustum(17, 14, (17 - 14) / 2 / Math.tan((60 * Math.PI) / 180));
    const sunk = (17 - 14) / 2 / Math.tan((60 * Math.PI) / 180);
    await expectVolume(card, hexagon(30) * 14 - cylinder(14, 14 - sunk) - mouth);
  });

  it("a plate with slots in a line at an angle, and one that runs off the edge", async () => {
    const card = mm(
      "LEAVE BLOCK 120 X 80 X 10",
      "CUT POCKET 14 X 6 R3 THRU TURN 30 LINE 3 BY 20 TURN 30 AT -20,-10",
      "CUT POCKET 40 X 10 DEEP 4 AT 60,30",
    );
    const slot = rounded(14, 6, 3) * 10;
    await expectVolume(card, 120 * 80 * 10 - 3 * slot - 20 * 10 * 4);
  });

  it("two levels: a pocket in a pocket, a hole through the lower floor", async () => {
    const card = mm(
      "LEAVE BLOCK 100 X 60 X 25",
      "CUT POCKET 60 X 40 R6 DEEP 8",
      "CUT POCKET 30 X 20 R5 DEEP 6 ON FLOOR OF 2",
      "CUT ⌀10 THRU ON FLOOR OF 3",
      "CUT ⌀4 DEEP 3 FLAT START 2 AT -40,0",
    );
    const upper = rounded(60, 40, 6) * 8;
    const lower = rounded(30, 20, 5) * 6;
    await expectVolume(card, 100 * 60 * 25 - upper - lower - cylinder(10, 11) - cylinder(4, 3));
  });

  it("a boss on a block, bored through both", async () => {
    const card = mm(
      "LEAVE BLOCK 60 X 60 X 12",
      "LEAVE ROUND ⌀30 X 20 ON TOP OF 1",
      "CUT ⌀12 THRU",
      "CUT 4X ⌀5.5 THRU GRID 2 2 BY 46 46 ON TOP OF 1",
    );
    await expectVolume(card, 60 * 60 * 12 + cylinder(30, 20) - cylinder(12, 32) - 4 * cylinder(5.5, 12));
  });

  it("blocks that stand side by side make one piece", async () => {
    const card = mm("LEAVE BLOCK 40 X 40 X 10 CORNER", "LEAVE BLOCK 20 X 40 X 30 CORNER AT 40,0", "CUT FACE DEEP 5");
    const e = await evaluateCard(card);
    expect(e.part!.solids).toBe(1);
    expect(e.part!.volume).toBeCloseTo(40 * 40 * 10 + 20 * 40 * 25, 6);
    // Flush faces are one face: the joint leaves no seam on the front and the bottom.
    expect(e.part!.faceArea.bottom).toBeCloseTo(60 * 40, 6);
    expect(e.part!.faceArea.front).toBeCloseTo(40 * 10 + 20 * 25, 6);
  });

  it("a bore with a retaining ring groove and a chamfered mouth", async () => {
    const card = mm(
      "LEAVE ROUND ⌀60 X 30",
      "CUT POCKET ⌀24 DEEP 20",
      "CUT GROOVE BORE ⌀26 WIDE 1.3 START 15",
      "CUT CHAMFER 1 MOUTH OF 2",
      "CUT CHAMFER 2 OUTER BOTTOM",
    );
    const groove = cylinder(26, 1.3) - cylinder(24, 1.3);
    const mouth = frustum(26, 24, 1) - cylinder(24, 1);
    const rim = cylinder(60, 2) - frustum(60, 56, 2);
    await expectVolume(card, cylinder(60, 30) - cylinder(24, 20) - groove - mouth - rim);
  });

  it("everything turned off but the block is the block", async () => {
    await expectVolume(
      mm("LEAVE BLOCK 10 X 10 X 10", "OFF CUT ⌀4 THRU", "OFF CUT POCKET 5 X 5 DEEP 2", "OFF CUT CHAMFER 1 ALL SHARP"),
      1000,
    );
  });

  it("the same part in inches and in millimetres is the same part", async () => {
    const a = await evaluateCard(
      inch(
        "LEAVE BLOCK 4 X 2 X 1",
        "CUT POCKET 1 X .5 R.125 DEEP .25",
        "CUT 1/4-20 UNC DEEP .4 DRILL DEEP .6 AT 1.5,0",
      ),
    );
    const b = await evaluateCard(
      mm(
        "LEAVE BLOCK 101.6 X 50.8 X 25.4",
        "CUT POCKET 25.4 X 12.7 R3.175 DEEP 6.35",
        "CUT 1/4-20 UNC DEEP 10.16 DRILL DEEP 15.24 AT 38.1,0",
      ),
    );
    expect(a.part!.volume).toBeCloseTo(b.part!.volume, 6);
    const c = await evaluateCard(
      mm(
        "LEAVE BLOCK 4in X 2in X 1in",
        "CUT POCKET 1in X .5in R.125in DEEP 250thou",
        "CUT 1/4-20 UNC DEEP .4in DRILL DEEP .6in AT 1.5in,0",
      ),
    );
    expect(c.part!.volume).toBeCloseTo(a.part!.volume, 6);
  });
});

describe("what each row takes", () => {
  it("adds up from stock to part", async () => {
    const e = await evaluateCard(
      mm(
        "STOCK PLATE 110 X 70 X 30",
        "LEAVE BLOCK 100 X 60 X 25",
        "CUT POCKET 60 X 40 R6 DEEP 8",
        "CUT 4X ⌀6 THRU GRID 2 2 BY 80 48",
        "CUT CHAMFER 1 OUTER TOP",
      ),
    );
    const { rows } = e.solved;
    const sum = rows.reduce((s, r) => s + r.removed, 0);
    expect(-sum).toBeCloseTo(e.part!.volume, 6);
    rows.forEach((r, i) => {
      const before = i ? rows[i - 1].volumeAfter : 0;
      expect(r.volumeAfter).toBeCloseTo(before - r.removed, 6);
    });
    expect(e.stock!.volume - e.part!.volume).toBeCloseTo((1000 * e.stock!.chipMass!) / 7.87, 4);
  });

  it("is nothing where a cut meets only air", async () => {
    const e = await evaluateCard(mm("LEAVE BLOCK 40 X 30 X 20", "CUT POCKET 20 X 10 R3 DEEP 5", "CUT ⌀4 DEEP 3 FLAT"));
    expect(e.solved.rows[2].state).toBe("ok");
    expect(e.solved.rows[2].removed).toBeCloseTo(0, 6);
  });

  it("does not depend on the order of cuts that do not touch", async () => {
    const cuts = [
      "CUT POCKET 20 X 10 R3 DEEP 5 AT -20,0",
      "CUT ⌀6 THRU AT 20,10",
      "CUT STEP RIGHT 6 DEEP 4",
      "CUT ⌀5 DEEP 8 AT 20,-10 ON BOTTOM",
    ];
    const forward = await evaluateCard(mm("LEAVE BLOCK 80 X 50 X 20", ...cuts));
    const back = await evaluateCard(mm("LEAVE BLOCK 80 X 50 X 20", ...[...cuts].reverse()));
    expect(forward.part!.volume).toBeCloseTo(back.part!.volume, 6);
    expect(forward.part!.surfaceArea).toBeCloseTo(back.part!.surfaceArea, 6);
  });
});

describe("sizes and faces", () => {
  it("of a round part are exact, not those of its picture", async () => {
    const e = await evaluateCard(mm("LEAVE ROUND ⌀40 X 10 AT 5,-3,2"));
    const { min, max } = e.part!.box;
    expect([min.x, min.y, min.z, max.x, max.y, max.z]).toEqual(
      [-15, -23, 2, 25, 17, 12].map((n) => expect.closeTo(n, 6)),
    );
    expect(e.part!.faceArea.left).toBe(0);
    expect(e.part!.surfaceArea).toBeCloseTo(2 * cylinder(40, 1) + Math.PI * 40 * 10, 6);
  });

  it("count only what lies in the outermost plane", async () => {
    const e = await evaluateCard(
      mm("LEAVE BLOCK 40 X 30 X 20", "CUT STEP LEFT 10 DEEP 5", "CUT POCKET 10 X 10 DEEP 3 AT 10,0"),
    );
    expect(e.part!.faceArea.top).toBeCloseTo(30 * 30 - 100, 6);
    expect(e.part!.faceArea.left).toBeCloseTo(30 * 15, 6);
    expect(e.part!.faceArea.front).toBeCloseTo(40 * 20 - 50, 6);
    expect(e.part!.faceArea.bottom).toBeCloseTo(1200, 6);
  });
});
