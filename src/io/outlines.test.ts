import { readCard } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import { evaluateOutlines } from "@/core/outline/evaluateOutline";
import { outlineDxf, outlineDxfNewer, readDxf } from "./dxfOutlines";
import { outlinesOfChains } from "./chainItems";
import { readSvg } from "./svgOutlines";
import { outlineSvg } from "./svg";

const evaluated = (unit: "mm" | "in", ...lines: string[]) => {
  const { job, errors } = readCard([`UNIT ${unit}`, 'OUTLINE "plate"', ...lines, "END"].join("\n"));
  if (errors.length) throw new Error(errors[0].message);
  return [...evaluateOutlines(job.outlines, numberScope(job)).values()];
};
const readDxfOutlines = (text: string, unit: "mm" | "in") => {
  const r = readDxf(text, unit);
  return { outlines: outlinesOfChains(r.chains, ""), problems: r.problems };
};
const shape = [
  "START 0,0",
  "LINE TO X 4.5",
  "ARC TO 4.5,2 R 1 CCW",
  "LINE TO 1.7,2.3",
  "ARC TO 0,1.1 R 1.3 CW",
  "CLOSE",
  "CIRCLE ⌀.5 AT 3,1",
];

describe("outlines as files", () => {
  it.each(["mm", "in"] as const)("go out as DXF and come back to 1e-6 mm (%s)", (unit) => {
    const out = evaluated(unit, ...shape),
      read = readDxfOutlines(outlineDxf(out, unit), unit);
    expect(read.problems).toEqual([]);
    expect(read.outlines.map((o) => o.name)).toEqual(["plate 1", "plate 2"]);
    const { job } = readCard(`UNIT ${unit}`);
    const back = [
      ...evaluateOutlines(
        read.outlines.map((o, i) => ({ id: `o${i}`, name: o.name, items: o.items })),
        numberScope(job),
      ).values(),
    ];
    expect(back.map((b) => [b.problems, b.wire?.conflicts ?? [], b.open.length])).toEqual([
      [[], [], 0],
      [[], [], 0],
    ]);
    expect(back[0].area - back[1].area).toBeCloseTo(out[0].area, 6);
    expect(back[0].perimeter + back[1].perimeter).toBeCloseTo(out[0].perimeter, 6);
    expect(back[0].region[0].filter((s) => s.kind === "arc")).toHaveLength(2);
  });
  it("read closed polylines with bulges, units of their own, and list gaps and what is left out", () => {
    const dxf = (header: string[], ...e: (string | number)[][]) =>
      [
        "0",
        "SECTION",
        "2",
        "HEADER",
        ...header,
        "0",
        "ENDSEC",
        "0",
        "SECTION",
        "2",
        "ENTITIES",
        ...e.flat().map(String),
        "0",
        "ENDSEC",
        "0",
        "EOF",
      ].join("\n");
    const slot = [
      0,
      "LWPOLYLINE",
      8,
      "SLOT",
      90,
      4,
      70,
      1,
      10,
      0,
      20,
      0,
      10,
      2,
      20,
      0,
      42,
      1,
      10,
      2,
      20,
      1,
      10,
      0,
      20,
      1,
      42,
      1,
    ];
    const r = readDxfOutlines(
      dxf(
        ["9", "$INSUNITS", "70", "1"],
        slot,
        [0, "LINE", 8, "EDGE", 10, 0, 20, 5, 11, 1, 21, 5],
        [0, "LINE", 8, "EDGE", 10, 2, 20, 5, 11, 1, 21, 5],
        [0, "3DFACE", 8, "X", 10, 0, 20, 0, 11, 1, 21, 0, 12, 1, 22, 1, 13, 0, 23, 1],
      ),
      "mm",
    );
    const { job } = readCard("UNIT mm");
    const e = [
      ...evaluateOutlines([{ id: "o", ...r.outlines.find((o) => o.name === "slot")! }], numberScope(job)).values(),
    ][0];
    expect(e.area).toBeCloseTo((2 + Math.PI / 4) * 645.16, 5);
    expect(r.problems.some((p) => /EDGE: a chain is open from 0, 127 mm/.test(p))).toBe(true);
    expect(r.problems.some((p) => /3DFACE left out/.test(p))).toBe(true);
    expect(readDxfOutlines("no dxf", "mm")).toMatchObject({ outlines: [], problems: [expect.any(String)] });
  });
  // Codes of $INSUNITS; millimetres of each, from memory: 1 inch, 2 foot, 4 mm, 5 cm, 6 m, 13 micrometre, 14 dm.
  it.each([
    [1, 25.4],
    [4, 1],
    [5, 10],
    [6, 1000],
    [13, 0.001],
    [14, 100],
    [0, 1],
  ])("numbers of a drawing with $INSUNITS %s are %s mm each", (code, mm) => {
    const line = [0, "LINE", 8, "A", 10, 0, 20, 0, 11, 200, 21, 0];
    const header = [0, "SECTION", 2, "HEADER", 9, "$INSUNITS", 70, code, 0, "ENDSEC"];
    const text = [...header, 0, "SECTION", 2, "ENTITIES", ...line, 0, "ENDSEC", 0, "EOF"].join("\n");
    expect(readDxf(text, "mm").chains.map((c) => c.length)).toEqual([expect.closeTo(200 * mm, 6)]);
    // Somebody's own word is over the file's.
    expect(readDxf(text, "mm", "in").chains[0].length).toBeCloseTo(200 * 25.4, 6);
  });
  it("go out as SVG with arcs as arcs", () => {
    const svg = outlineSvg(evaluated("mm", "SLOT 40 X 10", "CIRCLE ⌀4")[0]);
    expect(svg.match(/A5 5 0 0 0/g)!.length + (svg.match(/A5 5 0 1 0/g)?.length ?? 0)).toBe(2);
    expect(svg.match(/A2 2/g)).toHaveLength(2);
    expect(svg).toContain("M-15 5L15 5A");
  });
  it("go out as SVG and come back to 1e-6 mm", () => {
    const out = evaluated("mm", ...shape)[0],
      r = readSvg(outlineSvg(out), "mm");
    expect(r.problems).toEqual([]);
    expect(r.said).toBe("mm");
    const back = again(r, "mm");
    expect(back.reduce((sum, o) => sum + (o.wire ? o.area : -o.area), 0)).toBeCloseTo(out.area, 6);
    expect(back.reduce((sum, o) => sum + o.perimeter, 0)).toBeCloseTo(out.perimeter, 6);
    expect(back[0].box!.max.x).toBeCloseTo(out.box!.max.x, 6);
  });
  it("go out as newer DXF: closed polylines with bulges, back to 1e-6 mm, in inches too", () => {
    for (const unit of ["mm", "in"] as const) {
      const out = evaluated(unit, ...shape),
        file = outlineDxfNewer(out, unit),
        r = readDxf(file, unit);
      expect(file).toContain("LWPOLYLINE");
      expect([r.said, r.problems]).toEqual([unit, []]);
      const back = again(r, unit);
      expect(back.map((b) => b.open.length)).toEqual([0, 0]);
      expect(Math.abs(back[0].area - back[1].area - out[0].area)).toBeLessThan(1e-6);
      expect(back[0].perimeter + back[1].perimeter).toBeCloseTo(out[0].perimeter, 6);
    }
    // More than half a turn is two bulges: one would be without end.
    const link = evaluated("mm", "LINK ⌀30 AT -20,0 ⌀12 AT 24,10"),
      back = again(readDxf(outlineDxfNewer(link, "mm"), "mm"), "mm");
    expect(back[0].area).toBeCloseTo(link[0].area, 6);
  });
});

