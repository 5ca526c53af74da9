import fc from "fast-check";
import { readCard, writeCard } from "../callout";
import { numberScope } from "../engine/numbers";
import { evaluateOutlines, type EvaluatedOutline } from "./evaluateOutline";

const all = (...lines: string[]): Record<string, EvaluatedOutline> => {
  const { job, errors } = readCard(["UNIT mm", ...lines].join("\n"));
  if (errors.length) throw new Error(`${errors[0].line}: ${errors[0].message}; ${errors[0].expected}`);
  return Object.fromEntries([...evaluateOutlines(job.outlines, numberScope(job)).values()].map((e) => [e.name, e]));
};
const one = (...lines: string[]) => all('OUTLINE "o"', ...lines, "END").o;
const { PI } = Math;

describe("shapes", () => {
  it.each<[string, number, number]>([
    ["CIRCLE ⌀20 AT 3,4", 100 * PI, 20 * PI],
    ["RECTANGLE 40 X 20", 800, 120],
    ["RECTANGLE 40 X 20 R5", 800 - (4 - PI) * 25, 80 + 10 * PI],
    ["SLOT 40 X 10", 300 + 25 * PI, 60 + 10 * PI],
    ["SLOT CENTRES 40 X 10 TURN 30", 400 + 25 * PI, 80 + 10 * PI],
    ["POLYGON 6 AF 24", (Math.sqrt(3) / 2) * 24 * 24, (6 * 24) / Math.sqrt(3)],
    ["POLYGON 5 AC 20", (5 / 2) * 100 * Math.sin((2 * PI) / 5), 10 * 10 * Math.sin(PI / 5)],
    ["STAR 5 OD 40 ID 16", 5 * 20 * 8 * Math.sin(PI / 5), 10 * Math.sqrt(400 + 64 - 320 * Math.cos(PI / 5))],
    ["RING OD 30 ID 20", PI * 125, 50 * PI],
    ["SEGMENT ⌀20 HEIGHT 4", 100 * Math.acos(0.6) - 6 * Math.sqrt(64), 20 * Math.acos(0.6) + 16],
    ["SEGMENT ⌀20 CHORD 20", 50 * PI, 10 * PI + 20],
    ["LINK ⌀20 AT 0,0 ⌀20 AT 30,0", 600 + 100 * PI, 60 + 20 * PI],
  ])("%s", (text, area, perimeter) => {
    const e = one(text);
    expect(e.problems).toEqual([]);
    expect([e.area, e.perimeter]).toEqual([expect.closeTo(area, 8), expect.closeTo(perimeter, 8)]);
    expect(e.defects).toEqual([]);
  });
  it("a link of two circles has the tangent length √(d² − (r₁ − r₂)²)", () => {
    const e = one("LINK ⌀40 AT 0,0 ⌀10 AT 50,0"),
      phi = Math.acos(15 / 50),
      t = Math.sqrt(2500 - 225);
    expect(e.perimeter).toBeCloseTo(2 * t + 5 * 2 * phi + 20 * (2 * PI - 2 * phi), 8);
    expect(e.area).toBeCloseTo((20 + 5) * t + 25 * phi + 400 * (PI - phi), 8);
  });
  it("knows its centroid and box", () => {
    const e = one("SEGMENT ⌀20 HEIGHT 10");
    expect(e.centroid!.y).toBeCloseTo((4 * 10) / (3 * PI), 9);
    expect(e.box).toEqual({
      min: { x: expect.closeTo(-10, 9), y: expect.closeTo(0, 9) },
      max: { x: expect.closeTo(10, 9), y: expect.closeTo(10, 9) },
    });
    expect(one("RECTANGLE 40 X 20 CORNER AT 5,5", "CIRCLE ⌀10 AT 15,15").centroid!.x).toBeCloseTo(
      (800 * 25 - 25 * PI * 15) / (800 - 25 * PI),
      9,
    );
  });
  it.each([
    ["RING OD 20 ID 30", /not smaller/],
    ["SLOT 5 X 10", /shorter/],
    ["STAR 1 OD 20 ID 10", /2 to 720/],
    ["LINK ⌀40 AT 0,0 ⌀10 AT 5,0", /inside the other/],
    ["SEGMENT ⌀20 CHORD 21", /longer/],
    ["RECTANGLE 10 X 10 R6", /at most 5/],
    ['USE "nix"', /no outline/],
    ['USE "o"', /in a circle/],
    ["CIRCLE ⌀0", /more than zero/],
    ["OFFSET -50", /nothing is left|./],
  ])("%s is refused", (text, why) => {
    const e = one("CIRCLE ⌀6 AT 500,0", text);
    if (text.startsWith("OFFSET")) expect(e.problems[0].message).toMatch(/nothing is left/);
    else expect(e.problems[0].message).toMatch(why);
  });
});

