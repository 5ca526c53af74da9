import { existsSync, readFileSync } from "node:fs";
import { INCH } from "../../number";
import { figuresHeld, lookUp, nearestSizes, searchTables, tablePages } from ".";
import { clearanceHole, inchClearance, majorOf, metricClearance, screwSize } from "../clearance";
import { startingValues } from "../cuttingData";
import { inchDrills } from "../drills";
import { findMaterial, materials } from "../materials";
import { profiles } from "../profiles";
import { pressed } from "./seals";

/** Figures of a size by their names, in millimetres, or in inches where they are so. */
const of = (query: string, ...names: string[]) => {
  const entry = lookUp(query);
  return names.map((n) => entry?.values[n] ?? entry?.angles?.[n] ?? null);
};
const inches = (query: string, ...names: string[]) =>
  of(query, ...names).map((v) => (v === null ? null : Number((v / INCH).toFixed(5))));

describe("the tables a shop keeps open", () => {
  it("have figures for every name of a size, and find each by its name", () => {
    for (const page of tablePages) {
      expect([page.id, page.find(page.example) !== null]).toEqual([page.id, true]);
      for (const entry of page.entries()) {
        expect([entry.what, lookUp(entry.what)?.values]).toEqual([entry.what, entry.values]);
        expect(Object.values(entry.values).filter((v) => !Number.isFinite(v))).toEqual([]);
        expect(entry.source.length).toBeGreaterThan(5);
      }
    }
    expect(figuresHeld()).toBeGreaterThan(10_000);
  });
  // Each case a table: a size as the standard or handbooks print it. From memory where no other source is named.
  it.each([
    ["M6 clearance", ["hole", "fine", "coarse"], [6.6, 6.4, 7]],
    ["M10 close fit", ["hole"], [10.5]],
    ["25 H7", ["min", "max"], [25, 25.021]],
    ["25 H7/g6", ["shaftMin", "shaftMax", "leastClearance"], [24.98, 24.993, 0.007]],
    ["keyway 28", ["width", "shaftDepth", "hubDepth"], [8, 4, 3.3]],
    ["keyway 22", ["width", "shaftDepth"], [6, 3.5]],
    ["keyway 22.1", ["width", "shaftDepth"], [8, 4]],
    ["ISO 3912 5x6.5", ["shaftDepth", "hubDepth", "keyDiameter"], [4.5, 2.3, 16]],
    ["ISO 4762 M6", ["headDiameter", "headHeight", "key", "counterbore", "counterboreDepth"], [10, 6, 5, 11, 6.4]],
    ["M6 SHCS", ["counterbore"], [11]],
    ["ISO 4762 M20", ["headDiameter", "key", "counterbore"], [30, 17, 33]],
    ["ISO 10642 M8", ["headTheoretical", "key", "countersinkAngle"], [17.92, 5, 90]],
    ["ISO 4017 M12", ["acrossFlats", "headHeight", "washer"], [18, 7.5, 24]],
    ["ISO 7380 M8", ["headDiameter", "headHeight"], [14, 4.4]],
    ["ISO 2009 M5", ["countersink", "headHeight"], [10.4, 2.7]],
    ["ISO 8734 6", ["pinMin", "pinMax", "holeMin", "holeMax"], [6.004, 6.012, 6, 6.012]],
    ["T-slot 14", ["headWidthMin", "headHeightMin", "depthMax", "bolt"], [23, 9, 28, 12]],
    ["DIN 471 20", ["grooveDiameter", "grooveDiameterMin", "grooveWidth"], [19, 18.87, 1.3]],
    ["DIN 471 50", ["grooveDiameter", "grooveDiameterMin", "ringThickness", "grooveWidth"], [47, 46.75, 2, 2.15]],
    ["DIN 472 32", ["grooveDiameter", "grooveDiameterMax", "grooveWidth"], [33.7, 33.95, 1.3]],
    ["DIN 472 22", ["grooveDiameter", "grooveDiameterMax", "ringThickness"], [23, 23.13, 1]],
    ["DIN 76 M10", ["grooveMin", "grooveMax", "grooveDiameter", "insideGrooveMin"], [2.5, 4.5, 7.7, 6]],
    ["DIN 509 0.6x0.3", ["width", "faceDepth"], [2.5, 0.2]],
    ["Morse 3", ["gauge"], [23.825]],
    ["7:24 40", ["gauge"], [44.45]],
    ["knurl 96 DP", ["pitch"], [0.831213]],
    ["ISO 6411 A2.5", ["pilot", "mouth"], [2.5, 5.3]],
    ["reamer 10", ["reamerMin", "reamerMax"], [10.006, 10.012]],
    ["reamer 25", ["reamerMin", "reamerMax"], [25.009, 25.017]],
    ["DRILL 8.5 mm", ["diameter"], [8.5]],
    ["insert M6", ["insertMinorMin", "insertMajor", "tapDrill"], [6.216506, 7.299038, 6.25]],
    ["25 ISO 2768-m", ["tolerance"], [0.2]],
  ])("%s", (query, names, figures) => {
    // A drill of 6.25 is on no shelf: the next one.
    const wanted = query === "insert M6" ? [figures[0], figures[1], 6.3] : figures;
    expect(of(query, ...names)).toEqual(wanted);
  });
  it.each([
    ["1/4-20 clearance", ["hole", "close", "loose"], [0.281, 0.266, 0.297]],
    ["#10 loose fit", ["hole"], [0.238]],
    ["1 RC4", ["holeMax", "shaftMin", "shaftMax"], [1.0012, 0.9984, 0.9992]],
    ["1 LC5", ["holeMax", "shaftMin", "shaftMax"], [1.0008, 0.9992, 0.9997]],
    ["1 LN2", ["holeMax", "shaftMin", "shaftMax"], [1.0008, 1.0008, 1.0013]],
    ["1 FN2", ["holeMax", "shaftMin", "shaftMax"], [1.0008, 1.0014, 1.0019]],
    ["keyway 1 in", ["width", "acrossShaft", "acrossHub"], [0.25, 0.85912, 1.11412]],
    ["Woodruff 606", ["shaftDepth", "hubDepth", "keyDiameter"], [0.2143, 0.0997, 0.75]],
    ["Woodruff 404", ["shaftDepth", "hubDepth"], [0.1355, 0.0685]],
    ["SHCS 1/4", ["headDiameter", "counterbore", "counterboreDepth", "key"], [0.375, 0.4375, 0.25, 0.1875]],
    ["SHCS 10-32", ["headDiameter", "counterbore"], [0.312, 0.375]],
    ["FHCS 1/4", ["headTheoretical"], [0.531]],
    ["FHMS 8", ["headTheoretical"], [0.332]],
    ["dowel 1/4", ["pinMin", "pinMax", "holeMin", "holeMax"], [0.2501, 0.2503, 0.2495, 0.25]],
    ["DRILL #7", ["diameter"], [0.201]],
    ["DRILL #80", ["diameter"], [0.0135]],
    ["LETTER F DRILL", ["diameter"], [0.257]],
    ["DRILL 2-1/2", ["diameter"], [2.5]],
    ["AS568-214", ["insideDiameter", "section"], [0.984, 0.139]],
    ["AS568-325", ["insideDiameter", "section"], [1.475, 0.21]],
    ["Jacobs 2", ["large", "small"], [0.559, 0.48764]],
    ["centre drill 3", ["pilot", "body"], [0.10938, 0.25]],
    ["NPT 1/2", ["pitchDiameterAtEnd", "pitchDiameterAtGauge", "effectiveLength"], [0.75843, 0.77843, 0.5337]],
    ["ASME B18.27 shaft 1", ["grooveDiameter", "grooveWidth"], [0.94, 0.046]],
  ])("%s, inches", (query, names, figures) => expect(inches(query, ...names)).toEqual(figures));
  it.each([
    ["DIN 471 19.5", "DIN 471 20"],
    ["M7 shcs", "ISO 4762 M8"],
    ["DIN 472 33", "DIN 472 34"],
    ["ISO 4762 M7", "ISO 4762 M8"],
    ["keyway 600", "keyway 500"],
    ["T-slot 15", "ISO 299-1 14"],
    ["dowel 7", "ISO 8734 8"],
    ["DRILL #85", "drill No. 80"],
    ["Morse 9", "Morse taper 7"],
    ["M6.5 clearance", "M7 clearance medium"],
    ["AS568-999", "AS568-445"],
    ["1/2-14", "NPT 1/2-14"],
  ])("has no %s, and names %s first", (query, nearest) => {
    expect(lookUp(query)).toBeNull();
    expect(nearestSizes(query)[0].what).toBe(nearest);
  });
  it("knows nothing of nonsense", () => {
    for (const query of ["", "   ", "wood", "M", "H7", "\u0000", "DIN 471", "keyway", "⌀", "25 Q9", "keyway -5"])
      expect([query, lookUp(query)]).toEqual([query, null]);
    expect(nearestSizes("wood")).toEqual([]);
  });
  it("finds by words", () => {
    expect(searchTables("counterbore")[0].page.title).toMatch(/counterbores/);
    expect(searchTables("m12").some((f) => f.entry.what === "ISO 4762 M12")).toBe(true);
    expect(searchTables("zzz")).toEqual([]);
  });
  it("says where it is not sure", () => {
    expect(lookUp("ISO 4762 M36")!.source).toMatch(/not sure/);
    expect(lookUp("ISO 4762 M6")!.source).not.toMatch(/not sure/);
  });
});

