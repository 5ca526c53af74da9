import { runs } from "../helpers/thorough";
import { jobOf as workOf } from "@/core/job";
import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { viewOf } from "@/core/engine/views";
import { loopArea, sampleLoop } from "@/core/outline";
import { pathFile } from "@/core/paths/file";
import { planPaths } from "@/core/paths/plan";
import { exportJob, exportKinds, exportName } from "@/io/exportJob";
import { pathsDxf } from "@/io/dxf";
import { pathsNc } from "@/io/ncWords";
import { stlBytes } from "@/io/stl";
import { drawingSvg } from "@/io/svg";
import { stepVolume } from "@/kernel/stepFile";
import { loadEngine, loadKernel } from "@/kernel/node";
import { readJobText } from "@/core/job";
import { readCard, writeCard } from "@/core/callout";
import { evaluateCard, evaluateJob, inch, jobOf, mm } from "../helpers/card";

// The judges are Debian's: python3-ezdxf, python3-gmsh, admesh, python3-shapely, poppler-utils. Where they are
// missing the tests say so and are skipped.
const python = "/usr/bin/python3";
const has = (what: string) => spawnSync(python, ["-c", `import ${what}`]).status === 0;
const judge = (_name: string, there: boolean) => (there ? it : it.skip);
const dir = mkdtempSync(path.join(tmpdir(), "sgorbia-judge-"));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const put = (name: string, data: string | Uint8Array) => {
  const p = path.join(dir, name);
  writeFileSync(p, data);
  return p;
};
const ask = (script: string, ...args: string[]) =>
  JSON.parse(
    execFileSync(python, ["-c", script, ...args], { encoding: "utf8" })
      .trim()
      .split("\n")
      .pop()!,
  );

const part = mm(
  "LEAVE BLOCK 120 X 80 X 25 R6",
  "CUT POCKET 50 X 30 DEEP 8 AT 20,0",
  "CUT POCKET ⌀24 DEEP 10 AT -35,0",
  "CUT 4X ⌀6.6 THRU CBORE ⌀11 DEEP 6 GRID 2 2 BY 100 60",
  "CUT 4X M5 DEEP 10 DRILL DEEP 14 CSK ⌀5.6 X 90 GRID 2 2 BY 30 60",
  "CUT CHAMFER 1 OUTER TOP",
);