describe("corners", () => {
  it("are rounded and chamfered where lines and arcs meet", () => {
    expect(one("RECTANGLE 40 X 20", "ROUND 5 ALL").area).toBeCloseTo(800 - (4 - PI) * 25, 8);
    expect(one("RECTANGLE 40 X 20", "CHAMFER 2 ALL").area).toBeCloseTo(800 - 8, 8);
    expect(
      one("START 0,0", "LINE TO X 40", "LINE TO Y 20", "LINE TO X 0", "CLOSE", "ROUND 5 AT P1 P2").area,
    ).toBeCloseTo(800 - (2 - PI / 2) * 25, 8);
    const l = ["START 0,0", "LINE TO X 40", "LINE TO Y 15", "LINE TO X 15", "LINE TO Y 40", "LINE TO X 0", "CLOSE"];
    expect(one(...l, "ROUND 4 INSIDE").area).toBeCloseTo(40 * 15 + 15 * 25 + (1 - PI / 4) * 16, 8);
    expect(one(...l, "ROUND 4 OUTSIDE").area).toBeCloseTo(975 - 5 * (1 - PI / 4) * 16, 8);
    // Half a disc: the round touches the line and the arc, r = 2 in the corner.
    const d = one("SEGMENT ⌀40 HEIGHT 20", "ROUND 2 ALL");
    expect(d.problems).toEqual([]);
    expect(d.region[0].filter((s) => s.kind === "arc" && Math.abs(s.radius - 2) < 1e-9)).toHaveLength(2);
    expect(d.area).toBeLessThan(200 * PI);
  });
  it("say the largest that fits, and can be switched off", () => {
    const e = one("RECTANGLE 40 X 20", "ROUND 12 ALL");
    expect(e.problems[0]).toMatchObject({ item: 1, message: expect.stringMatching(/the largest that does is 10 mm/) });
    expect(one("RECTANGLE 40 X 20", "OFF ROUND 5 ALL").area).toBeCloseTo(800, 9);
  });
  it("are relieved in three ways", () => {
    const pocket = (p: string) => one("RECTANGLE 40 X 20", `RELIEF 6 ${p} ALL`).area - 800;
    expect(pocket("CORNER")).toBeCloseTo(4 * 0.75 * 9 * PI, 7);
    expect(pocket("WALL")).toBeCloseTo(4 * 0.5 * 9 * PI, 7);
    // The circle through the corner on the bisector: half of it less the square's two triangles.
    expect(pocket("BISECTOR")).toBeCloseTo(4 * ((9 * PI) / 2 - 9), 7);
  });
  it("shifted along a wall they stay tangent to the other wall, whatever their angle", () => {
    // Corners of 60 degrees; the last wall comes in at P0 and the first goes out along y = 0.
    const triangle = ["START 0,0", "LINE TO 40,0", "LINE L 40 A 120", "CLOSE"];
    const relieved = one(...triangle, "RELIEF 6 WALL AT P0");
    expect(relieved.problems).toEqual([]);
    // Nothing is taken below y = 0; the circle of radius 3 about (0, 3) stands over the other wall by its segment.
    expect(relieved.box!.min.y).toBeCloseTo(0, 9);
    expect(relieved.box!.min.x).toBeCloseTo(-3, 9);
    const chord = 2 * 3 * Math.sin(PI / 3);
    const beyond = 9 * PI - (9 / 2) * ((2 * PI) / 3 - Math.sin((2 * PI) / 3));
    expect(chord).toBeCloseTo(Math.sqrt(27), 9);
    expect(relieved.area - 400 * Math.sqrt(3)).toBeCloseTo(beyond, 6);
  });
});

