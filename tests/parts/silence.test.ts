import { evaluateCard, inch, jobOf, mm, volumeOf } from "../helpers/card";
import { readCard, writeCard } from "@/core/callout";
import { headlessReport } from "@/core/evaluate/report";

const rows = async (text: string) =>
  (await evaluateCard(text)).solved.rows.map((r) => [r.state, Number(r.removed.toFixed(6)), r.message] as const);
const error = (...lines: string[]) => {
  const { errors } = readCard(mm(...lines));
  return errors.length ? `${errors[0].message}; ${errors[0].expected}` : "read";
};

describe("what is asked is done, or said", () => {
  it("the third figure of AT lifts a row off its plane", async () => {
    const at = async (z: string) =>
      (await evaluateCard(mm("LEAVE BLOCK 20 X 20 X 10", `LEAVE BLOCK 5 X 5 X 5 AT 0,0${z} ON TOP`))).part!;
    expect([(await at("")).box.max.z, (await at(",3")).box.max.z, (await at(",-2")).box.max.z]).toEqual(
      [15, 18, 13].map((z) => expect.closeTo(z, 6)),
    );
    expect((await at(",-2")).volume).toBeCloseTo(4000 + 25 * 3, 6);
    expect((await at(",3")).solids).toBe(2);
  });

  it("a row that touches along a line adds its own volume, and the piece is said to be in two", async () => {
    const e = await evaluateCard(mm("LEAVE BLOCK 10 X 10 X 10", "LEAVE BLOCK 5 X 5 X 5 AT 7.5,7.5"));
    expect(e.part!.volume).toBeCloseTo(1125, 6);
    expect(e.findings.map((f) => f.rule)).toContain("in-pieces");
    // Round against flat, along a line: nothing is taken away.
    for (const r of await rows(mm("LEAVE ROUND 10 X 10", "LEAVE BLOCK 10 X 10 X 10 AT 10,0")))
      expect(r[0] === "failed" || r[1] < 0).toBe(true);
  });

  it("a bore through a round takes just what it takes", async () => {
    // Elliptic integral, by the midpoint rule: 4 ∫ sqrt(a² - t²) sqrt(b² - t²) dt.
    const [a, b] = [10, 30];
    const n = 20_000;
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const w = -Math.PI / 2 + ((i + 0.5) * Math.PI) / n;
      const t = a * Math.sin(w);
      sum += 4 * a * Math.cos(w) * Math.sqrt(b * b - t * t) * a * Math.cos(w);
    }
    const closed = (sum * Math.PI) / n;
    const [, hole] = await rows(mm("LEAVE ROUND 60 X 40", "CUT ⌀20 THRU ON FRONT AT 0,20"));
    expect(Math.abs(hole[1] / closed - 1)).toBeLessThan(1e-6);
    expect(await volumeOf(inch("LEAVE ROUND 2 X 1", "CUT ⌀.5 THRU ON LEFT AT 0,.5"))).toBeLessThan(Math.PI * 25.4 ** 3);
  });

  it("places are echoed in the job's coordinates, mirrored planes and all", async () => {
    const text = mm(
      "LEAVE BLOCK 40 X 30 X 20",
      "CUT ⌀3 DEEP 5 ON BACK AT 5,4",
      "CUT ⌀3 DEEP 5 ON BOTTOM AT 5,4",
      "CUT ⌀3 DEEP 5 AT 5,4",
    );
    const report = headlessReport(jobOf(text), await evaluateCard(text), [], null);
    expect(report.rows.map((r) => (r as { places?: number[][] }).places ?? null)).toEqual([
      null,
      [[-5, 15, 4]],
      [[5, -4, 0]],
      [[5, 4, 20]],
    ]);
  });
});

