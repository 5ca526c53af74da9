import { evaluateJob, inch, jobOf, mm, kernel } from "../../../tests/helpers/card";
import { applyEdits } from "../job";
import type { Job } from "../job";
import { explain } from ".";
import { readings } from "./readings";

/** Takes the check value from the right part, as a print would give it, and looks for the slip in the wrong one. */
async function find(
  right: string,
  wrong: string,
  check: (v: { volume: number; mass: number; top: number; all: number; holes: number }) => string,
) {
  const good = await evaluateJob(jobOf(right));
  const k = jobOf(right).unit === "in" ? 25.4 : 1;
  const line = check({
    volume: good.part!.volume / k ** 3,
    mass: good.part!.mass ?? 0,
    top: good.part!.faceArea.top / k ** 2,
    all: good.part!.surfaceArea / k ** 2,
    holes: good.checks.length,
  });
  const job = jobOf(`${wrong}\n${line}`);
  const evaluation = await evaluateJob(job);
  expect(evaluation.checks[0].agrees).toBe(false);
  // What is found is asked here, not how soon: a busy machine finds the same.
  const found = await explain(job, evaluation, await kernel(), { until: Infinity });
  return { job, list: found[0].explanations, evaluation };
}

const plate = (r: string, l = "7", holes = "6X", density = "") =>
  inch(
    ...(density ? [density] : ['MATERIAL "aluminium 6061"']),
    `LEAVE BLOCK ${l} X 4 X .75`,
    `CUT ROUND ${r} VERTICAL`,
    "CUT POCKET 2.5 X 1.5 R.3 DEEP .4",
    `CUT ${holes} ⌀.281 THRU ON BC 3.2 FROM 30`,
  );
const disc = (...more: string[]) =>
  mm('MATERIAL "steel 1018"', "LEAVE ROUND ⌀80 X 16", "CUT POCKET ⌀24 THRU", "CUT 8X ⌀6.6 THRU ON BC 60", ...more);