describe("derived outlines", () => {
  it("repeat, mirror, offset and combine, and follow what they are made of", () => {
    const parts = (w: string) =>
      all(
        'OUTLINE "tooth"',
        `RECTANGLE ${w} X 14 AT 0,40`,
        "ROUND 3 OUTSIDE",
        "END",
        'OUTLINE "disc"',
        "CIRCLE ⌀80",
        "END",
        'OUTLINE "wheel"',
        'USE "tooth"',
        "REPEAT 10X",
        'JOIN "disc"',
        "END",
      );
    const over = (w: number) => {
      const half = w / 2,
        alpha = Math.asin(half / 40);
      return 10 * (w * 47 - half * 40 * Math.cos(alpha) - 1600 * alpha - (2 - PI / 2) * 9);
    };
    for (const w of [8, 10]) expect(parts(String(w)).wheel.area).toBeCloseTo(1600 * PI + over(w), 6);
    expect(parts("8").wheel.region).toHaveLength(1);
    expect(one("CIRCLE ⌀6 AT 20,0", "REPEAT 6X SKIP 2 5").region).toHaveLength(4);
    expect(one("CIRCLE ⌀6", "REPEAT GRID 3 2 BY 10 20 SKIP 4").region).toHaveLength(5);
    expect(one("CIRCLE ⌀6", "REPEAT LINE 4 BY 5").region).toHaveLength(1);
    expect(one("RECTANGLE 10 X 10 AT 5,0", "MIRROR Y KEEP").area).toBeCloseTo(200, 9);
    expect(one("RECTANGLE 10 X 4 AT 20,10", "MIRROR 0,0 TO 10,10").box!.min).toEqual({
      x: expect.closeTo(8, 9),
      y: expect.closeTo(15, 9),
    });
    expect(one("RECTANGLE 40 X 20", "OFFSET 3").area).toBeCloseTo(800 + 360 + 9 * PI, 7);
    expect(one("RECTANGLE 40 X 20", "OFFSET 2 BOTH").area).toBeCloseTo(800 + 240 + 4 * PI - 36 * 16, 7);
    expect(one("START 0,0", "LINE TO X 30", "OFFSET 4 BOTH").area).toBeCloseTo(240 + 16 * PI, 7);
  });
  it("find open ends, crossings, elements of no length and those on one another", () => {
    const kinds = (...l: string[]) => one(...l).defects.map((d) => d.kind);
    expect(kinds("START 0,0", "LINE TO X 40", "LINE TO Y 20")).toEqual(["open-end", "open-end"]);
    expect(kinds("START 0,0", "LINE TO 40,40", "LINE TO X 0", "LINE TO 40,0", "CLOSE")).toEqual(["self-crossing"]);
    expect(kinds("START 0,0", "LINE TO X 40", "LINE TO X 20", "LINE TO Y 20", "CLOSE")).toContain("overlap");
  });
  it("tell dimensions that contradict with the lines they come from", () => {
    const e = one("START 0,0", "LINE TO X 40", "LINE TO Y 20", "LINE TO X 0", "CLOSE", "ANGLE 2 80");
    expect(e.wire!.conflicts[0]).toMatchObject({ drop: expect.arrayContaining([5]) });
  });
});

