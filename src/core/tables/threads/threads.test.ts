import { INCH } from "../../number";
import { inchDrills, metricDrills } from "../drills";
import {
  acme,
  findThread,
  inchThreads,
  metricCoarse,
  metricFine,
  outOfLimits,
  parallelPipe,
  percentThread,
  pipeDiameters,
  pipeThreads,
  powerDiameters,
  readThread,
  threadLimits,
  trapezoidal,
} from ".";

const inside = (designation: string) => threadLimits(findThread(designation)!, "inside")!;

describe("sizes of threads", () => {
  it("have tap drills that leave half to nine tenths of the thread", () => {
    for (const t of [...inchThreads.rows, ...metricCoarse.rows, ...metricFine.rows]) {
      const p = percentThread(t, t.tapDrill);
      expect([t.name, p > 50 && p < 93, p]).toEqual([t.name, true, p]);
    }
  });
  it("have tap drills within the limits of their usual class, but for charts that go by two places", () => {
    const out = [...metricCoarse.rows, ...metricFine.rows, ...inchThreads.rows].filter((t) => {
      const { minorMin, minorMax } = inside(t.series === "M" ? t.name : `${t.name} ${t.series}`);
      return outOfLimits(t.tapDrill, minorMin, minorMax);
    });
    // Printed so in charts of tap drills: 33/64 and 37/64 lie a thousandth of an inch and less over class 2B.
    const charted = out.filter((t) => t.series !== "M").map((t) => t.name);
    expect(charted.every((name) => ["9/16-18", "5/8-18", "1-72", "12-28", "1-1/8-7"].includes(name))).toBe(true);
    expect(out.filter((t) => t.series === "M").map((t) => t.name)).toEqual([]);
  });
  it("name the drill they give", () => {
    for (const t of inchThreads.rows) {
      const named = [...inchDrills.rows, ...metricDrills.rows].find((d) => d.name === t.drillName);
      if (named) expect(Math.abs(named.diameter - t.tapDrill)).toBeLessThan(0.001);
      else expect(t.drillName).toMatch(/^bored to/);
    }
  });
  it("are every size once", () => {
    for (const list of [inchThreads.rows, metricCoarse.rows, metricFine.rows])
      expect(new Set(list.map((t) => t.name)).size).toBe(list.length);
  });
  it("have drills under taper pipe threads between one and two thread heights of .8 P", () => {
    for (const t of pipeThreads.rows) {
      const heights = (t.major - t.tapDrill) / (1.6 * t.pitch);
      expect([t.name, heights > 1 && heights < 1.6, heights]).toEqual([t.name, true, heights]);
    }
  });
  it("have drills for parallel pipe threads within their minor diameter", () => {
    for (const t of parallelPipe.rows) {
      const { minor } = pipeDiameters(t);
      expect([t.name, outOfLimits(t.tapDrill, minor, minor + t.minorTolerance)]).toEqual([t.name, null]);
    }
    // ISO 228-1: G 1/2 has 20.955, 19.793 and 18.631; G 1 33.249, 31.770, 30.291.
    expect(pipeDiameters(parallelPipe.rows.find((r) => r.name === "1/2")!)).toEqual({ pitch: 19.793, minor: 18.631 });
    expect(pipeDiameters(parallelPipe.rows.find((r) => r.name === "1")!)).toEqual({ pitch: 31.77, minor: 30.291 });
  });
  it("know the threads that move things: Tr 40 x 7, Tr 20 x 4, 1-5 Acme", () => {
    const tr = (name: string) => powerDiameters(trapezoidal.rows.find((r) => r.name === name)!);
    expect(tr("40X7")).toEqual({ insideMajor: 41, pitchDiameter: 36.5, insideMinor: 33, outsideRoot: 32 });
    expect(tr("20X4")).toEqual({ insideMajor: 20.5, pitchDiameter: 18, insideMinor: 16, outsideRoot: 15.5 });
    expect(powerDiameters(acme.rows.find((r) => r.name === "1-5")!).outsideRoot / INCH).toBeCloseTo(0.78, 9);
  });
});