describe("files", () => {
  judge("gmsh", has("gmsh"))("STEP read back gives the same volume, by our kernel and by gmsh", async () => {
    const e = await evaluateCard(part);
    const { oc, kernel } = await loadEngine();
    const bytes = kernel.step([{ key: e.solved.finalKey!, name: "part" }]);
    expect(Math.abs(stepVolume(oc, bytes) / e.part!.volume - 1)).toBeLessThan(1e-9);
    const file = put("part.step", bytes);
    const volume = ask(
      'import gmsh,json,sys\ngmsh.initialize()\ngmsh.option.setNumber("General.Terminal",0)\ngmsh.model.occ.importShapes(sys.argv[1])\ngmsh.model.occ.synchronize()\nv=sum(gmsh.model.occ.getMass(3,t) for d,t in gmsh.model.getEntities(3))\nprint(json.dumps(v))',
      file,
    );
    expect(Math.abs(volume / e.part!.volume - 1)).toBeLessThan(1e-6);
  });
  judge("gmsh", has("gmsh") && spawnSync("admesh", ["--version"]).status !== null)(
    "turned, engraved and open to the edge: the same volume by gmsh, closed by admesh",
    async () => {
      const e = await evaluateCard(
        mm(
          'OUTLINE "half"',
          "START ⌀0,0",
          "LINE TO X ⌀50",
          "LINE TO Y 8",
          "ARC TO ⌀34,16 R 8",
          "LINE TO X ⌀0",
          "CLOSE",
          "END",
          'OUTLINE "mark"',
          'TEXT "T" HEIGHT 6 MIDDLE AT 0,6',
          "RECTANGLE 12 X 4 R1 AT 0,1",
          "END",
          'OUTLINE "flat"',
          "START -30,-10",
          "LINE TO X 30",
          "END",
          'LEAVE TURNED "half"',
          'CUT POCKET "flat" RIGHT DEEP 3',
          'CUT ENGRAVE "mark" V 60 DEEP .3',
        ),
      );
      expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok", "ok"]);
      const { kernel } = await loadEngine();
      const file = put("turned.step", kernel.step([{ key: e.solved.finalKey!, name: "part" }]));
      const volume = ask(
        'import gmsh,json,sys\ngmsh.initialize()\ngmsh.option.setNumber("General.Terminal",0)\ngmsh.model.occ.importShapes(sys.argv[1])\ngmsh.model.occ.synchronize()\nv=sum(gmsh.model.occ.getMass(3,t) for d,t in gmsh.model.getEntities(3))\nprint(json.dumps(v))',
        file,
      );
      expect(Math.abs(volume / e.part!.volume - 1)).toBeLessThan(1e-6);
      const out = execFileSync(
        "admesh",
        [put("turned.stl", stlBytes(kernel.closedMesh(e.solved.finalKey!), "turned"))],
        { encoding: "utf8" },
      );
      expect(/Number of parts\s*:\s*1\s/.test(out)).toBe(true);
      expect(/Total disconnected facets\s*:\s*0\s/.test(out)).toBe(true);
    },
  );
  judge("ezdxf", has("ezdxf"))("DXF passes an audit and holds the arcs as arcs", async () => {
    const e = await evaluateCard(part);
    const plans = planPaths(jobOf(part), e.solved.rows);
    const file = put("paths.dxf", pathsDxf(plans, "mm"));
    const r = ask(
      `import ezdxf,json,sys
d=ezdxf.readfile(sys.argv[1]); a=d.audit(); m=d.modelspace()
print(json.dumps({"errors":len(a.errors),"fixes":len(a.fixes),"kinds":{k:len(m.query(k)) for k in ["LINE","ARC","CIRCLE","POINT"]},"layers":sorted({e.dxf.layer for e in m}),"length":sum((e.dxf.end-e.dxf.start).magnitude for e in m.query('LINE[layer=="OUTLINE_1"]')),"radii":sorted({round(e.dxf.radius,6) for e in m.query('ARC[layer=="OUTLINE_1"]')})}))`,
      file,
    );
    expect(r).toMatchObject({ errors: 0, fixes: 0 });
    expect(r.kinds.POINT).toBe(8);
    expect(r.layers).toEqual(
      expect.arrayContaining(["OUTLINE_1", "POCKET_2", "POCKET_2_REST", "POCKET_3", "DRILL_4", "DRILL_5"]),
    );
    expect(r.length).toBeCloseTo(2 * (108 + 68), 6);
    expect(r.radii).toEqual([6 + plans[0].cutter!.diameter / 2]);
  });
  judge("admesh", spawnSync("admesh", ["--version"]).status !== null)(
    "STL is closed and holds the volume",
    async () => {
      const e = await evaluateCard(part);
      const kernel = await loadKernel();
      const out = execFileSync("admesh", [put("part.stl", stlBytes(kernel.closedMesh(e.solved.finalKey!), "part"))], {
        encoding: "utf8",
      });
      expect(/Total disconnected facets\s*:\s*0\s/.test(out)).toBe(true);
      expect(/Number of parts\s*:\s*1\s/.test(out)).toBe(true);
      const volume = Number(/Volume\s*:\s*([\d.]+)/.exec(out)![1]);
      expect(Math.abs(volume / e.part!.volume - 1)).toBeLessThan(2e-3);
    },
  );
  judge("shapely", has("shapely"))("the rest is what a buffer in and out leaves, by shapely", async () => {
    const e = await evaluateCard(part);
    const [pocket] = planPaths(jobOf(part), e.solved.rows).filter((p) => p.row === 2);
    const r = pocket.cutter!.diameter / 2;
    const area = ask(
      "import json,sys\nfrom shapely.geometry import box\nr=float(sys.argv[1])\np=box(-25,-15,25,15)\nprint(json.dumps(p.area-p.buffer(-r,resolution=400).buffer(r,resolution=400).area))",
      String(r),
    );
    expect(pocket.rest.area).toBeCloseTo(area, 3);
    expect(pocket.rest.area).toBeCloseTo(4 * (1 - Math.PI / 4) * r * r, 9);
    const wall = ask(
      "import json,sys\nfrom shapely.geometry import Polygon\nfrom shapely.geometry import box\npts=json.loads(sys.argv[1]);r=float(sys.argv[2])\nprint(json.dumps(Polygon(pts).symmetric_difference(box(-5,-15,45,15).buffer(-r)).area))",
      JSON.stringify(pocket.chains.map((l) => sampleLoop(l))[0].map((p) => [p.x, p.y])),
      String(r),
    );
    expect(wall).toBeLessThan(1e-6);
    expect(loopArea(pocket.chains[0])).toBeCloseTo((50 - 2 * r) * (30 - 2 * r), 9);
  });
  it("make every kind from every demo job, and the documents come back exactly", async () => {
    const folder = new URL("../../demo/", import.meta.url);
    const kernel = await loadKernel();
    const names = readdirSync(folder).filter((f) => f.endsWith(".job.json"));
    expect(names.length).toBeGreaterThanOrEqual(3);
    // Every kind from several jobs, and every job in some kinds: which of which goes round.
    const isMade = (job: number, kind: number) => (job + kind) % runs(1, 4) === 0;
    for (const [at, name] of names.entries()) {
      const text = readFileSync(new URL(name, folder), "utf8");
      const read = readJobText(text);
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      expect(JSON.parse(JSON.stringify(read.value))).toEqual(JSON.parse(text));
      const fromCard = readCard(writeCard(workOf(read.value))).job;
      expect(fromCard.rows).toEqual(workOf(read.value).rows.map((r, i) => ({ ...r, id: `r${i + 1}` })));
      const e = await evaluateJob(workOf(read.value));
      expect(e.solved.rows.filter((r) => r.state === "failed")).toEqual([]);
      for (const kind of exportKinds.filter((_, k) => isMade(at, k))) {
        const file = await exportJob(kind, read.value, e, kernel);
        // Machine words are made, or refused with what they would do.
        if (kind === "nc" && !file.ok)
          expect([name, file.problems[0].message]).toEqual([
            name,
            expect.stringMatching(/stock stand over|nothing is cut from above/),
          ]);
        else expect([name, kind, file.ok && file.value.length > 100]).toEqual([name, kind, true]);
        expect(exportName(read.value, kind)).toMatch(/^[a-z0-9-]+\.[a-z.]+$/);
      }
    }
  });
  judge("pdftotext", spawnSync("pdftotext", ["-v"]).status !== null)(
    "the setup sheet is two pages at most with callouts, cutters, remarks, cautions, holes and what is left out",
    async () => {
      const job = jobOf(`${part}\nCUT ⌀9 DEEP 4 FLAT AT 50,0\nSTOCK PLATE 130 X 90 X 30\nHOLD VISE GRIP 8 ACROSS Y`);
      const e = await evaluateJob(job);
      const made = await exportJob("pdf", job, e, await loadKernel());
      if (!made.ok) throw new Error(made.problems[0].message);
      const file = put("sheet.pdf", made.value);
      const text = execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
      for (const word of [
        "POCKET 50 X 30 DEEP 8",
        "PLATE 130 X 90 X 30",
        "⌀6.6",
        "sharp inside corner",
        "vise, grip 8",
        "qualified person",
        "not a proven program",
        "HOLES FROM THE DATUM",
        "row 5: tapping",
        "row 6 has no path",
        // A sign that no text face has stands in a title too.
        "bore ⌀ by milling, row 7",
      ])
        expect(text).toContain(word);
      expect(execFileSync("pdfinfo", [file], { encoding: "utf8" })).toMatch(/Pages:\s+[12]\n/);
    },
  );
  it("an SVG of a view keeps its size in millimetres", async () => {
    const e = await evaluateCard(mm("LEAVE BLOCK 40 X 30 X 20"));
    const svg = drawingSvg((await loadKernel()).drawing(e.solved.finalKey!, viewOf.top, true), { margin: 0 });
    expect(svg).toContain('width="40mm" height="30mm"');
    expect(svg).toMatch(/viewBox="0 0 40 30"/);
  });
  it("cannot export a part that is not there", async () => {
    const job = jobOf("UNIT mm\nCUT ⌀1 THRU");
    const r = await exportJob("step", job, await evaluateJob(job), await loadKernel());
    expect(r).toMatchObject({ ok: false });
  });
});

