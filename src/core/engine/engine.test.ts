import { evaluate } from "../evaluate";
import { toNumberText } from "../number";
import { prepare, solve, Superseded } from ".";
import { headlessReport } from "../evaluate/report";
import { applyEdits } from "../job";
import { readCard } from "../callout";
import { loadKernel } from "@/kernel/node";
import { evaluateCard, evaluateJob, inch, jobOf, mm, volumeOf } from "../../../tests/helpers/card";

const close = (actual: number, expected: number) =>
  expect(Math.abs(actual - expected) / Math.abs(expected)).toBeLessThan(1e-6);

describe("worked figures (common practice, no source)", () => {
  it("weighs the ring plate at 259.58 g", async () => {
    const e = await evaluateCard(
      'JOB "r"\nUNIT mm\nMATERIAL "s" DENSITY 8.00\nLEAVE RING OD 120 ID 75 X 5.8\nCUT POCKET ⌀92 DEEP 3 ON BOTTOM\nCUT 6X ⌀4 THRU CSK ⌀9.4 X 90 ON BC 100\nCHECK MASS 259.58 g',
    );
    expect(e.part!.mass).toBeCloseTo(259.58, 2);
    expect(e.checks[0].agrees).toBe(true);
  });
  it("leaves 122 square inches of face between 78 windows", async () => {
    const e = await evaluateCard(
      inch("LEAVE BLOCK 10 X 20 X .25", "CUT POCKET 1 X 1 THRU GRID 6 13 BY 1.5 1.5", "CHECK AREA TOP 122"),
    );
    expect(e.part!.faceArea.top / 645.16).toBeCloseTo(122, 9);
    expect(e.checks[0].agrees).toBe(true);
  });
});

describe("planes by their meaning", () => {
  it("takes the highest flat as the top, after a step too", async () => {
    const base = ["LEAVE BLOCK 40 X 30 X 20", "CUT STEP LEFT 10 DEEP 5"];
    close(await volumeOf(mm(...base, "CUT ⌀4 DEEP 6 FLAT AT 5,0")), 40 * 30 * 20 - 1500 - Math.PI * 4 * 6);
    // Over the step the hole begins in air: only a millimetre of it is in the material.
    close(await volumeOf(mm(...base, "CUT ⌀4 DEEP 6 FLAT AT -15,0")), 40 * 30 * 20 - 1500 - Math.PI * 4 * 1);
  });
  it("starts on the floor of a row and on the top of another", async () => {
    close(
      await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT POCKET 20 X 10 DEEP 5", "CUT ⌀4 DEEP 6 FLAT ON FLOOR OF 2")),
      40 * 30 * 20 - 1000 - Math.PI * 4 * 6,
    );
    close(
      await volumeOf(
        mm(
          "LEAVE BLOCK 40 X 30 X 20",
          "LEAVE ROUND ⌀10 X 8 ON TOP",
          "CUT ⌀4 DEEP 6 FLAT ON TOP OF 2",
          "CUT ⌀2 DEEP 3 FLAT AT 15,0 ON TOP OF 1",
        ),
      ),
      24000 + Math.PI * 25 * 8 - Math.PI * 4 * 6 - Math.PI * 3,
    );
  });
  it("uses the coordinates seen when looking at the plane", async () => {
    const where = async (plane: string) => {
      const e = await evaluateCard(mm("LEAVE BLOCK 60 X 40 X 30", `CUT ⌀4 DEEP 5 FLAT AT 7,3 ON ${plane}`));
      const f = (await loadKernel())
        .faces(e.solved.finalKey!)
        .find((x) => x.tag?.row === "r2" && x.surface === "cylinder")!;
      const o = f.axis!.origin;
      return [o.x, o.y, o.z].map((n) => Math.round(n * 1e6) / 1e6);
    };
    expect((await where("TOP")).slice(0, 2)).toEqual([7, 3]);
    expect((await where("BOTTOM")).slice(0, 2)).toEqual([7, -3]);
    const [fx, , fz] = await where("FRONT");
    expect([fx, fz]).toEqual([7, 3]);
    const [bx, , bz] = await where("BACK");
    expect([bx, bz]).toEqual([-7, 3]);
    const [, ry, rz] = await where("RIGHT");
    expect([ry, rz]).toEqual([7, 3]);
    const [, ly, lz] = await where("LEFT");
    expect([ly, lz]).toEqual([-7, 3]);
  });
  it("goes through everything in its way", async () => {
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT ⌀4 THRU ON FRONT AT 0,10")), 24000 - Math.PI * 4 * 30);
    close(await volumeOf(mm("LEAVE ROUND ⌀40 X 20", "CUT POCKET 50 X 4 THRU ON FRONT AT 0,10")), Math.PI * 400 * 16);
  });
});