const again = (r: ReturnType<typeof readDxf>, unit: "mm" | "in") => {
  const { job } = readCard(`UNIT ${unit}`);
  return [
    ...evaluateOutlines(
      outlinesOfChains(r.chains, "").map((o, i) => ({ id: `o${i}`, ...o })),
      numberScope(job),
    ).values(),
  ];
};

describe("files that are not as they should be", () => {
  const dxf = (...e: (string | number)[][]) => [
    "0",
    "SECTION",
    "2",
    "ENTITIES",
    ...e.flat().map(String),
    "0",
    "ENDSEC",
    "0",
    "EOF",
  ];
  const line = (x: number | string) => [0, "LINE", 8, "A", 10, 0, 20, 0, 11, x, 21, 5];

  it("say the line of a DXF that is wrong and read the rest", () => {
    const lines = dxf(line(1), line("twelve"), line(3));
    const r = readDxf(lines.join("\n"), "mm");
    expect(r.problems[0]).toBe('line 26: "twelve" is no number (code 11); this LINE is left out');
    expect(r.layers).toEqual([{ name: "A", elements: 2 }]);
    const odd = [...lines.slice(0, 20), "rubbish", ...lines.slice(21)];
    const o = readDxf(odd.join("\n"), "mm");
    expect(o.problems[0]).toMatch(/^line 21: "rubbish" is no group code/);
    expect(o.chains.length).toBeGreaterThan(0);
  });
  it("read what is there of a DXF that stops short, and nothing of what is none", () => {
    const lines = dxf(line(1), line(2), line(3));
    const r = readDxf(lines.slice(0, -7).join("\n"), "mm");
    expect(r.problems[0]).toMatch(/stops before its EOF/);
    expect(r.layers[0].elements).toBeGreaterThanOrEqual(2);
    for (const bad of ["", "hello", "\0\0\0", "0\nEOF", "<svg/>"])
      expect(readDxf(bad, "mm")).toMatchObject({ chains: [], problems: [expect.any(String)] });
  });
  it("let somebody say what unit a DXF is in, whatever it says itself", () => {
    const text = dxf(line(1)).join("\n");
    expect(readDxf(text, "mm").said).toBeNull();
    expect(readDxf(text, "mm", "in").chains[0].length).toBeCloseTo(25.4 * Math.hypot(1, 5), 9);
    expect(readDxf(text, "in", "mm").chains[0].length).toBeCloseTo(Math.hypot(1, 5), 9);
  });
  it("close gaps that are asked to be closed", () => {
    const text = dxf(
      [0, "LINE", 8, "A", 10, 0, 20, 0, 11, 10, 21, 0],
      [0, "LINE", 8, "A", 10, 10, 20, 0, 11, 10, 21, 8],
      [0, "LINE", 8, "A", 10, 10, 20, 8, 11, 0, 21, 0.02],
    ).join("\n");
    const r = readDxf(text, "mm");
    expect(r.chains[0]).toMatchObject({ closed: false, gap: { width: expect.closeTo(0.02, 9) } });
    const { job } = readCard("UNIT mm");
    const [e] = evaluateOutlines(
      outlinesOfChains(r.chains, ".05").map((o) => ({ id: "o", ...o })),
      numberScope(job),
    ).values();
    expect([e.open.length, e.region.length]).toEqual([0, 1]);
    expect(e.area).toBeCloseTo(40, 0);
  });
  it("take an SVG’s shapes by their groups, moved, scaled and in its own size", () => {
    const r = readSvg(
      '<svg width="2in" height="1in" viewBox="0 0 200 100"><g id="Holes" transform="translate(100 50)"><circle r="10" cx="5" cy="0"/></g><rect x="10" y="10" width="40" height="20" rx="5"/><text>no</text><path d="M0 0 L10 0 A5 5 0 0 1 10 10 L0 10 Z"/><ellipse cx="50" cy="50" rx="20" ry="10"/></svg>',
      "mm",
    );
    const k = 25.4 / 100,
      back = again(r, "mm");
    expect(r.said).toBe("in");
    expect(r.layers.map((l) => l.name)).toEqual(["Holes", "outline"]);
    expect(r.problems.map((p) => p.replace(/\d+ curves/, "n curves"))).toEqual([
      "1 text left out: no lines or arcs",
      "n curves taken as arcs within 0.002 mm",
    ]);
    expect(back.find((o) => o.name === "holes")!.box!.min).toEqual({
      x: expect.closeTo(95 * k, 6),
      y: expect.closeTo(-60 * k, 6),
    });
    const areas = back.map((o) => Math.abs(o.area) / (k * k)).sort((a, b) => a - b);
    expect(areas[0]).toBeCloseTo(100 + (Math.PI * 25) / 2, 6);
    expect(areas[1]).toBeCloseTo(Math.PI * 100, 6);
    expect(areas[2] / (Math.PI * 200)).toBeCloseTo(1, 3);
    expect(areas[3]).toBeCloseTo(800 - (4 - Math.PI) * 25, 6);
  });
  it("say what is wrong with an SVG", () => {
    expect(readSvg('<svg><path d="M0 0', "mm").problems[0]).toMatch(/no SVG that can be read/);
    expect(readSvg("<html></html>", "mm").problems[0]).toMatch(/no svg element/);
    expect(readSvg('<svg><path d="M0 0 L10 0 X5"/></svg>', "mm").problems[0]).toMatch(/a path cannot be read/);
  });
});
