import { loopArea, perimeter } from "../outline";
import { planPaths, type PathPlan } from "./plan";
import { evaluateJob, inch, jobOf, mm } from "../../../tests/helpers/card";

async function plans(card: string, cutters: { row: string; cutter: string }[] = []): Promise<PathPlan[]> {
  const job = jobOf(card);
  const e = await evaluateJob(job);
  return planPaths({ ...job, ...(cutters.length ? { cutters } : {}) }, e.solved.rows);
}
const block = "LEAVE BLOCK 100 X 60 X 20";

describe("the outline", () => {
  it("goes round the part at the cutter's radius, in levels to the foot", async () => {
    const [outline] = await plans(mm(block));
    const r = outline.cutter!.diameter / 2;
    expect(outline).toMatchObject({ kind: "outline", depth: 20, problem: null });
    expect(loopArea(outline.chains[0])).toBeCloseTo(6000 + 320 * r + Math.PI * r * r, 6);
    expect(outline.levels[outline.levels.length - 1]).toBeCloseTo(20, 9);
    outline.levels.forEach((d, i) =>
      expect(d - (outline.levels[i - 1] ?? 0)).toBeLessThanOrEqual(outline.cutter!.diameter / 2 + 1e-9),
    );
    expect(outline.length).toBeCloseTo(perimeter(outline.chains[0]) * outline.levels.length, 6);
  });

  it("says when no cutter reaches the foot", async () => {
    const [outline] = await plans(mm("LEAVE BLOCK 100 X 60 X 80"));
    expect(outline.cutter).toBeNull();
    expect(outline.problem).toMatch(/no cutter reaches/);
  });

  it("is that of the first leave row only", async () => {
    const all = await plans(mm(block, "LEAVE ROUND ⌀20 X 10 ON TOP"));
    expect(all.filter((p) => p.kind === "outline")).toHaveLength(1);
  });
});

describe("pockets", () => {
  it("take the largest cutter that makes the corners and reaches", async () => {
    const [, pocket] = await plans(mm(block, "CUT POCKET 50 X 30 R5 DEEP 8"));
    expect(pocket.cutter!.diameter).toBe(10);
    expect(pocket.rest).toEqual({ area: 0, loops: [] });
    expect(loopArea(pocket.chains[0])).toBeCloseTo(40 * 20, 9);
  });

  it("leave kites in sharp corners, once for every copy", async () => {
    const [, pocket] = await plans(mm(block, "CUT POCKET 20 X 20 DEEP 5 GRID 2 1 BY 40 1"));
    const r = pocket.cutter!.diameter / 2;
    expect(pocket.rest.area).toBeCloseTo(2 * 4 * (1 - Math.PI / 4) * r * r, 9);
    expect(pocket.rest.loops).toHaveLength(8);
    expect(pocket.chains).toHaveLength(2);
  });

  it("are cleared from the middle outwards, no strip wider than half the cutter", async () => {
    const [, pocket] = await plans(mm(block, "CUT POCKET 80 X 50 R5 DEEP 8"));
    const areas = pocket.clearing.map(loopArea);
    expect(areas.length).toBeGreaterThan(1);
    expect([...areas].sort((a, b) => b - a)).toEqual(areas);
    expect(loopArea(pocket.chains[0])).toBeGreaterThan(areas[0]);
  });

  it("that are round are cut in circles", async () => {
    const [, pocket] = await plans(mm(block, "CUT POCKET ⌀40 DEEP 8 AT 10,5"));
    const r = 20 - pocket.cutter!.diameter / 2;
    expect(loopArea(pocket.chains[0])).toBeCloseTo(Math.PI * r * r, 6);
    expect(pocket.chains[0][0]).toMatchObject({ kind: "arc", centre: { x: 10, y: 5 } });
  });

  it("keep the cutter that was chosen by hand", async () => {
    const [, pocket] = await plans(mm(block, "CUT POCKET 50 X 30 R5 DEEP 8"), [{ row: "r2", cutter: "⌀12" }]);
    expect(pocket.cutter!.name).toBe("⌀12");
    expect(pocket.rest.area).toBeCloseTo((4 - Math.PI) * (36 - 25), 9);
  });

  it("that no cutter enters say so", async () => {
    const [, narrow] = await plans(mm(block, "CUT POCKET 50 X 1 DEEP 3"));
    expect(narrow.problem).toMatch(/goes in/);
    const [, deep] = await plans(mm("LEAVE BLOCK 100 X 60 X 90", "CUT POCKET 50 X 30 R5 DEEP 80"));
    expect(deep.problem).toMatch(/reaches the depth/);
  });

  it("through the part go to its underside", async () => {
    const [, pocket] = await plans(mm(block, "CUT POCKET 50 X 30 R5 THRU"));
    expect(pocket.depth).toBeCloseTo(20, 9);
  });
});

