import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { command } from "@/cli/command";

const root = fileURLToPath(new URL("../../", import.meta.url));
const dir = mkdtempSync(path.join(tmpdir(), "sgorbia-cli-"));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const file = (name: string, text: string) => {
  const p = path.join(dir, name);
  writeFileSync(p, text);
  return p;
};
/** As scripts call it, from another folder: a process of its own. */
const spawned = (...args: string[]) => {
  const r = spawnSync("npm", ["run", "-s", "job", "--prefix", root, "--", ...args], {
    cwd: dir,
    encoding: "utf8",
    env: { ...process.env, INIT_CWD: dir },
  });
  return { code: r.status, out: r.stdout, err: r.stderr };
};

/** The same command in this process, with the kernel it has: what it writes where, and its exit code. */
const run = async (...args: string[]) => {
  const said = { out: "", err: "" };
  const code = await command(args, dir, {
    text: (t) => void (said.out += t),
    line: (t) => void (said.out += `${t}\n`),
    error: (t) => void (said.err += `${t}\n`),
  });
  return { code, ...said };
};

const good =
  'JOB "lid" REV A\nUNIT in\nMATERIAL "aluminium 6061"\nSTOCK ROUND 2.25 X .875\n#1 ⌀2.000 ±.005\nLEAVE ROUND #1 X .7\nCUT POCKET 1 X 1 DEEP .4\nOFF CUT FACE DEEP .1\nCHECK SIZE Z .7\n';

const clamp = [
  'JOB "clamp"',
  "UNIT mm",
  "STOCK PLATE 64 X 44 X 28",
  "LEAVE BLOCK 60 X 40 X 20",
  "CUT POCKET 30 X 20 R5 DEEP 8",
  "SETUP 10 MILL UP TOP DATUM CENTRE HOLD VISE GRIP 3 ACROSS Y ROWS 1-2",
  "SETUP 20 MILL UP BOTTOM DATUM LEFT FRONT ROWS 1",
].join("\n");

describe("what would clear a remark, without a browser", () => {
  const remarks = async (...flags: string[]) => {
    const report = JSON.parse((await run("check", file("sharp.card", good), "--json", ...flags)).out);
    return (report.findings as { rule: string; fix?: string }[]).filter((f) => f.rule === "sharp-inside-corner");
  };
  it("is told only when it is asked for, and then tried on the solid", async () => {
    expect((await remarks()).map((f) => f.fix)).toEqual([undefined]);
    const [{ fix }] = await remarks("--fixes");
    expect(fix).toMatch(/^R\d*\.\d+$/);
    const put = good.replace("1 X 1 DEEP", `1 X 1 ${fix} DEEP`);
    const after = JSON.parse((await run("check", file("round.card", put), "--json")).out);
    expect(after.findings.map((f: { rule: string }) => f.rule)).not.toContain("sharp-inside-corner");
  });
});

describe("the ledger of a job with several parts, without a browser", () => {
  const card = [
    'JOB "lever"',
    "UNIT mm",
    "#1 60",
    "#2 8",
    "#3 2X ⌀6",
    "#4 40",
    "LEAVE BLOCK #1 X 30 X 10",
    'PART "plate" PLATE',
    "LEAVE BLOCK 100 X 60 X 20",
    "CUT ⌀#3 THRU LINE 2 BY (#4+1) AT -20,0",
    "CUT POCKET 20 X 10 R2 DEEP #2",
  ].join("\n");
  it("says of every balloon which part is made from it, and what it claims there", async () => {
    const j = JSON.parse((await run("check", file("lever.card", card), "--json")).out);
    const of = (list: { number: number }[], n: number) => list.find((l) => l.number === n);
    expect(of(j.ledger, 1)).toMatchObject({ state: "proved", claims: [{ of: "value", state: "true" }] });
    expect(of(j.ledger, 2)).toMatchObject({ state: "proved", part: "plate" });
    expect(of(j.ledger, 4)).toMatchObject({ state: "off", part: "plate" });
    expect(j.complete).toMatchObject({ unused: 0 });
    const plate = j.parts.find((p: { name: string }) => p.name === "plate");
    expect(plate.ledger.map((l: { number: number; state: string }) => [l.number, l.state])).toEqual([
      [2, "proved"],
      [3, "proved"],
      [4, "off"],
    ]);
  });
});