describe("the mismatch finder", () => {
  it("finds a .25 fillet typed for .50 from the face area alone", async () => {
    const { list } = await find(plate(".50"), plate(".25"), (v) => `CHECK AREA TOP ${v.top.toFixed(3)}`);
    expect(list[0]).toMatchObject({
      rank: 1,
      kind: "wrong-corner-radius",
      row: 2,
      field: "size",
      from: ".25",
      to: ".50",
      agrees: true,
    });
    expect(Math.abs(list[0].residual)).toBeLessThan(0.4);
  });
  it("finds a plane that was offset by the wrong figure, and one that was tilted by half", async () => {
    const stepped = (by: string, tilt = "20") =>
      mm(
        `PLANE "seat" OFFSET ${by} FROM TOP`,
        `PLANE "lean" TILT ${tilt} ABOUT X AT 0,0,20`,
        "LEAVE BLOCK 60 X 40 X 20",
        'CUT POCKET 30 X 20 R5 DEEP TO PLANE "seat"',
        'CUT POCKET 60 X 60 DEEP 4 ON PLANE "lean"',
      );
    const volume = (v: { volume: number }) => `CHECK VOLUME ${v.volume.toFixed(2)}`;
    const offset = await find(stepped("-12"), stepped("-13"), volume);
    expect(offset.list[0]).toMatchObject({
      row: 2,
      field: 'plane "seat" Offset',
      from: "-13",
      to: "-12",
      agrees: true,
    });
    const tilted = await find(stepped("-12"), stepped("-12", "10"), volume);
    expect(tilted.list[0]).toMatchObject({ row: 3, field: 'plane "lean" Angle', from: "10", to: "20", agrees: true });
  });
  it("finds 5 holes for 6 from the mass", async () => {
    const { list } = await find(plate(".25"), plate(".25", "7", "5X"), (v) => `CHECK MASS ${v.mass.toFixed(1)} g`);
    expect(list[0]).toMatchObject({
      kind: "one-instance-missing",
      row: 4,
      field: "count",
      from: "5",
      to: "6",
      agrees: true,
    });
  });
  it("finds a length of 8 for 7 from the volume", async () => {
    const { list } = await find(plate(".25", "7"), plate(".25", "8"), (v) => `CHECK VOLUME ${v.volume.toFixed(2)}`);
    expect(list[0]).toMatchObject({ row: 1, field: "length", from: "8", to: "7", agrees: true });
  });
  it("finds a radius taken for a diameter", async () => {
    const { list } = await find(
      disc(),
      mm('MATERIAL "steel 1018"', "LEAVE ROUND ⌀80 X 16", "CUT POCKET ⌀12 THRU", "CUT 8X ⌀6.6 THRU ON BC 60"),
      (v) => `CHECK MASS ${v.mass.toFixed(1)} g`,
    );
    expect(list[0]).toMatchObject({ kind: "radius-for-diameter", row: 2, from: "12", to: "24" });
  });
  it("finds the wrong density", async () => {
    const { list } = await find(
      plate(".25", "7", "6X", 'MATERIAL "steel 1018"'),
      plate(".25"),
      (v) => `CHECK MASS ${v.mass.toFixed(0)} g`,
    );
    expect(list[0]).toMatchObject({ kind: "wrong-density", row: null, from: "2.7", to: "7.87", agrees: true });
  });
  it("finds inches for millimetres on one number", async () => {
    const { list } = await find(
      mm("LEAVE BLOCK 120 X 80 X 12.7", "CUT 2X ⌀8 THRU AT -40,0 40,0"),
      mm("LEAVE BLOCK 120 X 80 X .5", "CUT 2X ⌀8 THRU AT -40,0 40,0"),
      (v) => `CHECK VOLUME ${v.volume.toFixed(0)}`,
    );
    expect(list[0]).toMatchObject({ kind: "wrong-unit", row: 1, field: "height", to: "12.7" });
  });
  it("finds a row typed twice and one switched off", async () => {
    const twice = await find(
      disc("CUT POCKET ⌀40 DEEP 3"),
      disc("CUT POCKET ⌀40 DEEP 3", "CUT POCKET ⌀40 DEEP 3 ON BOTTOM"),
      (v) => `CHECK VOLUME ${v.volume.toFixed(0)}`,
    );
    expect(twice.list.slice(0, 3).some((e) => e.kind === "doubled-row" && (e.row === 5 || e.row === 4))).toBe(true);
    const missing = await find(
      disc("CUT CHAMFER 2 OUTER TOP"),
      disc("OFF CUT CHAMFER 2 OUTER TOP"),
      (v) => `CHECK VOLUME ${v.volume.toFixed(0)}`,
    );
    expect(missing.list[0]).toMatchObject({ kind: "missing-row", row: 4 });
  });
  it("finds through taken for a depth, and a depth for through", async () => {
    const deep = await find(
      disc("CUT 4X ⌀5 THRU ON BC 40 FROM 45"),
      disc("CUT 4X ⌀5 DEEP 9 FLAT ON BC 40 FROM 45"),
      (v) => `CHECK VOLUME ${v.volume.toFixed(0)}`,
    );
    expect(deep.list.slice(0, 2)).toContainEqual(
      expect.objectContaining({ kind: "through-for-depth", row: 4, to: "THRU" }),
    );
    const thru = await find(
      disc("CUT 4X ⌀5 DEEP 9 FLAT ON BC 40 FROM 45"),
      `${disc("CUT 4X ⌀5 THRU ON BC 40 FROM 45")}\n#3 9 DEEP`,
      (v) => `CHECK VOLUME ${v.volume.toFixed(0)}`,
    );
    expect(thru.list[0]).toMatchObject({ kind: "depth-for-through", row: 4, to: "DEEP #3 FLAT" });
  });
  it("finds swapped digits and a neighbouring fraction", async () => {
    const swapped = await find(
      inch("LEAVE BLOCK 5.24 X 3 X 1", "CUT ⌀1 THRU"),
      inch("LEAVE BLOCK 5.42 X 3 X 1", "CUT ⌀1 THRU"),
      (v) => `CHECK VOLUME ${v.volume.toFixed(2)}`,
    );
    expect(swapped.list[0]).toMatchObject({ kind: "swapped-digits", from: "5.42", to: "5.24" });
    const beside = await find(
      inch("LEAVE BLOCK 5 X 3 X 1", "CUT 4X ⌀9/16 THRU GRID 2 2 BY 3 2"),
      inch("LEAVE BLOCK 5 X 3 X 1", "CUT 4X ⌀5/8 THRU GRID 2 2 BY 3 2"),
      (v) => `CHECK VOLUME ${v.volume.toFixed(3)}`,
    );
    expect(beside.list[0]).toMatchObject({ kind: "neighbouring-fraction", row: 2, from: "5/8", to: "9/16" });
  });
  it("finds a misread balloon, and the other end of its tolerance", async () => {
    const card = (d: string) =>
      inch(`#1 ⌀${d} +.010 -0`, "#2 .875 ±.005", "LEAVE ROUND ⌀3 X #2", "CUT POCKET ⌀#1 DEEP .5");
    const read = await find(card("1.750"), card("1.250"), (v) => `CHECK VOLUME ${v.volume.toFixed(3)}`);
    expect(read.list[0]).toMatchObject({ row: 2, balloon: 1, from: "1.250", to: "1.750" });
    const end = await find(card("1.260"), card("1.250"), (v) => `CHECK VOLUME ${v.volume.toFixed(4)}`);
    expect(end.list.slice(0, 3)).toContainEqual(
      expect.objectContaining({ kind: "other-end-of-tolerance", balloon: 1, to: "1.26" }),
    );
  });
  it("counts holes and edges of the part", async () => {
    const { list } = await find(plate(".25"), plate(".25", "7", "5X"), () => "CHECK HOLES 6");
    expect(list[0]).toMatchObject({ kind: "one-instance-missing", row: 4, to: "6", value: 6 });
  });
  it("prefers the slip that mends every check value at once", async () => {
    const right = await evaluateJob(jobOf(plate(".25")));
    const job = jobOf(
      `${plate(".25", "7", "5X")}\nCHECK MASS ${right.part!.mass!.toFixed(1)} g\nCHECK AREA TOP ${(right.part!.faceArea.top / 645.16).toFixed(2)}`,
    );
    const found = await explain(job, await evaluateJob(job), await kernel(), { until: Infinity });
    expect(found).toHaveLength(2);
    for (const f of found) expect(f.explanations[0]).toMatchObject({ field: "count", to: "6", alsoMends: 1 });
  });
  it("gives edits that mend the job when they are tried", async () => {
    const { job, list, evaluation } = await find(
      plate(".50"),
      plate(".25"),
      (v) => `CHECK AREA TOP ${v.top.toFixed(3)}`,
    );
    const tried = applyEdits(job, list[0].edits);
    if (!tried.ok) throw new Error(tried.problems[0].message);
    const after = await evaluateJob(tried.value.job as Job);
    expect(after.checks[0].agrees).toBe(true);
    expect(after.checks[0].actual).toBeCloseTo(list[0].value, 9);
    expect(evaluation.checks[0].agrees).toBe(false);
  });
  it("has nothing to say where all agrees, and claims nothing where no slip fits", async () => {
    const fine = jobOf(`${plate(".25")}\nCHECK SIZE X 7`);
    expect(await explain(fine, await evaluateJob(fine), await kernel())).toEqual([]);
    const wild = jobOf(`${plate(".25")}\nCHECK VOLUME 12345`);
    expect(
      (await explain(wild, await evaluateJob(wild), await kernel(), { until: Infinity }))[0].explanations.filter(
        (e) => e.agrees,
      ),
    ).toEqual([]);
  });
});