describe("rows that fail", () => {
  it.each<[string, RegExp]>([
    ["CUT ⌀4 THRU ON FLOOR OF 9", /row 9 is no row before/],
    ["CUT ⌀4 THRU ON FLOOR OF 3", /row 3 is no row before/],
    ["CUT CHAMFER 1 MOUTH OF 4", /row 4 is no row before/],
    ["CUT POCKET 99 X 99 THRU", /nothing is left/],
    ["CUT POCKET 10 X 4 R3 DEEP 1", /radius/],
    ["CUT #7 THRU", /no balloon #7/],
    ["CUT ROUND 25 VERTICAL", /does not fit/],
    ["CUT 3X ⌀2 THRU AT 1,1 2,2", /3X does not agree/],
    ["CUT ⌀2 THRU ON BC 20", /how many/],
    ["CUT GROOVE OD 5 ID 6 DEEP 1", /not smaller/],
    ["CUT 10-33 UNF DEEP 4", /no table|no thread/],
    ["CUT ⌀4 DEEP 0", /more than zero/],
    ["CUT ⌀4 DEEP 1/0", /./],
    ["CUT 6X ⌀1 DEEP 1 CBORE ⌀.5 DEEP 1 ON BC 20", /not wider/],
    ["CUT ⌀2 DEEP ? ", /no value yet/],
    ["CUT ⌀1 THRU GRID 1000 1000 BY .01 .01", /too many/],
    ["CUT M5 DEEP 9 DRILL DEEP 4", /shallower/],
  ])("%s: %s", async (line, message) => {
    const { job, errors } = readCard(mm("LEAVE BLOCK 40 X 30 X 20", line, "CUT ⌀4 THRU AT 10,10"));
    if (errors.length) return expect(errors[0].message).toMatch(/division by zero/);
    const e = await evaluateJob(job);
    expect(e.solved.rows[1].state).toBe("failed");
    expect(e.solved.rows[1].message).toMatch(message);
    // The rest stands.
    expect(e.solved.rows[2].state).toBe("ok");
    close(e.part!.volume, 24000 - Math.PI * 4 * 20);
  });
  it("refer to each other in a circle without harm", async () => {
    const e = await evaluateCard(
      mm("LEAVE BLOCK 40 X 30 X 20", "CUT ⌀4 DEEP 3 FLAT ON FLOOR OF 3", "CUT ⌀6 DEEP 3 FLAT ON FLOOR OF 2"),
    );
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "failed", "failed"]);
    const b = await evaluateCard(mm("#1 #2", "#2 #1", "LEAVE BLOCK #1 X 30 X 20"));
    expect(b.solved.rows[0].message).toMatch(/circle/);
    expect(b.part).toBeNull();
  });
  it("cut where nothing is", async () => {
    const e = await evaluateCard(mm("CUT ⌀4 THRU", "LEAVE BLOCK 10 X 10 X 10"));
    expect(e.solved.rows.map((r) => r.state)).toEqual(["failed", "ok"]);
    expect(e.solved.rows[0].message).toMatch(/nothing to cut/);
  });
  it("say where in the card the number stands", () => {
    const read = readCard("UNIT mm\nLEAVE BLOCK 10 X #9 X 3");
    return evaluateJob(read.job).then((e) => {
      const r = headlessReport(read.job, e, [], read.places);
      expect(r.ok).toBe(false);
      expect(r.errors[0]).toMatchObject({ line: 2, column: 18 });
    });
  });
  it("gives angles of the ledger in degrees", async () => {
    const read = readCard("UNIT mm\n#1 90° ±1\nLEAVE BLOCK 60 X 40 X 20\nCUT ⌀4 THRU CSK ⌀8 X #1");
    const r = headlessReport(read.job, await evaluateJob(read.job), [], read.places);
    expect(r.ledger[0]).toMatchObject({
      number: 1,
      state: "proved",
      nominal: expect.closeTo(90, 9),
      low: expect.closeTo(89, 9),
      measured: expect.closeTo(90, 6),
    });
  });
  it("switch off without a trace", async () => {
    const e = await evaluateCard(mm("LEAVE BLOCK 10 X 10 X 10", "OFF CUT ⌀4 THRU", "CUT ⌀2 DEEP 1 FLAT ON FLOOR OF 2"));
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "off", "failed"]);
    expect(e.part!.volume).toBeCloseTo(1000, 6);
  });
});