describe("designations", () => {
  it.each([
    ["10-32 UNF-2B DEEP", "10-32 UNF-2B", 12],
    ["1/4-20 THRU", "1/4-20", 6],
    // A small letter is the class of an outside thread, and stays one.
    ["m6x1-6h", "M6X1-6h", 7],
    ["1/4-18 NPT THRU", "NPT 1/4-18", 10],
    ["3/8-18 NPTF", "NPTF 3/8-18", 11],
    ["M10X1.5-4g6g X 20", "M10X1.5-4g6g", 12],
    ["1/2-13 UNC-2A-LH", "1/2-13 UNC-2A-LH", 16],
    ["1/2-13 UNC 2A LH", "1/2-13 UNC-2A-LH", 16],
    ["M10 LH", "M10-LH", 6],
    ["1/4-28 UNJF-3B", "1/4-28 UNJF-3B", 14],
    ["2-12 UN-2B", "2-12 UN-2B", 10],
    ["1/4-20-2B THRU", "1/4-20-2B", 9],
    ["G1/4", "G 1/4", 4],
    ["G 1/2 A", "G 1/2 A", 7],
    ["Tr40x7-7e", "TR40X7-7e", 9],
    ["1-5 ACME-2G", "1-5 ACME-2G", 11],
    ["MJ6X1-4H5H", "MJ6X1-4H5H", 10],
    [".375-16 UNC", "3/8-16 UNC", 11],
  ])("%s is read as %s", (text, designation, length) => {
    expect(readThread(text)).toEqual({ designation, length });
    // What is read is found, and read again as it is written.
    expect(findThread(designation)).not.toBeNull();
    expect(readThread(designation)?.designation).toBe(designation);
  });
  it.each([
    "10-33 THRU",
    "5 X 2",
    "R1/4",
    "GRID 2 2",
    "7/8-3/8",
    "2.5-1.25",
    "MOUTH OF 2",
    "4-8 HOLES",
    "3-4 2X",
    "2-12",
  ])("%s is none", (text) => expect(readThread(text)).toBeNull());
  it.each(["M8X9", "nonsense", "NPT 1/4-20", "G 5/7", "TR40X8", "1-6 ACME"])("%s is not found", (text) =>
    expect(findThread(text)).toBeNull(),
  );
  it.each([
    ["2-12 UN", 2],
    ["2-12", 2],
    ["2-16 UN", 2],
    ["3-12", 3],
    ["4-12 UN-2B", 4],
    ["2-56", 0.086],
    ["4-40 UNC", 0.112],
    ["12-32 UNEF", 0.216],
    ["1-64", 0.073],
    ["1-8", 1],
    ["0-80", 0.06],
    ["1-3/4-5 UNC", 1.75],
    ["11/16-24 UNEF", 0.6875],
    ["13/16-20 UNEF", 0.8125],
    ["1-1/16-18 UNEF", 1.0625],
  ])("%s has a major diameter of %s in, and a size of its series", (designation, inches) => {
    const t = findThread(designation)!;
    expect(t.major / INCH).toBeCloseTo(inches, 9);
    expect(t.size?.tapDrill).toBeGreaterThan(0);
  });
  it.each([
    ["M39", 4],
    ["M42", 4.5],
    ["M48", 5],
    ["M64", 6],
    ["M1.4", 0.3],
    ["M8X1", 1],
  ])("%s has a pitch of %s", (designation, pitch) => expect(findThread(designation)).toMatchObject({ pitch }));
  it("tells class, side and hand", () => {
    expect(findThread("M10-6g")).toMatchObject({ class: "6g", external: true });
    expect(findThread("M10-4H5H")).toMatchObject({ class: "4H5H", external: false });
    expect(findThread("1/4-20 UNC-3A-LH")).toMatchObject({ class: "3A", external: true, leftHand: true });
    expect(findThread("1/4-20")).toMatchObject({ class: null, external: null });
  });
  it("keeps the drill of a thread with a rounded root out of its crest", () => {
    for (const name of ["MJ6X1", "MJ10X1.5", "1/4-28 UNJF-3B", "1/2-13 UNJC-3B"]) {
      const t = findThread(name)!;
      expect(t.size!.tapDrill).toBeGreaterThanOrEqual(threadLimits(t, "inside")!.minorMin! - 1e-6);
    }
  });
});