describe("clearance holes", () => {
  it("rise from class to class, and are each wider than their screw", () => {
    for (const r of metricClearance.rows) {
      expect([r.name, Number(r.name.slice(1)) < r.fine! && r.fine! < r.medium! && r.medium! < r.coarse!]).toEqual([
        r.name,
        true,
      ]);
    }
    for (const r of inchClearance.rows)
      expect([r.name, majorOf(r.name) < r.close! && r.close! < r.normal! && r.normal! < r.loose!]).toEqual([
        r.name,
        true,
      ]);
  });
  it("of inch screws are each a drill's size to the thousandth", () => {
    const sizes = new Set(inchDrills.rows.map((d) => Math.round((d.diameter / INCH) * 1000)));
    const fits = (mm: number) => [-1, 0, 1].some((k) => sizes.has(Math.round((mm / INCH) * 1000) + k));
    for (const r of inchClearance.rows)
      for (const mm of [r.close!, r.normal!, r.loose!]) expect([r.name, fits(mm)]).toEqual([r.name, true]);
  });
  it("go by the screw's size, however it is called", () => {
    expect(["M6", "m6", "M6X1-6g", "1/4-20 UNC-2A", "10-32", "#10", "1/4", "7/7"].map(screwSize)).toEqual([
      "M6",
      "M6",
      "M6",
      "1/4",
      "#10",
      "#10",
      "1/4",
      null,
    ]);
    expect(clearanceHole("M6", "sloppy")).toBeNull();
  });
});