describe("provenance", () => {
  it("gives every face the row, role and copy that made it", async () => {
    const e = await evaluateCard(
      mm(
        "LEAVE BLOCK 60 X 40 X 20 R3",
        "CUT POCKET 30 X 20 R4 DEEP 6",
        "CUT 4X ⌀5 THRU CSK ⌀8 X 90 GRID 2 2 BY 46 28",
        "CUT CHAMFER 1 OUTER TOP",
        "CUT ROUND 2 FLOOR OF 2",
      ),
    );
    const faces = (await loadKernel()).faces(e.solved.finalKey!);
    expect(faces.every((f) => f.tag !== null)).toBe(true);
    const of = (row: string, role: string) => faces.filter((f) => f.tag!.row === row && f.tag!.role === role);
    expect(of("r1", "side")).toHaveLength(8);
    expect(of("r2", "floor")).toHaveLength(1);
    expect(of("r2", "wall")).toHaveLength(8);
    expect(new Set(of("r3", "wall").map((f) => f.tag!.instance)).size).toBe(4);
    expect(of("r3", "cone")).toHaveLength(4);
    expect(of("r4", "chamfer")).toHaveLength(8);
    expect(of("r5", "round").length).toBeGreaterThanOrEqual(8);
    expect(of("r3", "cone")[0].halfAngle).toBeCloseTo(Math.PI / 4, 9);
  });
  it("names the outermost rim only: an island inside a groove keeps its edge", async () => {
    const e = await evaluateCard(
      mm("LEAVE ROUND ⌀60 X 20", "CUT GROOVE OD 40 ID 30 DEEP 3", "CUT CHAMFER 1 OUTER TOP"),
    );
    const cone = (Math.PI * (900 + 30 * 29 + 841)) / 3;
    close(e.solved.rows[2].removed, Math.PI * 900 - cone);
  });
});