describe("RS-274 words", () => {
  it("cut the chains with arcs by centre, in the job's unit, from above only", async () => {
    const text = inch(
      "LEAVE BLOCK 4 X 3 X .75",
      "CUT POCKET 2 X 1.25 R.25 DEEP .4",
      "CUT 2X ⌀.201 THRU AT -1.5,1 1.5,1",
      "CUT ⌀.25 DEEP .3 ON FRONT AT 0,.4",
    );
    const e = await evaluateCard(text);
    const job = jobOf(text),
      made = pathsNc(pathFile(job, e, planPaths(job, e.solved.rows)), "in", "Lid ⌀2");
    if (!made.ok) throw new Error(made.problems[0].message);
    const words = made.value;
    expect(words.startsWith("%\n(LID DIA 2)\n")).toBe(true);
    expect(words).toMatch(/G17 G20 G40 G49 G80 G90/);
    expect(words.trimEnd().endsWith("M30\n%")).toBe(true);
    expect(words).toContain("ROW 4: CUT FROM ANOTHER SIDE, IN ANOTHER SETUP");
    // Only words RS-274 knows, every line.
    for (const line of words.split("\n")) expect(line).toMatch(/^(%|\([^()]*\)|([GMTXYZIJF]-?\d*\.?\d*\s?)+|)$/);
    // Every arc: both ends as far from its centre.
    let at = { x: 0, y: 0 };
    let arcs = 0;
    for (const line of words.split("\n")) {
      const n = (k: string) => {
        const m = new RegExp(`${k}(-?[\\d.]+)`).exec(line);
        return m ? Number(m[1]) : undefined;
      };
      const to = { x: n("X") ?? at.x, y: n("Y") ?? at.y };
      if (/^G[23]/.test(line)) {
        const c = { x: at.x + n("I")!, y: at.y + n("J")! };
        expect(Math.hypot(to.x - c.x, to.y - c.y)).toBeCloseTo(Math.hypot(at.x - c.x, at.y - c.y), 3);
        arcs++;
      }
      if (/^G|^X/.test(line)) at = to;
    }
    expect(arcs).toBeGreaterThan(4);
    expect(words).toMatch(/Z-0\.4 /);
  });
});

