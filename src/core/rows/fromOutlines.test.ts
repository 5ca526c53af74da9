import { readCard, writeCard } from "../callout";
import { evaluateCard, jobOf, volumeOf } from "../../../tests/helpers/card";

const card = (outlines: string[], ...rows: string[]) => ['JOB "x" REV A', "UNIT mm", ...outlines, ...rows].join("\n");
const outline = (name: string, ...lines: string[]) => [`OUTLINE "${name}"`, ...lines, "END"].join("\n");
const failure = async (text: string) => {
  const e = await evaluateCard(text);
  return e.solved.rows.find((r) => r.state === "failed")?.message ?? "";
};

describe("turned rows", () => {
  const shaft = outline(
    "shaft",
    "START ⌀0,0",
    "LINE TO X ⌀40",
    "LINE TO Y 10",
    "LINE TO X ⌀20",
    "LINE TO Y 50",
    "LINE TO X ⌀0",
    "CLOSE",
  );

  it("turn a half profile typed in diameters: two cylinders", async () => {
    expect(await volumeOf(card([shaft], 'LEAVE TURNED "shaft"'))).toBeCloseTo(Math.PI * (400 * 10 + 100 * 40), 4);
  });

  it("obey Pappus for a section that stands off the axis, all round and in part", async () => {
    // A disc of ⌀10 at radius 30: V = 2π R · A.
    const torus = outline("o", "CIRCLE ⌀10 AT 30,12");
    expect(await volumeOf(card([torus], 'LEAVE TURNED "o"'))).toBeCloseTo(2 * Math.PI * 30 * Math.PI * 25, 3);
    expect(await volumeOf(card([torus], 'LEAVE TURNED "o" SWEEP 90'))).toBeCloseTo(
      (Math.PI / 2) * 30 * Math.PI * 25,
      3,
    );
  });

  it("close an open profile to the axis", async () => {
    const open = outline("p", "START ⌀30,0", "LINE TO Y 12", "LINE TO ⌀10,20");
    // A cylinder and a frustum of a cone.
    expect(await volumeOf(card([open], 'LEAVE TURNED "p"'))).toBeCloseTo(
      Math.PI * 225 * 12 + (Math.PI * 8 * (225 + 75 + 25)) / 3,
      4,
    );
  });

  it("cut an open profile off the outside, or to the axis as a bore", async () => {
    const step = outline("step", "START ⌀24,30", "LINE TO Y 18", "LINE TO X ⌀90");
    const all = Math.PI * 900 * 30;
    expect(await volumeOf(card([step], "LEAVE ROUND ⌀60 X 30", 'CUT TURNED "step"'))).toBeCloseTo(
      all - Math.PI * (900 - 144) * 12,
      4,
    );
    const bore = outline("bore", "START ⌀24,30", "LINE TO Y 18", "LINE TO X ⌀10", "LINE TO Y 0");
    expect(await volumeOf(card([bore], "LEAVE ROUND ⌀60 X 30", 'CUT TURNED "bore" BORE'))).toBeCloseTo(
      all - Math.PI * (144 * 12 + 25 * 18),
      4,
    );
    // A closed profile is taken as it is: an O-ring groove of half a circle.
    const groove = outline("groove", "CIRCLE ⌀4 AT 30,15");
    const half = Math.PI * 2 * 2 * 0.5,
      centroid = 30 - (4 * 2) / (3 * Math.PI);
    expect(all - (await volumeOf(card([groove], "LEAVE ROUND ⌀60 X 30", 'CUT TURNED "groove"')))).toBeCloseTo(
      2 * Math.PI * centroid * half,
      3,
    );
  });

  it("say what is wrong with a profile", async () => {
    expect(await failure(card([outline("p", "CIRCLE ⌀10 AT 2,0")], 'LEAVE TURNED "p"'))).toMatch(
      /crosses its axis: x comes to -3 mm/,
    );
    expect(await failure(card([outline("p", "START 5,0", "LINE TO 5,9")], 'LEAVE TURNED "p" SWEEP 400'))).toMatch(
      /at most 360/,
    );
    expect(await failure(card([], 'LEAVE TURNED "nothing"'))).toMatch(/there is no outline "nothing"/);
  });

  it("offer planes and measurable faces: a hole in the top of a turned boss, its diameter proved", async () => {
    const e = await evaluateCard(
      card(
        [
          "#1 ⌀40 ±.1",
          "#2 ⌀20 ±.1",
          "#3 50 ±.2",
          outline(
            "shaft",
            "START ⌀0,0",
            "LINE TO X ⌀#1",
            "LINE TO Y 10",
            "LINE TO X ⌀#2",
            "LINE TO Y #3",
            "LINE TO X ⌀0",
            "CLOSE",
          ),
        ],
        'LEAVE TURNED "shaft"',
        "CUT ⌀6 DEEP 12 FLAT",
      ),
    );
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok"]);
    expect(e.solved.rows[1].removed).toBeCloseTo(Math.PI * 9 * 12, 5);
    expect(e.ledger.map((l) => [l.number, l.state, l.measured && Number(l.measured.toFixed(6))])).toEqual([
      [1, "proved", 40],
      [2, "proved", 20],
      [3, "proved", 50],
    ]);
  });
});