describe("holes", () => {
  it("are drill points with the drill's name, nearest next", async () => {
    const [, holes] = await plans(inch("LEAVE BLOCK 4 X 3 X .75", "CUT 4X ⌀.201 DEEP .5 AT -1,0 1,0 -1,.2 1,.2"));
    expect(holes).toMatchObject({ kind: "drill", drill: "No. 7", problem: null });
    expect(holes.points.map((p) => Math.sign(p.x))).toEqual([-1, -1, 1, 1]);
    expect(holes.depth / 25.4).toBeCloseTo(0.5 + 0.1005 / Math.tan((59 * Math.PI) / 180), 9);
  });

  it("of a tapped row take the tap drill", async () => {
    const [, holes] = await plans(mm(block, "CUT 2X M5 DEEP 8 DRILL DEEP 12 AT 1,1 9,9"));
    expect(holes.drill).toBe("4.2 mm");
  });

  it("of an odd size say that no drill has it", async () => {
    const [, holes] = await plans(mm(block, "CUT ⌀1.234 DEEP 8"));
    expect(holes.drill).toBeNull();
    expect(holes.problem).toMatch(/no drill of this size/);
  });

  it("stand on their own plane", async () => {
    const [, holes] = await plans(mm(block, "CUT ⌀4 DEEP 8 AT 3,10 ON FRONT"));
    expect(holes.frame.normal).toMatchObject({ y: -1 });
    expect(holes.points).toEqual([{ x: 3, y: 10 }]);
  });
});

it("rows that failed or are off have no path", async () => {
  const all = await plans(
    mm(block, "OFF CUT POCKET 50 X 30 R5 DEEP 8", "CUT ⌀4 THRU ON FLOOR OF 2", "CUT CHAMFER 1 OUTER TOP"),
  );
  expect(all.map((p) => p.kind)).toEqual(["outline"]);
});

describe("paths of outlines", () => {
  const { PI } = Math;
  it("go round an inside corner of the piece and leave nothing a cutter could reach", async () => {
    const [round] = await plans(
      mm(
        'OUTLINE "l"',
        "START 0,0",
        "LINE TO X 80",
        "LINE TO Y 30",
        "LINE TO X 30",
        "LINE TO Y 80",
        "LINE TO X 0",
        "CLOSE",
        "END",
        'LEAVE PRISM "l" X 10',
      ),
    );
    const r = round.cutter!.diameter / 2;
    expect(round.chains).toHaveLength(1);
    // Steiner outwards, less what the inside corner takes away again.
    expect(loopArea(round.chains[0])).toBeCloseTo(3900 + 320 * r + 5 * (PI / 4) * r * r - r * r, 6);
  });
  it("clear a pocket round its island, and say what is left in sharp corners", async () => {
    const [, pocket] = await plans(
      mm(
        'OUTLINE "pocket"',
        "RECTANGLE 60 X 40",
        "CIRCLE ⌀12",
        "END",
        "LEAVE BLOCK 100 X 80 X 20",
        'CUT POCKET "pocket" DEEP 6',
      ),
    );
    const r = pocket.cutter!.diameter / 2;
    expect(pocket.chains.reduce((s, l) => s + loopArea(l), 0)).toBeCloseTo(
      (60 - 2 * r) * (40 - 2 * r) - PI * (6 + r) ** 2,
      6,
    );
    expect(pocket.rest.area).toBeCloseTo(4 * (1 - PI / 4) * r * r, 6);
    expect(pocket.clearing.length).toBeGreaterThan(2);
    expect(
      (
        await plans(
          mm('OUTLINE "slit"', "SLOT 40 X .5", "END", "LEAVE BLOCK 100 X 80 X 20", 'CUT POCKET "slit" DEEP 6'),
        )
      )[1].problem,
    ).toMatch(/no cutter/);
  });
});