describe("setups without a browser", () => {
  it("are told as the contract names them", async () => {
    const j = JSON.parse((await run("check", file("clamp.card", clamp), "--json")).out);
    const [first, second] = j.setups;
    expect(first).toMatchObject({ op: 10, machine: "MILL", up: [0, 0, 1], datum: [0, 0, 20], rows: [1, 2], gouge: 0 });
    expect(first.hold).toMatchObject({ kind: "vise", grip: 3, above: 25 });
    expect(first.before).toBeCloseTo(64 * 44 * 28, 6);
    expect(second.datum).toEqual([-30, 20, 0]);
    expect(second.before).toBe(first.after);
    expect(second.after / j.part.volume).toBeCloseTo(1, 9);
    expect(first.operations.map((o: { row: number; kind: string }) => [o.row, o.kind])).toEqual([
      [1, "outline"],
      [2, "pocket"],
    ]);
    expect(j.routing).toMatchObject({ unassigned: [], marked: [] });
    expect(j.routing.proposed.map((p: { op: number; rows: number[] }) => [p.op, p.rows])).toEqual([
      [10, [1, 2]],
      [20, [1]],
    ]);
  });

  it("get what holds them from derive, and say why not", async () => {
    const out = path.join(dir, "held.card");
    const made = await run("derive", file("clamp.card", clamp), "--jaws", "--setup", "20", "--grip", "5", "--out", out);
    expect([made.code, made.err]).toEqual([0, ""]);
    const text = readFileSync(out, "utf8");
    expect(text).toContain('HOLD JAWS "soft jaws" GRIP 5 ACROSS Y');
    const step = path.join(dir, "held.step");
    expect((await run("export", out, "--to", "step", "--setup", "20", "--out", step)).code).toBe(0);
    const names = [...readFileSync(step, "utf8").matchAll(/PRODUCT\('([^']*)'/g)].map((m) => m[1]);
    expect(names).toEqual(["clamp", "soft jaws, fixed jaw", "soft jaws, moving jaw"]);
    const refused = await run(
      "derive",
      file("clamp.card", clamp),
      "--jaws",
      "--setup",
      "20",
      "--grip",
      "50",
      "--out",
      out,
    );
    expect(refused.code).toBe(1);
    expect(refused.err).toContain("as deep as the piece is high");
  });
});

describe("the headless command", () => {
  it("is called as a process of its own: one JSON object on its output, its code, its errors apart", async () => {
    const made = spawned("check", file("good.card", good), "--json");
    expect(made.code).toBe(0);
    expect(JSON.parse(made.out)).toEqual(JSON.parse((await run("check", "good.card", "--json")).out));
    const wrong = spawned("check", "good.card", "--jsn");
    expect([wrong.code, wrong.out]).toEqual([2, ""]);
    expect(wrong.err).toContain("--jsn");
    // The library prints to standard output while it writes a STEP file: nothing of that is heard.
    const step = spawned("export", "good.card", "--to", "step", "--out", "own.step");
    expect(step).toMatchObject({ code: 0, out: "" });
  });
  it("checks a card: one JSON object, exit 0, findings do not count", async () => {
    const r = await run("check", file("good.card", good), "--json");
    expect(r.code).toBe(0);
    const j = JSON.parse(r.out);
    expect(Object.keys(j).sort()).toEqual([
      "checks",
      "complete",
      "errors",
      "findings",
      "ledger",
      "ok",
      "outlines",
      "part",
      "parts",
      "routing",
      "rows",
      "setups",
      "stock",
      "unit",
    ]);
    expect(j).toMatchObject({ ok: true, errors: [], unit: "in" });
    expect(j.rows).toHaveLength(3);
    expect(j.rows[0]).toMatchObject({ number: 1, name: "", callout: "LEAVE ROUND ⌀#1 X .7", state: "ok", message: "" });
    expect(j.rows[0].removed).toBeLessThan(0);
    expect(j.rows[1].removed).toBeCloseTo(0.4 * 25.4 ** 3, 6);
    expect(j.rows[2]).toMatchObject({ state: "off", removed: 0, callout: "OFF CUT FACE DEEP .1" });
    expect(j.part.volume).toBeCloseTo((Math.PI * 0.7 - 0.4) * 25.4 ** 3, 5);
    expect(j.part.mass).toBeCloseTo((j.part.volume * 2.7) / 1000, 9);
    expect(Object.keys(j.part).sort()).toEqual(["boundingBox", "faceArea", "mass", "surfaceArea", "volume"]);
    expect(j.part.boundingBox.max[2]).toBeCloseTo(17.78, 9);
    expect(Object.keys(j.stock.allowance).sort()).toEqual(["back", "bottom", "front", "left", "right", "top"]);
    expect(j.findings[0]).toMatchObject({ rule: "sharp-inside-corner", severity: "stop", row: 2, value: 0 });
    expect(j.ledger).toEqual([expect.objectContaining({ number: 1, state: "proved" })]);
    expect(j.checks).toEqual([expect.objectContaining({ kind: "size", agrees: true })]);
  });
  it("exits 1 when a row failed, and says where", async () => {
    const r = await run(
      "check",
      file("failed.card", "UNIT mm\nLEAVE BLOCK 10 X 10 X 10\nCUT ⌀#3 THRU\nCUT ⌀2 THRU\n"),
      "--json",
    );
    expect(r.code).toBe(1);
    const j = JSON.parse(r.out);
    expect(j.ok).toBe(false);
    expect(j.rows.map((x: { state: string }) => x.state)).toEqual(["ok", "failed", "ok"]);
    expect(j.errors[0]).toMatchObject({ line: 3, column: 6 });
    expect(j).toMatchObject({ stock: null });
  });
  it("exits 2 when the card could not be read, claims nothing, and points at the place", async () => {
    const r = await run(
      "check",
      file("broken.card", "UNIT in\nLEAVE BLOCK 1 X 2\nCUT ⌀.25 THRU\nCUT POCKE 1 X 1\n"),
      "--json",
    );
    expect(r.code).toBe(2);
    const j = JSON.parse(r.out);
    expect(j).toMatchObject({ ok: false, part: null, stock: null, rows: [], findings: [], ledger: [], checks: [] });
    expect(j.errors).toEqual([
      { line: 2, column: 18, message: expect.any(String), expected: "X" },
      { line: 4, column: 5, message: expect.any(String), expected: expect.stringContaining("POCKET") },
    ]);
    expect((await run("check", "nowhere.card", "--json")).code).toBe(2);
    expect((await run("check", file("bad.json", '{"format": "sgorbia.job", '), "--json")).code).toBe(2);
    expect((await run("frobnicate")).code).toBe(2);
  });
  it("formats, exports and checks a document as well as a card", async () => {
    const card = file("good.card", good);
    const formatted = await run("format", card);
    expect(formatted.out).toBe(good.replace("ROUND #1", "ROUND ⌀#1"));
    const json = path.join(dir, "good.job.json");
    expect((await run("export", card, "--to", "json", "--out", "good.job.json")).code).toBe(0);
    expect(JSON.parse(readFileSync(json, "utf8"))).toMatchObject({ format: "sgorbia.job", name: "lid" });
    expect(JSON.parse((await run("check", json, "--json")).out)).toMatchObject({ ok: true });
    expect(await run("export", card, "--to", "step", "--out", "good.step")).toMatchObject({ code: 0, out: "" });
    expect(readFileSync(path.join(dir, "good.step"), "utf8")).toMatch(/^ISO-10303-21/);
    expect((await run("export", card, "--to", "hologram", "--out", "x")).code).toBe(2);
    expect((await run("check", card)).out).toContain("3  OFF CUT FACE DEEP .1   [off]");
  });
  it("does not crash on extreme cards", async () => {
    const extreme = [
      "UNIT mm",
      "LEAVE BLOCK 99999 X 0.01 X 0.01",
      "CUT ⌀0.001 THRU",
      `CUT ⌀1 DEEP ${"9".repeat(300)}`,
      "CUT ⌀1 THRU GRID 5000 5000 BY 1 1",
      "CUT POCKET 1 X 1 R.5 DEEP 1",
      "CUT CHAMFER 500 ALL SHARP",
      "CUT ROUND .001 ALL SHARP",
      `CUT ⌀1 THRU AT ${"1,1 ".repeat(600)}`,
    ].join("\n");
    const r = await run("check", file("extreme.card", extreme), "--json");
    expect([0, 1, 2]).toContain(r.code);
    expect(() => JSON.parse(r.out)).not.toThrow();
    const noise = await run(
      "check",
      file(
        "noise.card",
        Array.from({ length: 400 }, (_, i) => String.fromCharCode(33 + ((i * 7919) % 90)).repeat(i % 60)).join("\n"),
      ),
      "--json",
    );
    expect(noise.code).toBe(2);
  });

  it("explains a check value that is off, ranked", async () => {
    const card =
      'JOB "x"\nUNIT mm\nMATERIAL "steel 1018"\n#1 ⌀60 h9\nLEAVE ROUND ⌀#1 X 12\nCUT 5X ⌀8 THRU ON BC 42\nCHECK HOLES 6\nCHECK SIZE Z 12\n';
    const r = await run("explain", file("five.card", card), "--json");
    expect(r.code).toBe(0);
    const list = JSON.parse(r.out);
    expect(list).toHaveLength(1);
    expect(list[0].check).toMatchObject({ kind: "holes", expected: 6, actual: 5 });
    expect(list[0].explanations[0]).toEqual({
      rank: 1,
      kind: "one-instance-missing",
      row: 2,
      field: "count",
      from: "5",
      to: "6",
      value: 6,
      residual: 0,
      agrees: true,
      alsoMends: 0,
    });
    expect((await run("explain", file("five.card", card))).out).toContain("5 -> 6");
    // Where slips only come near it says so, and what else the figure may hang on: .01 of broken edge is 10 % of it.
    const near = `UNIT in\n#1 4\nLEAVE BLOCK #1 X 2.5 X .75\nCUT POCKET 1 X .5 R.125 DEEP .25\nCUT BREAK .01 OUTER TOP\nCHECK VOLUME 7.3845\n`;
    const told = (await run("explain", file("near.card", near))).out;
    expect(told).toContain("no slip explains it");
    expect(told).toMatch(/what else it may hang on: broken edges \(10 % of the difference\)/);
    expect(told).toContain("near, not within the tolerance");
    expect(JSON.parse((await run("explain", file("fine.card", card.replace("5X", "6X")), "--json")).out)).toEqual([]);
    expect(JSON.parse((await run("explain", file("broken.card", "UNIT mm\nNONSENSE"), "--json")).out)).toMatchObject({
      ok: false,
      errors: [{ line: 2 }],
    });
  });
  it("carries the ledger with limits, where they come from and what proved it", async () => {
    const j = JSON.parse(
      (
        await run(
          "check",
          file(
            "fit.card",
            "UNIT mm\nTOLERANCES ISO 2768-m\nLET wall = 4!\n#1 ⌀20 H7\n#2 30 BASIC\n#3 25.5 / 25.3\n#4 (12)\nLEAVE BLOCK 60 X #2 X #3\nCUT ⌀#1 THRU\nCUT POCKET (60 - 2*wall) X 4 DEEP 3 AT 0,12\n",
          ),
          "--json",
        )
      ).out,
    );
    expect(j.ledger[0]).toMatchObject({
      number: 1,
      text: "⌀20 H7",
      kind: "diameter",
      state: "proved",
      nominal: 20,
      low: 20,
      high: 20.021,
      tolerance: "H7, ISO 286-1",
      rows: [2],
    });
    expect(j.ledger[1]).toMatchObject({ state: "proved", low: 30, high: 30 });
    expect(j.ledger[2]).toMatchObject({
      state: "proved",
      nominal: 25.4,
      tolerance: "limits",
      measured: expect.closeTo(25.4, 9),
    });
    // The reference dimension is as large as a place by chance: that proves nothing.
    expect(j.complete).toMatchObject({ balloons: 4, proved: 3 });
  });
  it("tells of every outline what it measures, what is free and what contradicts, by lines", async () => {
    const j = JSON.parse(
      (
        await run(
          "check",
          file(
            "outlines.card",
            'UNIT mm\nOUTLINE "free"\nSTART 0,0\nLINE TO X ? NEAR 40,0\nLINE TO Y 20\nLINE TO X 0\nCLOSE\nEND\nOUTLINE "clash"\nSTART 0,0\nLINE TO X 40\nLINE TO Y 20\nLINE TO X 0\nCLOSE\nLENGTH 2 25\nEND\nOUTLINE "disc"\nCIRCLE D20\nEND\nLEAVE PRISM "disc" X 5\n',
          ),
          "--json",
        )
      ).out,
    );
    expect(j.ok).toBe(true);
    expect(j.outlines[0]).toMatchObject({
      name: "free",
      closed: true,
      degreesOfFreedom: 1,
      free: ["the end of step 1 (P1) is free along X", "the end of step 2 (P2) is free along X"],
      conflicts: [],
      solved: true,
    });
    expect(j.outlines[1].conflicts).toHaveLength(1);
    expect(j.outlines[1].conflicts[0].drop).toContainEqual({ line: 15, text: "LENGTH 2 25" });
    expect(j.outlines[1].conflicts[0].lines).toContain(15);
    expect(j.outlines[1].area).toBeCloseTo(800, 6);
    expect(j.outlines[2]).toMatchObject({
      area: expect.closeTo(100 * Math.PI, 9),
      perimeter: expect.closeTo(20 * Math.PI, 9),
      boundingBox: { min: [-10, -10], max: [10, 10] },
      degreesOfFreedom: 0,
      problems: [],
      defects: [],
    });
    const failed = await run(
      "check",
      file(
        "clash.card",
        'UNIT mm\nOUTLINE "clash"\nSTART 0,0\nLINE TO X 40\nLINE TO Y 20\nLINE TO X 0\nCLOSE\nLENGTH 2 25\nEND\nLEAVE PRISM "clash" X 5\n',
      ),
      "--json",
    );
    expect(failed.code).toBe(1);
    expect(JSON.parse(failed.out).rows[0].message).toMatch(/contradict/);
  });
});