describe("engraving", () => {
  const block = "LEAVE BLOCK 80 X 40 X 10";
  const removed = async (lines: string[], v: number, deep: number) => {
    const e = await evaluateCard(card([outline("e", ...lines)], block, `CUT ENGRAVE "e" V ${v} DEEP ${deep}`));
    expect(e.solved.rows[1].message).toBe("");
    return e.solved.rows[1].removed;
  };

  it("gives its width by its depth: a line with round ends", async () => {
    const d = 0.5,
      w = d * Math.tan(Math.PI / 6);
    expect(await removed(["START -20,0", "LINE TO 20,0"], 60, d)).toBeCloseTo(
      40 * w * d + (Math.PI * w * w * d) / 3,
      6,
    );
  });

  it("goes round a circle and round smooth corners without a mark", async () => {
    expect(await removed(["CIRCLE ⌀20"], 90, 0.4)).toBeCloseTo(2 * Math.PI * 10 * 0.4 * 0.4, 6);
    expect(await removed(["RECTANGLE 40 X 20 R5"], 90, 0.4)).toBeCloseTo((80 + 2 * Math.PI * 5) * 0.16, 5);
  });

  it("mitres inside and rounds outside a sharp corner", async () => {
    const d = 0.6,
      w = d;
    // Triangle area times length, less the overlap d w²/3 and plus a quarter of a cone at each corner.
    expect(await removed(["RECTANGLE 40 X 20"], 90, d)).toBeCloseTo(
      120 * w * d - (4 * d * w * w) / 3 + (Math.PI * w * w * d) / 3,
      5,
    );
  });

  it("writes a letter about as wide as its strokes are long", async () => {
    const d = 0.1,
      w = d * Math.tan(Math.PI / 6),
      e = await evaluateCard(card([outline("t", 'TEXT "I" HEIGHT 8')], block, `CUT ENGRAVE "t" V 60 DEEP ${d}`));
    expect(e.solved.rows[1].removed / (e.outlines[0].perimeter * w * d)).toBeCloseTo(1, 1);
  });

  it("refuses a cutter without a point", async () => {
    expect(await failure(card([outline("e", "CIRCLE ⌀9")], block, 'CUT ENGRAVE "e" V 180 DEEP .1'))).toMatch(
      /between 0 and 180/,
    );
  });
});

describe("a hole across a neck", () => {
  it("is as deep as the neck is wide, not as the body before it", async () => {
    const neck = outline(
      "n",
      "START ⌀0,0",
      "LINE TO X ⌀54",
      "LINE TO Y 30",
      "LINE TO X ⌀20",
      "LINE TO Y 60",
      "LINE TO X ⌀0",
      "CLOSE",
    );
    const found = (
      await evaluateCard(card([neck], 'LEAVE TURNED "n"', "CUT ⌀5 THRU AT 0,45 ON FRONT"))
    ).findings.filter((f) => f.rule === "drill-depth-ratio");
    expect(found.map((f) => [f.severity, f.value])).toEqual([["note", expect.closeTo(4, 1)]]);
  });
});