describe("what is computed again", () => {
  it("takes up every state it knows, and makes only what follows an edit", async () => {
    const kernel = await loadKernel();
    const job = jobOf(
      mm("LEAVE BLOCK 61 X 41 X 21", "CUT POCKET 30 X 20 R4 DEEP 6", "CUT ⌀5 THRU AT 25,15", "CUT ⌀5 THRU AT -25,15"),
    );
    const made: string[] = [];
    const counting = new Proxy(kernel, {
      get: (t, k) =>
        k === "apply"
          ? (key: string, ...rest: [never, never]) => {
              if (!t.has(key)) made.push(key);
              return t.apply(key, ...rest);
            }
          : Reflect.get(t, k).bind(t),
    });
    await solve(prepare(job), counting);
    expect(made).toHaveLength(4);
    await solve(prepare(job), counting);
    expect(made).toHaveLength(4);
    const edited = applyEdits(job, [{ edit: "setNumber", id: "r3", path: "diameter", text: toNumberText("6") }]);
    if (!edited.ok) throw new Error();
    await solve(prepare(edited.value.job), counting);
    expect(made).toHaveLength(6);
    await solve(prepare(job), counting);
    expect(made).toHaveLength(6);
  });
  it("is superseded between rows by a newer edit", async () => {
    const kernel = await loadKernel();
    let rows = 0;
    await expect(
      solve(prepare(jobOf(mm("LEAVE BLOCK 9 X 9 X 9", "CUT ⌀1 THRU", "CUT ⌀2 THRU"))), kernel, {
        pause: async () => {
          rows++;
        },
        cancelled: () => rows > 2,
      }),
    ).rejects.toThrow(Superseded);
  });
  it("makes a plate in one piece and gets what single cuts would give", async () => {
    // The tall pocket stands across the edge, so the second card is cut hole by hole.
    const flat = await evaluateCard(
      mm("LEAVE BLOCK 100 X 60 X 10 R5", "CUT POCKET 8 X 8 THRU GRID 3 2 BY 20 20", "CUT 4X ⌀4 THRU GRID 2 2 BY 90 50"),
    );
    const cut = await evaluateCard(
      mm(
        "LEAVE BLOCK 100 X 60 X 10 R5",
        "CUT ⌀4 DEEP 20 FLAT AT 45,25",
        "CUT POCKET 8 X 8 THRU GRID 3 2 BY 20 20",
        "CUT 3X ⌀4 THRU AT -45,25 45,-25 -45,-25",
      ),
    );
    close(flat.part!.volume, cut.part!.volume);
    expect(flat.part!.faceArea.top).toBeCloseTo(cut.part!.faceArea.top, 6);
    const faces = (await loadKernel()).faces(flat.solved.finalKey!);
    expect(faces.every((f) => f.tag)).toBe(true);
    expect(new Set(faces.filter((f) => f.tag!.row === "r2").map((f) => f.tag!.instance)).size).toBe(6);
    expect(faces.filter((f) => f.tag!.row === "r3").every((f) => f.surface === "cylinder" && f.hollow)).toBe(true);
  });
  it("does not take overlapping windows for a plate", async () => {
    close(await volumeOf(mm("LEAVE BLOCK 100 X 60 X 10", "CUT POCKET 10 X 10 THRU AT 0,0 5,0")), 60000 - 1500);
    close(await volumeOf(mm("LEAVE BLOCK 100 X 60 X 10", "CUT POCKET 10 X 10 THRU AT 50,0")), 60000 - 500);
    close(
      await volumeOf(mm("LEAVE ROUND ⌀60 X 10", "CUT 2X ⌀10 THRU AT 29,0 0,0")),
      (await volumeOf(mm("LEAVE ROUND ⌀60 X 10", "CUT ⌀10 THRU AT 29,0"))) - Math.PI * 250,
    );
  });
});

describe("stock", () => {
  it("shares the surplus and weighs the chips", async () => {
    const e = await evaluateCard(mm("STOCK PLATE 110 X 70 X 25", "LEAVE BLOCK 100 X 60 X 20"));
    expect(e.stock!.allowance).toEqual({ left: 5, right: 5, front: 5, back: 5, bottom: 2.5, top: 2.5 });
    expect(e.stock!.chipMass).toBeCloseTo(((110 * 70 * 25 - 120000) * 7.87) / 1000, 6);
    const at = await evaluateCard(mm("STOCK ROUND 110 X 25 AT 0,0,-1", "LEAVE ROUND ⌀100 X 20"));
    expect(at.stock!.allowance).toMatchObject({ left: 5, bottom: 1, top: 4 });
    expect(at.stock!.radial).toBeCloseTo(5, 9);
  });
  it("knows no mass without a density", async () => {
    const e = await evaluateCard(
      'UNIT mm\nMATERIAL "moon rock"\nSTOCK PLATE 11 X 11 X 11\nLEAVE BLOCK 10 X 10 X 10\nCHECK MASS 5',
    );
    expect(e.part!.mass).toBeNull();
    expect(e.stock!.chipMass).toBeNull();
    expect(e.checks[0]).toMatchObject({ agrees: false, actual: null });
  });
});

it("evaluates an empty job to nothing at all", async () => {
  const e = await evaluate(jobOf('JOB "x"\nUNIT mm'), await loadKernel());
  expect(e).toMatchObject({ part: null, stock: null, findings: [], ledger: [], checks: [] });
});