describe("a pocket off the edge", () => {
  it("runs beyond the edge by its cutter and leaves the two inside corners", async () => {
    const list = await plans(
      mm(
        'OUTLINE "bite"',
        "START -10,-40",
        "LINE TO Y -12",
        "LINE TO X 10",
        "LINE TO Y -40",
        "END",
        "LEAVE BLOCK 100 X 60 X 20",
        'CUT POCKET "bite" RIGHT DEEP 5',
      ),
    );
    const p = list.find((q) => q.row === 2)!,
      r = p.cutter!.diameter / 2;
    expect(p.problem).toBeNull();
    const ys = p.chains.flat().flatMap((s) => (s.kind === "line" ? [s.from.y, s.to.y] : []));
    // The cutter's centre ends half its width beyond the edge at y -30.
    expect(Math.min(...ys)).toBeCloseTo(-30 - r, 6);
    expect(Math.max(...ys)).toBeCloseTo(-12 - r, 6);
    expect(p.rest.area).toBeCloseTo(2 * r * r * (1 - Math.PI / 4), 6);
  });
});

describe("a pocket open to any side", () => {
  // Its chain goes in from beyond the edge, 18 wide and 15 deep into the block, and out again.
  it.each([
    ["-y", ["-9,-40", "-9,-15", "9,-15", "9,-40"], "RIGHT", "y", -1, 30],
    ["+y", ["9,40", "9,15", "-9,15", "-9,40"], "RIGHT", "y", 1, 30],
    ["+x", ["60,-9", "30,-9", "30,9", "60,9"], "RIGHT", "x", 1, 50],
    ["-x", ["-60,9", "-30,9", "-30,-9", "-60,-9"], "RIGHT", "x", -1, 50],
  ] as const)("%s runs off by its cutter there", async (_, points, side, axis, sign, edge) => {
    const [start, ...more] = points;
    const outline = ['OUTLINE "o"', `START ${start}`, ...more.map((p) => `LINE TO ${p}`), "END"];
    const [, p] = await plans(mm(...outline, block, `CUT POCKET "o" ${side} DEEP 5`));
    expect(p.problem).toBeNull();
    const along = p.chains.flat().flatMap((s) => (s.kind === "line" ? [s.from[axis], s.to[axis]] : []));
    const r = p.cutter!.diameter / 2;
    expect(Math.max(...along.map((v) => v * sign))).toBeCloseTo(edge + r, 6);
  });
});

describe("facing", () => {
  it("goes as far beyond the right end as beyond the left, and over both sides", async () => {
    const job = jobOf(mm("STOCK PLATE 106 X 66 X 24", block, "CUT FACE DEEP 1"));
    const e = await evaluateJob(job);
    const face = planPaths(job, e.solved.rows, e.stock!.placed.box).find((p) => p.kind === "face")!;
    const xs = face.chains.flat().flatMap((s) => (s.kind === "line" ? [s.from.x, s.to.x] : []));
    const ys = face.chains.flat().flatMap((s) => (s.kind === "line" ? [s.from.y, s.to.y] : []));
    const r = face.cutter!.diameter / 2;
    expect(Math.max(...xs)).toBeGreaterThan(53 + r);
    expect(Math.min(...xs)).toBeCloseTo(-Math.max(...xs), 6);
    expect([Math.min(...ys), Math.max(...ys)]).toEqual([-33, 33]);
  });
});

describe("a hole given to the thousandth", () => {
  it.each([
    [".406", "13/32"],
    [".266", "H"],
    [".203", "13/64"],
    [".201", "No. 7"],
  ])("⌀%s is drilled %s", async (size, drill) => {
    const [, hole] = await plans(inch("LEAVE BLOCK 4 X 3 X .5", `CUT ⌀${size} THRU`));
    expect([hole.kind, hole.drill, hole.problem]).toEqual(["drill", drill, null]);
  });
  it("also where a balloon gives it", async () => {
    const [, hole] = await plans(inch("#1 ⌀.406", "LEAVE BLOCK 4 X 3 X .5", "CUT ⌀#1 THRU"));
    expect([hole.kind, hole.drill]).toEqual(["drill", "13/32"]);
  });
  it("is no drill where none lies within that", async () => {
    const [, hole] = await plans(inch("LEAVE BLOCK 4 X 3 X .5", "CUT ⌀.408 THRU"));
    expect(hole.drill ?? null).toBeNull();
  });
});