describe("broken edges", () => {
  it("are not asked of an engraved line, and are of a turned taper", async () => {
    const lines = [
      "EDGES BREAK 0.3",
      outline("e", "CIRCLE ⌀12"),
      outline("taper", "START ⌀0,0", "LINE TO X ⌀30", "LINE TO ⌀20,20", "LINE TO X ⌀0", "CLOSE"),
    ];
    const count = async (...rows: string[]) =>
      (await evaluateCard(card(lines, ...rows))).findings.filter((f) => f.rule === "edge-break").map((f) => f.value);
    expect(await count("LEAVE BLOCK 40 X 30 X 10", "CUT BREAK 0.3 ALL SHARP", 'CUT ENGRAVE "e" V 60 DEEP .3')).toEqual(
      [],
    );
    expect(await count('LEAVE TURNED "taper"')).toEqual([2]);
  });
});

describe("an open chain", () => {
  const bite = outline("bite", "START -10,-40", "LINE TO Y -12", "LINE TO X 10", "LINE TO Y -40");

  it("cuts to the edge, on the side that is said", async () => {
    const e = await evaluateCard(
      card([bite], "LEAVE BLOCK 100 X 60 X 20", 'CUT POCKET "bite" RIGHT DEEP 5', 'CUT POCKET "bite" RIGHT THRU'),
    );
    expect(e.solved.rows.map((r) => Math.round(r.removed * 1e6) / 1e6).slice(1)).toEqual([20 * 18 * 5, 20 * 18 * 15]);
    const left = await evaluateCard(card([bite], "LEAVE BLOCK 100 X 60 X 20", 'CUT POCKET "bite" LEFT DEEP 5'));
    expect(left.solved.rows[1].removed).toBeCloseTo((6000 - 360) * 5, 5);
  });

  it("may end on a round edge; an end inside goes on to where it leaves the part", async () => {
    const on = outline("flat", "START 20,-15", "LINE TO Y 15"),
      short = outline("flat", "START 20,-12", "LINE TO Y 15");
    const rows = ["LEAVE ROUND ⌀50 X 10", 'CUT POCKET "flat" RIGHT DEEP 4'];
    const e = await evaluateCard(card([on], ...rows));
    // The segment beyond x 20 of a circle of radius 25.
    const half = Math.acos(20 / 25);
    expect(e.solved.rows[1].removed).toBeCloseTo(625 * (half - Math.sin(half) * Math.cos(half)) * 4, 4);
    const prolonged = await evaluateCard(card([short], ...rows));
    expect(prolonged.solved.rows[1].removed).toBeCloseTo(e.solved.rows[1].removed, 6);
    expect(await failure(card([on], "LEAVE ROUND ⌀50 X 10", 'CUT POCKET "flat" DEEP 4'))).toMatch(/LEFT or RIGHT/);
  });
});

describe("as text", () => {
  it("reads as it is written", () => {
    const rows = [
      'LEAVE TURNED "p" SWEEP 90 AT 1,2,3',
      'CUT TURNED "p" BORE AT 1,2',
      'CUT TURNED "p"',
      'CUT ENGRAVE "p" V 60 DEEP .2 TURN 30 GRID 2 2 BY 10 10 START 1 ON FRONT',
      'CUT POCKET "p" THRU LEFT TURN 5',
      'CUT 2X POCKET "p" DEEP 1 RIGHT AT 1,2 3,4 ON FLOOR OF 1',
    ];
    const text = `${card([outline("p", "CIRCLE ⌀4")], ...rows)}\n`;
    const { job, errors } = readCard(text);
    expect(errors).toEqual([]);
    expect(writeCard(job)).toBe(text);
    expect(writeCard(jobOf(writeCard(job)))).toBe(text);
  });
});