describe("other readings of a number", () => {
  const texts = (text: string, value: number, unit: "in" | "mm" = "in") =>
    readings(text, value, "length", unit).map((r) => r.text);
  it("keeps the form it was typed in", () => {
    expect(texts(".250", 0.25)).toEqual(expect.arrayContaining([".500", ".125", ".520", "6.350", ".150"]));
    expect(texts("1-1/2", 1.5)).toEqual(expect.arrayContaining(["3", "3/4", "1-33/64", "1-5/8"]));
    expect(texts("24", 24, "mm")).toEqual(
      expect.arrayContaining(["48", "12", "42", "25", "23", "609.6", "240", "2.4"]),
    );
  });
  it("never repeats a value or gives the number itself", () => {
    for (const [t, v] of [
      [".25", 0.25],
      ["1.875", 1.875],
      ["3/8", 0.375],
    ] as const) {
      const r = readings(t, v, "diameter", "in");
      expect(new Set(r.map((x) => x.value.toFixed(7))).size).toBe(r.length);
      expect(r.every((x) => Math.abs(x.value - v) > 1e-9 && x.value > 0)).toBe(true);
    }
  });
});

describe("outlines", () => {
  const plate = (r: string, slot: string) =>
    mm(
      "#1 80",
      'OUTLINE "plate"',
      "RECTANGLE #1 X 50",
      `ROUND ${r} ALL`,
      'CUTOUT "slot"',
      "END",
      'OUTLINE "slot"',
      `SLOT ${slot} X 12 AT 10,0`,
      "END",
      'LEAVE PRISM "plate" X 8',
    );
  it("are looked through too: their own numbers and the balloons they are made of", async () => {
    const round = await find(plate("12", "30"), plate("6", "30"), (v) => `CHECK AREA TOP ${v.top.toFixed(2)}`);
    expect(round.list[0]).toMatchObject({
      row: 1,
      field: 'outline "plate" line 2 size',
      from: "6",
      to: "12",
      agrees: true,
    });
    const slot = await find(plate("6", "42"), plate("6", "24"), (v) => `CHECK VOLUME ${v.volume.toFixed(0)}`);
    expect(slot.list.slice(0, 3)).toContainEqual(
      expect.objectContaining({ kind: "swapped-digits", field: 'outline "slot" line 1 length', to: "42" }),
    );
    const balloon = await find(
      plate("6", "30").replace("#1 80", "#1 86"),
      plate("6", "30"),
      (v) => `CHECK VOLUME ${v.volume.toFixed(0)}`,
    );
    expect(balloon.list.slice(0, 2)).toContainEqual(expect.objectContaining({ balloon: 1, from: "80", to: "86" }));
  });
});