describe("drills against another source", () => {
  const path = "/usr/share/units/definitions.units";
  // Debian's units 2.22 (GPL-3) carries numbers and letters with a table of its own.
  (existsSync(path) ? it : it.skip)("numbers 1 to 80 and letters are those of Debian's units", () => {
    const text = readFileSync(path, "utf8");
    const table = /drillgauge\[in\] \\\n((?:.*\\\n)*.*\n)/.exec(text)![1];
    const theirs = new Map([...table.matchAll(/^\s*(\d+)\s+(0?\.\d+)/gm)].map((m) => [Number(m[1]), Number(m[2])]));
    expect(theirs.size).toBeGreaterThan(60);
    for (const [n, size] of theirs)
      if (n >= 1 && n <= 80) expect([n, inches(`DRILL #${n}`, "diameter")[0]]).toEqual([n, size]);
    for (const m of text.matchAll(/^drill([A-Z])\s+(0\.\d+) in/gm))
      expect([m[1], inches(`LETTER ${m[1]} DRILL`, "diameter")[0]]).toEqual([m[1], Number(m[2])]);
  });
});

describe("materials", () => {
  it("are at least sixty, each name one material's", () => {
    expect(materials.rows.length).toBeGreaterThanOrEqual(60);
    const names = materials.rows.flatMap((m) =>
      [m.name, ...m.aliases].map((a) => [a.toLowerCase().replace(/[\s-]+/g, ""), m.name]),
    );
    const owners = new Map<string, string>();
    for (const [name, owner] of names) {
      expect([name, owners.get(name) ?? owner]).toEqual([name, owner]);
      owners.set(name, owner);
    }
  });
  it.each([
    ["7075-T6", "aluminium 7075", 2.81],
    ["6061-T651", "aluminium 6061", 2.7],
    ["17-4PH", "stainless 17-4", 7.78],
    ["1.4305", "stainless 303", 8],
    ["Ti 6Al-4V", "titanium 6al-4v", 4.43],
    ["42CrMo4", "steel 4140", 7.85],
  ])("%s is %s", (typed, name, density) => expect(findMaterial(typed)).toMatchObject({ name, density }));
  it("have starting values for each group: carbide over high speed steel", () => {
    for (const group of new Set(materials.rows.map((m) => m.group))) {
      const rows = startingValues.rows.filter((v) => v.group === group);
      const speed = (cutter: string) => Math.max(...rows.filter((v) => v.cutter === cutter).map((v) => v.speed[1]));
      expect([group, speed("carbide") > speed("high speed steel")]).toEqual([group, true]);
    }
    for (const v of startingValues.rows) expect(v.speed[0] < v.speed[1] && v.feedShare[0] < v.feedShare[1]).toBe(true);
  });
});

it("walls of tubes and profiles are under half their width", () => {
  for (const p of profiles.rows) expect([p.name, p.wall === null || p.wall < p.width / 2]).toEqual([p.name, true]);
});
it("a seal of 2.62 in a groove 2.08 by 3.6 is pressed by a fifth and fills seven tenths", () => {
  const { squeeze, fill } = pressed(2.62, 2.08, 3.6);
  expect(squeeze).toBeCloseTo(20.61, 2);
  expect(fill).toBeCloseTo(72, 0);
});