describe("outlines in the card", () => {
  it("come back to the letter", () => {
    const text =
      'JOB "x" REV A\nUNIT mm\n#1 40\nOUTLINE "a"\nSTART 0,0\nLINE TO X #1\nLINE BY 0,20 NEAR 40,20\nLINE L 10 A 150 TANGENT\nARC TO 5,20 R 12.5 CW LONG\nARC CENTRE 1,2 SWEEP 90 CCW\nCLOSE\nHORIZONTAL 1\nPARALLEL 1 3\nSYMMETRIC P1 P2 ABOUT X\nMIDPOINT P1 OF 3\nDISTANCE P1 3 20\nANGLE 1 2 60\nANGLE 1 30\nRADIUS 4 10\nROUND 2 AT P1 P2\nOFF CHAMFER 1 ALL\nFULLROUND P2 P3\nRELIEF 6 BISECTOR INSIDE\nEND\nOUTLINE "b"\nRECTANGLE 10 X 5 R1 CORNER AT 1,2 TURN 30\nUSE "a" AT 5,5\nREPEAT 10X AROUND 1,1 SKIP 2 3\nREPEAT GRID 2 3 BY 4 5\nMIRROR 0,0 TO 1,1 KEEP\nOFFSET -2\nJOIN "a"\nCUTOUT "a" TURN 90\nOVERLAP "a"\nEND\nLEAVE PRISM "b" X 12\nCUT 2X POCKET "a" DEEP 3 LINE 2 BY 20 AT 0,0\n';
    const read = readCard(text);
    expect(read.errors).toEqual([]);
    expect(writeCard(read.job)).toBe(text);
    expect([...read.outlineLines.values()][0].slice(0, 3)).toEqual([5, 6, 7]);
  });
  it.each<[string, number, RegExp]>([
    ["LINE TO", 8, /coordinate/],
    ["LINE FOO 3", 6, /TO, BY/],
    ["ARC R", 6, /radius/],
    ["PARALLEL 1", 11, /another element/],
    ["WOBBLE 3", 1, /START/],
    ["ROUND 3 AT 5", 13, /corners/],
    ["STAR 5 OD 3", 12, /ID/],
    ["DISTANCE P1 P2", 15, /value/],
    ["SYMMETRIC P1 P2", 16, /another/],
    ["POLYGON 6 20", 11, /AF/],
  ])("%s: column %d", (line, column, expected) => {
    const { errors } = readCard(`UNIT mm\nOUTLINE "o"\n${line}\nEND`);
    expect(errors).toEqual([expect.objectContaining({ line: 3, column, expected: expect.stringMatching(expected) })]);
  });
  it("want an end and a name of their own", () => {
    expect(readCard('UNIT mm\nOUTLINE "o"\nSTART 0,0').errors[0]).toMatchObject({ line: 2, expected: "END" });
    expect(readCard('UNIT mm\nOUTLINE "o"\nEND\nOUTLINE "O"\nEND').errors[0]).toMatchObject({
      line: 4,
      message: expect.stringMatching(/twice/),
    });
  });
});

describe("worked figures", () => {
  it("a plate with a U cut-out whose end is a full round, and a circular bite in one edge", () => {
    const u = (end: string[]) =>
      one(
        "START 0,0",
        "LINE TO X 100",
        "LINE TO Y 60",
        "LINE TO X 70",
        ...end,
        "LINE TO X 0",
        "LINE TO Y 40",
        "ARC TO 0,20 R 12 CW",
        "CLOSE",
      );
    const bite = 144 * Math.asin(10 / 12) - 10 * Math.sqrt(44);
    const area = 6000 - 30 * 30 - (PI / 2) * 225 - bite;
    const byTangents = u(["LINE TO Y 30", "ARC TO 40,30 CW TANGENT", "LINE TO Y 60"]);
    expect([byTangents.wire!.freedom, byTangents.problems, byTangents.defects]).toEqual([0, [], []]);
    expect(byTangents.area).toBeCloseTo(area, 6);
    // The same end as a full round through the three lines of a square one.
    const square = one(
      "START 0,0",
      "LINE TO X 100",
      "LINE TO Y 60",
      "LINE TO X 70",
      "LINE TO Y 15",
      "LINE TO X 40",
      "LINE TO Y 60",
      "LINE TO X 0",
      "LINE TO Y 40",
      "ARC TO 0,20 R 12 CW",
      "CLOSE",
      "FULLROUND P4 P5",
    );
    expect(square.problems).toEqual([]);
    expect(square.area).toBeCloseTo(area, 6);
    // By its step it is the same line.
    const slot = ["START 0,0", "LINE TO X 40", "LINE TO Y 10", "LINE TO X 0", "CLOSE"];
    expect(one(...slot, "FULLROUND 2").area).toBeCloseTo(35 * 10 + (PI / 2) * 25, 9);
    expect(one(...slot, "FULLROUND 2").area).toBe(one(...slot, "FULLROUND P1 P2").area);
    expect(one(...slot, "FULLROUND 9").problems[0].message).toMatch(/9/);
    expect(
      one("START 0,0", "LINE TO X 40", "LINE TO Y 5", "LINE TO X 0", "CLOSE", "FULLROUND P1 P3").problems[0].message,
    ).toMatch(/no line runs/);
    expect(
      one("START 0,0", "LINE TO X 40", "LINE TO Y 90", "LINE TO X 0", "CLOSE", "FULLROUND P1 P2").problems[0].message,
    ).toMatch(/longer than the lines/);
  });
  it("a pocket with 5 mm corners and holes at the centres of its rounds", () => {
    const e = all(
      'OUTLINE "pocket"',
      "START -30,-20",
      "LINE TO X 30",
      "LINE TO Y 20",
      "LINE TO X -30",
      "CLOSE",
      "ROUND 5 ALL",
      "END",
      'OUTLINE "holes"',
      "CIRCLE ⌀4 AT -25,-15",
      "REPEAT GRID 2 2 BY 50 30",
      "END",
    );
    expect(e.pocket.area).toBeCloseTo(2400 - (4 - PI) * 25, 8);
    const centres = e.pocket.region[0].flatMap((s) =>
      s.kind === "arc" ? [`${s.centre.x.toFixed(9)},${s.centre.y.toFixed(9)}`] : [],
    );
    expect(
      new Set(
        e.holes.region.map((l) => {
          const s = l[0];
          return s.kind === "arc" ? `${s.centre.x.toFixed(9)},${s.centre.y.toFixed(9)}` : "";
        }),
      ),
    ).toEqual(new Set(centres));
  });
});