describe("answers as they come", () => {
  it("the first before the last number was looked at, and the last list is the whole", async () => {
    const right = await evaluateJob(jobOf(disc()));
    const wrong = disc().replace("X 16", "X 8");
    const job = jobOf(`${wrong}\nCHECK VOLUME ${right.part!.volume.toFixed(2)}`);
    const steps: string[] = [];
    const told: number[] = [];
    const whole = await explain(job, await evaluateJob(job), await kernel(), {
      until: Infinity,
      progress: () => steps.push("looked"),
      found: (sofar) => {
        told.push(steps.length);
        steps.push(sofar[0].explanations[0].field);
      },
    });
    expect(whole[0].explanations[0]).toMatchObject({
      kind: "half-for-whole",
      row: 1,
      field: "height",
      to: "16",
      agrees: true,
    });
    expect(told[0]).toBeLessThan(steps.length / 3);
    expect(steps[told[0]]).toBe("height");
  });
  it("finds a height that lets other rows cut through, which no small change forecasts", async () => {
    const part = (h: string) =>
      mm(
        'MATERIAL "steel 1018"',
        `LEAVE ROUND ⌀80 X ${h}`,
        "CUT POCKET ⌀60 DEEP 11 ON BOTTOM",
        "CUT ⌀20 THRU",
        "CUT 6X ⌀6 THRU CBORE ⌀10 DEEP 3 ON BC 70",
      );
    const { list } = await find(part("16"), part("8"), (v) => `CHECK VOLUME ${v.volume.toFixed(2)}`);
    expect(list[0]).toMatchObject({ kind: "half-for-whole", field: "height", to: "16", agrees: true });
  });
  it("leaves engraving out of what it computes and still tells the figure to its last digit", async () => {
    const part = (h: string) =>
      mm(
        'MATERIAL "steel 1018"',
        'OUTLINE "mark"',
        "START -10,0",
        "LINE TO X 10",
        "END",
        `LEAVE BLOCK 40 X 20 X ${h}`,
        'CUT ENGRAVE "mark" V 60 DEEP .2',
      );
    const { list } = await find(part("10"), part("5"), (v) => `CHECK VOLUME ${v.volume.toFixed(3)}`);
    const height = list.find((x) => x.field === "height" && x.to === "10")!;
    expect(height.agrees).toBe(true);
    expect(Math.abs(height.residual)).toBeLessThan(1e-3);
  });
});

