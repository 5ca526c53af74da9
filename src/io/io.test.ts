import type { Mesh } from "@/core/engine";
import { circle, roundedLoop, rectangleCorners } from "@/core/outline";
import { sideFrame } from "@/core/geometry/vec";
import type { PathFile } from "@/core/paths/file";
import type { PathPlan } from "@/core/paths/plan";
import { DxfDrawing, drawingDxf, pathsDxf } from "./dxf";
import { pathsNc } from "./ncWords";
import { stlBytes } from "./stl";
import { drawingSvg } from "./svg";

const plan = (more: Partial<PathPlan>): PathPlan => ({
  row: 2,
  rowId: "r2",
  kind: "pocket",
  title: "pocket, row 2",
  frame: sideFrame("top", 20),
  depth: 8,
  cutter: { name: "⌀10", diameter: 10, reach: 30, feed: 500 },
  drill: null,
  chains: [roundedLoop(rectangleCorners(40, 20), 0)!],
  clearing: [],
  levels: [4, 8],
  points: [],
  rest: { area: 0, loops: [] },
  length: 0,
  minutes: 0,
  problem: null,
  drillRadius: 0,
  unplanned: [],
  cleared: null,
  ...more,
});
const pairs = (text: string) => {
  const lines = text.trimEnd().split("\r\n");
  return Array.from({ length: lines.length / 2 }, (_, i) => [Number(lines[2 * i]), lines[2 * i + 1]] as const);
};

describe("DXF", () => {
  it("is pairs of codes and values, of the R12 form", () => {
    const p = pairs(pathsDxf([plan({})], "mm"));
    expect(p).toContainEqual([1, "AC1009"]);
    expect(p.filter(([c, v]) => c === 0 && v === "LINE")).toHaveLength(4);
    expect(p[p.length - 1]).toEqual([0, "EOF"]);
  });

  it("stands in the unit of the job and says which", () => {
    const inch = pairs(pathsDxf([plan({})], "in"));
    expect(inch[inch.findIndex(([, v]) => v === "$INSUNITS") + 1]).toEqual([70, "1"]);
    expect(inch).toContainEqual([10, "-0.7874015748"]);
    const mm = pairs(pathsDxf([plan({})], "mm"));
    expect(mm[mm.findIndex(([, v]) => v === "$INSUNITS") + 1]).toEqual([70, "4"]);
    expect(mm).toContainEqual([10, "-20"]);
  });

  it("keeps arcs as arcs, counter-clockwise whatever way they were drawn", () => {
    const d = new DxfDrawing("mm");
    d.segment("A", { kind: "arc", centre: { x: 0, y: 0 }, radius: 5, start: Math.PI / 2, sweep: -Math.PI / 2 });
    const p = pairs(d.text());
    expect(p).toContainEqual([50, "0"]);
    expect(p).toContainEqual([51, "90"]);
    d.loop("A", circle(3));
    expect(pairs(d.text())).toContainEqual([0, "CIRCLE"]);
  });

  it("has layer names an old reader takes", () => {
    expect(new DxfDrawing("mm").layer("pocket, no. 2 ⌀")).toMatch(/^[A-Z0-9_$-]+$/);
  });

  it("draws a view line by line", () => {
    const p = pairs(
      drawingDxf(
        [
          {
            hidden: true,
            points: [
              { x: 0, y: 0 },
              { x: 1, y: 0 },
              { x: 1, y: 1 },
            ],
          },
        ],
        "mm",
      ),
    );
    expect(p.filter(([c, v]) => c === 0 && v === "LINE")).toHaveLength(2);
    expect(p).toContainEqual([8, "HIDDEN"]);
  });
});