describe("any lines at all", () => {
  // What people type on the way is rarely right: every form with any numbers, in any order.
  const forms = [
    "START 0,0",
    "LINE TO X 40",
    "LINE BY 10,-5",
    "LINE L 20 A 30",
    "LINE TANGENT L 20",
    "ARC TO 10,10 R 10 CW",
    "ARC TO 10,10 CENTRE 0,10",
    "ARC TANGENT SWEEP 90 R 5",
    "LINE TO ?,20",
    "LINE TO X ⌀40",
    "CLOSE",
    "HORIZONTAL 2",
    "PARALLEL 1 3",
    "TANGENT 2 3",
    "SYMMETRIC P1 P2 ABOUT Y",
    "ON P2 X",
    "DISTANCE P1 P3 20",
    "ANGLE 1 2 60",
    "RADIUS 3 10",
    "CIRCLE ⌀20 AT 3,0",
    "RECTANGLE 40 X 20 R5",
    "SLOT 40 X 10",
    "STAR 5 OD 40 ID 18",
    "LINK ⌀20 AT 0,0 ⌀10 AT 30,0",
    "OFFSET 2",
    "OFFSET -3",
    "MIRROR Y KEEP",
    "REPEAT 7X",
    "REPEAT GRID 3 2 BY 20 15 SKIP 5",
    "ROUND 5 ALL",
    "CHAMFER 1 ALL",
    "RELIEF 4 INSIDE",
    "TRIM AT 10,0",
    "BREAK AT 10,0",
    "MEND .05",
    "EXTEND END BY 3",
  ];
  it("are computed or said to be wrong: nothing throws, and no figure is no number", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.constantFrom(...forms), fc.integer({ min: -5, max: 40 }), fc.integer({ min: 0, max: 3 })),
          { minLength: 1, maxLength: 9 },
        ),
        (picked) => {
          const lines = picked.map(([form, n, at]) => {
            let k = 0;
            return form.replace(/(?<![PC\d.])\d+(?![\d.]*X)/g, (m) => (k++ === at ? String(n) : m));
          });
          const { job } = readCard(["UNIT mm", 'OUTLINE "o"', ...lines, "END"].join("\n"));
          for (const e of evaluateOutlines(job.outlines, numberScope(job)).values())
            expect(
              [
                e.area,
                e.perimeter,
                ...(e.wire?.segments.flatMap((s) => (s.kind === "arc" ? [s.radius, s.sweep] : [s.from.x, s.to.y])) ??
                  []),
              ].every(Number.isFinite),
            ).toBe(true);
        },
      ),
      { numRuns: 120 },
    );
  });
});
