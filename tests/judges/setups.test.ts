import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { prepare } from "@/core/engine/prepare";
import { assemblyOf } from "@/core/setups";
import { outlineDxfNewer } from "@/io/dxfOutlines";
import { mm } from "../helpers/card";
import { derivedCard, setUp } from "../setups/helpers";

// Judges of fixtures: Debian's python3-gmsh and python3-ezdxf with python3-shapely. Where they are missing the tests say so and
// are skipped.
const python = "/usr/bin/python3";
const has = (...what: string[]) => spawnSync(python, ["-c", `import ${what.join(",")}`]).status === 0;
const judge = (there: boolean) => (there ? it : it.skip);
const dir = mkdtempSync(path.join(tmpdir(), "sgorbia-setups-"));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const ask = (script: string, ...args: string[]) =>
  JSON.parse(
    execFileSync(python, ["-c", script, ...args], { encoding: "utf8" })
      .trim()
      .split("\n")
      .pop()!,
  );

const common = `
import gmsh,json,sys
gmsh.initialize()
gmsh.option.setNumber("General.Terminal",0)
gmsh.model.occ.importShapes(sys.argv[1])
gmsh.model.occ.synchronize()
v=gmsh.model.getEntities(3)
volumes=[gmsh.model.occ.getMass(*x) for x in v]
both=0
for lift in [0,0.5,3]:
  piece=gmsh.model.occ.copy([v[0]])
  gmsh.model.occ.translate(piece,0,0,lift)
  for o in v[1:]:
    r,_=gmsh.model.occ.intersect(piece,[o],removeObject=False,removeTool=False)
    both+=sum(gmsh.model.occ.getMass(*x) for x in r if x[0]==3)
print(json.dumps({"volumes":volumes,"both":both}))`;

const SETUPS = (n: number) => [`SETUP 10 MILL UP TOP ROWS 1-${n}`, "SETUP 20 MILL UP BOTTOM ROWS 1"];
const CLAMP = [
  "STOCK PLATE 64 X 44 X 28",
  "LEAVE BLOCK 60 X 40 X 20 R3",
  "CUT POCKET 40 X 20 R5 DEEP 8",
  "CUT 2X ⌀6 THRU LINE 2 BY 50 AT -25,0",
];

describe("what holds a piece", () => {
  judge(has("gmsh")).each([
    ["soft jaws", "jaws", [...CLAMP, ...SETUPS(3)], {}],
    [
      "jaws across x for a piece on its end",
      "jaws",
      ["LEAVE BLOCK 30 X 60 X 24", "SETUP 10 MILL UP TOP ROWS 1", "SETUP 20 MILL UP LEFT ROWS 1"],
      { across: "x" },
    ],
    ["a plate of two by two", "plate", [...CLAMP, ...SETUPS(3)], { stations: { x: 2, y: 2 } }],
    ["a plate with a boss", "plate", ["LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 40 X 25 R5 DEEP 12", ...SETUPS(2)], {}],
    ["bored jaws", "chuck", ["LEAVE ROUND ⌀50 X 30", "CUT ⌀20 THRU", ...SETUPS(2)], { grip: 8 }],
  ] as const)(
    "%s have nothing in common with it, as it lies and as it is lifted out",
    async (_, kind, rows, wishes) => {
      const card = await derivedCard(mm(...rows), kind, 20, wishes);
      const { setups, kernel, parts } = await setUp(card);
      const assembly = assemblyOf(setups[1], kernel, prepare(parts[0].job).scope, "piece");
      const file = path.join(dir, "held.step");
      writeFileSync(file, kernel.step(assembly));
      const { volumes, both } = ask(common, file);
      expect(volumes.length).toBe({ jaws: 3, plate: 2, chuck: 4 }[kind]);
      expect(volumes[0] / setups[1].standing!.before).toBeCloseTo(1, 6);
      expect(both).toBeLessThan(1e-3);
    },
  );

  judge(has("ezdxf", "shapely"))("a nest's area and its room round the piece, from the exported drawing", async () => {
    const card = await derivedCard(mm("LEAVE BLOCK 60 X 40 X 20", ...SETUPS(1)), "jaws", 20, {
      grip: 5,
      clearance: 0.1,
      relief: 8,
    });
    const { parts } = await setUp(card);
    const [nest] = parts[1].evaluation.outlines;
    const file = path.join(dir, "nest.dxf");
    writeFileSync(file, outlineDxfNewer([nest], "mm"));
    const found = ask(
      `
import ezdxf,json,sys
from ezdxf import path
from shapely.geometry import Polygon,box
doc=ezdxf.readfile(sys.argv[1])
loops=[[(p.x,p.y) for p in path.make_path(e).flattening(0.0005)] for e in doc.modelspace() if e.dxftype() in ("LWPOLYLINE","POLYLINE")]
nest=Polygon(loops[0]).buffer(0)
piece=box(-30,-20,30,20)
print(json.dumps({"area":nest.area,"inside":nest.contains(piece),"room":piece.exterior.distance(nest.exterior)}))`,
      file,
    );
    expect(found.inside).toBe(true);
    expect(found.area / nest.area).toBeCloseTo(1, 4);
    expect(found.room).toBeCloseTo(0.1, 3);
  });
});