describe("two legs of a chamfer", () => {
  it("are joined by BY: the first along the face, the second across it", async () => {
    const [, chamfer] = await rows(mm("LEAVE BLOCK 20 X 20 X 10", "CUT CHAMFER 2 BY 1 OUTER TOP"));
    // A wedge 2 by 1 along 80, less what the corners share: 4 · 2²/3 · 1.
    expect(chamfer[1]).toBeCloseTo(80 - (4 * 4) / 3, 6);
    const e = await evaluateCard(mm("#1 2", "#2 1", "LEAVE BLOCK 20 X 20 X 10", "CUT CHAMFER #1 BY #2 OUTER TOP"));
    expect(e.ledger.map((l) => l.state)).toEqual(["proved", "proved"]);
  });
  it("written with X are questioned; a small angle keeps its sign", () => {
    expect(error("LEAVE BLOCK 20 X 20 X 10", "CUT CHAMFER .125 X .156 OUTER TOP")).toMatch(
      /second leg or an angle; BY for a second leg/,
    );
    for (const line of [
      "CUT CHAMFER .125 X .156° OUTER TOP",
      "CUT CHAMFER .125 BY .156 OUTER TOP",
      "CUT CHAMFER 1 X 30 OUTER TOP",
    ]) {
      const { job, errors } = readCard(mm("LEAVE BLOCK 20 X 20 X 10", line));
      expect(errors).toEqual([]);
      expect(writeCard(job)).toContain(line);
      expect(readCard(writeCard(job)).job.rows).toEqual(job.rows);
    }
  });
});

describe("messages that help", () => {
  it("name the slip and not only the place", async () => {
    expect(error("LEAVE 8X ROUND 20 X 10")).toMatch(/a LEAVE row takes no count/);
    expect(error("LEAVE BLOCK 20 X 20 X 10", "CUT CHAMFER 2 OUTER LEFT")).toMatch(/no edges OUTER LEFT; TOP or BOTTOM/);
    const [, round] = await rows(mm("LEAVE BLOCK 40 X 20 X 10", "CUT ROUND 12 OUTER TOP"));
    expect(round[2]).toMatch(/not on the one at X \S+ Y \S+ Z 10 mm .*at most 9\.99\d* mm/);
    // An inch job is told in inches.
    const [, small] = await rows(inch("LEAVE BLOCK 4 X 2 X 1", "CUT ROUND 1.2 OUTER TOP"));
    expect(small[2]).toMatch(/not on the one at X \S+ Y \S+ Z 1 in .*at most 0?\.99\d* in/);
  });
});

describe("an outline made with a broken one", () => {
  const plate = (inner: string[], ...use: string[]) =>
    mm(
      'OUTLINE "inner"',
      ...inner,
      "END",
      'OUTLINE "plate"',
      "RECTANGLE 40 X 30",
      ...use,
      "END",
      'LEAVE PRISM "plate" X 10',
    );
  it.each([
    ["a balloon that is missing", ["CIRCLE ⌀#9"]],
    ["a corner that does not fit", ["RECTANGLE 10 X 10", "ROUND 8 ALL"]],
    ["a contradiction", ["START 0,0", "LINE TO X 10", "LINE TO Y 5", "LINE TO X 0", "CLOSE", "LENGTH 2 7"]],
  ])("fails its row and says why: %s", async (_, inner) => {
    for (const how of ['CUTOUT "inner"', 'JOIN "inner"', 'USE "inner"']) {
      const [r] = await rows(plate(inner, how));
      expect([how, r[0], /outline "plate".*"inner"/.test(r[2])]).toEqual([how, "failed", true]);
    }
    expect((await rows(plate(["CIRCLE ⌀10"], 'CUTOUT "inner"')))[0][0]).toBe("ok");
  });
  it("no line is shrunk to nothing to hold a relation", async () => {
    const [r] = await rows(
      mm(
        'OUTLINE "o"',
        "START 0,0",
        "LINE TO X 30",
        "LINE TO ?,?",
        "LINE TO 0,20",
        "CLOSE",
        "PARALLEL 1 2",
        "ANGLE 1 2 190",
        "END",
        'LEAVE PRISM "o" X 5',
      ),
    );
    expect(r[0]).toBe("failed");
  });
});

describe("numbers", () => {
  it("know powers and the sign of degrees in functions", async () => {
    const size = async (n: string) => (await evaluateCard(mm(`LEAVE BLOCK ${n} X 30 X 10`))).part!.box.max.x * 2;
    expect(await size("2^3")).toBeCloseTo(8, 9);
    expect(await size("2^3^2")).toBeCloseTo(512, 9);
    expect(await size("(20*cos(60°))")).toBeCloseTo(10, 9);
    expect(await size("(20*cos(60))")).toBeCloseTo(10, 9);
    expect(await size("(20*sin(30°15'))")).toBeCloseTo(20 * Math.sin((30.25 * Math.PI) / 180), 9);
  });
});