describe("RS-274 words", () => {
  const file = (plans: PathPlan[], more: Partial<PathFile> = {}): PathFile => ({
    plans,
    leftOut: [],
    needs: ["spindle speed"],
    refused: [],
    stockKnown: true,
    zero: 20,
    standing: { before: 20, faced: 20 },
    ...more,
  });
  const words = (f: PathFile, unit: "in" | "mm" = "mm", name = "x") => {
    const r = pathsNc(f, unit, name);
    if (!r.ok) throw new Error(r.problems[0].message);
    return r.value;
  };

  it("go down level by level to the depth, from the plane of the highest path", () => {
    const text = words(file([plan({})]));
    expect(text).toContain("G21");
    expect([...text.matchAll(/^G1 Z(\S+)/gm)].map((m) => m[1])).toEqual(["-4.", "-8."]);
    expect(text.match(/T1 M6/g)).toHaveLength(1);
  });

  it("move in rapid over what stands, and over the faced piece once it is faced", () => {
    const face = plan({
      kind: "face",
      depth: 0,
      levels: [-5, 0],
      chains: [[{ kind: "line", from: { x: -60, y: 0 }, to: { x: 60, y: 0 } }]],
    });
    const text = words(file([face, plan({ row: 3 })], { standing: { before: 30, faced: 20 } }));
    const rapids = [...text.matchAll(/^(?:G0 )?Z(\S+)/gm)].map((m) => Number(m[1]));
    const of = text.indexOf("T2 M6");
    expect([...text.slice(0, of).matchAll(/^(?:G0 )?Z(\S+)/gm)].every((m) => Number(m[1]) >= 13)).toBe(true);
    expect(Math.min(...rapids)).toBe(3);
    expect([...text.matchAll(/^G1 Z(\S+)/gm)].map((m) => Number(m[1]))).toEqual([5, 0, -4, -8]);
  });

  it("say in the first lines what is not in them and what the machine still needs", () => {
    const text = words(
      file([plan({})], {
        leftOut: [
          { row: 4, what: "", why: "no path is planned for such a row yet" },
          { row: 5, what: "counterbore", why: "no path is planned for it yet" },
        ],
        stockKnown: false,
      }),
    );
    const first = text.split("\n").slice(0, 12).join("\n");
    for (const said of [
      "NOT A PROVEN PROGRAM",
      "ROW 4: NO PATH",
      "ROW 5, ITS COUNTERBORE",
      "STILL NEEDS: SPINDLE SPEED",
      "NO STOCK IS CHOSEN",
      "UNIT: MILLIMETRE",
    ])
      expect(first).toContain(said);
    expect(first.indexOf("ROW 5")).toBeLessThan(text.indexOf("G17"));
    expect(words(file([plan({})]), "in", "a (b) c")).not.toMatch(/\([^()]*\(/);
  });

  it("are not written when they could only do harm", () => {
    expect(pathsNc(file([plan({})], { refused: ["row 2 would cut into the jaws"] }), "mm", "x")).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("into the jaws") }],
    });
  });
});

describe("pictures and triangles", () => {
  it("an empty drawing is still a picture", () => {
    expect(drawingSvg([])).toMatch(/^<svg/);
  });

  it("hidden lines are dashed, visible ones are not", () => {
    const svg = drawingSvg(
      [
        {
          hidden: false,
          points: [
            { x: 0, y: 0 },
            { x: 10, y: 0 },
          ],
        },
        {
          hidden: true,
          points: [
            { x: 0, y: 5 },
            { x: 10, y: 5 },
          ],
        },
      ],
      { margin: 0 },
    );
    expect(svg.match(/stroke-dasharray/g)).toHaveLength(1);
    expect(svg).toContain('width="10mm" height="5mm"');
  });

  it("STL counts its triangles and gives their normals", () => {
    const mesh: Mesh = {
      positions: new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]),
      normals: new Float32Array(9),
      triangles: new Uint32Array([0, 1, 2]),
      groups: [],
      lines: new Float32Array(),
    };
    const bytes = stlBytes(mesh, "Gauge lid ⌀");
    const view = new DataView(bytes.buffer);
    expect(bytes.length).toBe(84 + 50);
    expect(view.getUint32(80, true)).toBe(1);
    expect([84, 88, 92].map((o) => view.getFloat32(o, true))).toEqual([0, 0, 1]);
  });
});