describe("what is doubted first and last", () => {
  const explained = async (card: string, options = {}) => {
    const job = jobOf(card);
    return (await explain(job, await evaluateJob(job), await kernel(), { until: Infinity, ...options }))[0];
  };
  it("a recess whose two balloons nothing uses comes first", async () => {
    const base = ["#1 ⌀80", "#2 16", "#3 ⌀36", "#4 4.5", "LEAVE ROUND ⌀#1 X #2", "CUT 6X ⌀8 THRU ON BC 60"];
    const right = await evaluateJob(jobOf(mm(...base, "CUT ⌀#3 DEEP #4 FLAT")));
    const found = await explained(mm(...base, `CHECK VOLUME ${right.part!.volume.toFixed(1)}`));
    expect(found.explanations[0]).toMatchObject({ kind: "missing-row", to: "⌀#3 DEEP #4", agrees: true });
  });
  it("a number mistyped for a balloon that nothing uses comes before all other readings", async () => {
    const card = (deep: string) => inch("#1 .625", "LEAVE BLOCK 3 X 2 X 1", `CUT POCKET 1.5 X 1 R.25 DEEP ${deep}`);
    const right = await evaluateJob(jobOf(card("#1")));
    const found = await explained(`${card(".652")}\nCHECK VOLUME ${(right.part!.volume / 25.4 ** 3).toFixed(4)}`);
    expect(found.explanations[0]).toMatchObject({ row: 2, from: ".652", to: "#1", agrees: true });
  });
  it("what is typed as printed and proved comes last", async () => {
    // Either length or width, at 40 for 50, would explain the weight: the width is the print's and proved.
    const card = mm("#1 50 ±.1", "LEAVE BLOCK 50 X #1 X 10", "CHECK VOLUME 20000");
    const { explanations } = await explained(card);
    const [first] = explanations;
    expect(first).toMatchObject({ row: 1, from: "50", agrees: true });
    expect(first.balloon).toBeUndefined();
    const proved = explanations.filter((x) => x.balloon === 1);
    expect(proved.length).toBeGreaterThan(0);
    expect(Math.min(...proved.map((x) => x.rank))).toBeGreaterThan(first.rank);
  });
  it("ends in time with what it has, and says what was not looked at", async () => {
    const card = mm(
      "LEAVE BLOCK 90 X 60 X 20",
      ...Array.from({ length: 8 }, (_, i) => `CUT POCKET 8 X 40 R2 DEEP ${4 + i} AT ${-40 + 10 * i},0`),
      "CHECK VOLUME 91234.5",
    );
    const found = await explained(card, { until: 400 });
    expect(found.left).toBeGreaterThan(0);
    const whole = await explained(mm("LEAVE BLOCK 90 X 60 X 20", "CHECK VOLUME 100000"));
    expect(whole.left).toBe(0);
  });
});