describe("paths", () => {
  it("take the cutter that is chosen, and say when it does not fit or reach", async () => {
    const job = jobOf(inch("LEAVE BLOCK 4 X 3 X .75", "CUT POCKET 2 X .4 R.1 DEEP .6"));
    const e = await evaluateJob(job);
    const plan = (cutter?: string) =>
      planPaths({ ...job, ...(cutter ? { cutters: [{ row: "r2", cutter }] } : {}) }, e.solved.rows).find(
        (p) => p.row === 2,
      )!;
    expect(plan().cutter?.name).toBe("⌀3/16");
    expect(plan("⌀1/2").problem).toMatch(/does not go in/);
    expect(plan("⌀1/8").problem).toMatch(/does not reach/);
    expect(plan("⌀1/4").rest.area / 645.16).toBeCloseTo((4 - Math.PI) * (0.125 ** 2 - 0.1 ** 2), 9);
  });
  it("measure length and time of every level", async () => {
    const job = jobOf(mm("LEAVE ROUND ⌀60 X 20", "CUT POCKET ⌀40 DEEP 10"));
    const [outline, pocket] = planPaths(job, (await evaluateJob(job)).solved.rows);
    expect(outline.kind).toBe("outline");
    expect(outline.length).toBeCloseTo(outline.levels.length * Math.PI * (60 + outline.cutter!.diameter), 6);
    expect(pocket.levels[pocket.levels.length - 1]).toBe(10);
    expect(pocket.minutes).toBeGreaterThan(pocket.length / pocket.cutter!.feed);
  });
});
