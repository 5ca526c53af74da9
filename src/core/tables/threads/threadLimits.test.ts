import { INCH } from "../../number";
import { preferredNumber } from "../rounding";
import { bestWire, findThread, isUsualClass, overWires, rootDiameter, threadLimits } from ".";
import { byFormula, byPitch, pitchByFormula, pitchTolerances } from "./metricTolerances";

const round = (v: number | null, unit: number, places: number) =>
  v === null ? null : Number((v / unit).toFixed(places));
function limits(designation: string, side: "inside" | "outside", unit = 1, places = 3) {
  const l = threadLimits(findThread(designation)!, side)!;
  const at = (v: number | null) => round(v, unit, places);
  return side === "inside"
    ? [at(l.pitchMin), at(l.pitchMax), at(l.minorMin), at(l.minorMax)]
    : [at(l.majorMin), at(l.majorMax), at(l.pitchMin), at(l.pitchMax)];
}

describe("metric limits, ISO 965-1", () => {
  // ISO 965-2 and handbooks: pitch and minor diameter of 6H, smallest and largest. Figures from memory.
  it.each([
    ["M3", [2.675, 2.775, 2.459, 2.599]],
    ["M4", [3.545, 3.663, 3.242, 3.422]],
    ["M5", [4.48, 4.605, 4.134, 4.334]],
    ["M6", [5.35, 5.5, 4.917, 5.153]],
    ["M8", [7.188, 7.348, 6.647, 6.912]],
    ["M10", [9.026, 9.206, 8.376, 8.676]],
    ["M12", [10.863, 11.063, 10.106, 10.441]],
    ["M16", [14.701, 14.913, 13.835, 14.21]],
    ["M20", [18.376, 18.6, 17.294, 17.744]],
    ["M24", [22.051, 22.316, 20.752, 21.252]],
    ["M30", [27.727, 28.007, 26.211, 26.771]],
    ["M36", [33.402, 33.702, 31.67, 32.27]],
    ["M8X1", [7.35, 7.5, 6.917, 7.153]],
    ["M10X1.25", [9.188, 9.348, 8.647, 8.912]],
    ["M12X1.25", [11.188, 11.368, 10.647, 10.912]],
    ["M12X1.5", [11.026, 11.216, 10.376, 10.676]],
    ["M20X1.5", [19.026, 19.216, 18.376, 18.676]],
  ])("%s 6H", (name, expected) => expect(limits(`${name}-6H`, "inside")).toEqual(expected));

  // Major and pitch diameter of 6g, smallest and largest.
  it.each([
    ["M3", [2.874, 2.98, 2.58, 2.655]],
    ["M5", [4.826, 4.976, 4.361, 4.456]],
    ["M6", [5.794, 5.974, 5.212, 5.324]],
    ["M8", [7.76, 7.972, 7.042, 7.16]],
    ["M10", [9.732, 9.968, 8.862, 8.994]],
    ["M12", [11.701, 11.966, 10.679, 10.829]],
    ["M16", [15.682, 15.962, 14.503, 14.663]],
    ["M20", [19.623, 19.958, 18.164, 18.334]],
    ["M24", [23.577, 23.952, 21.803, 22.003]],
    ["M8X1", [7.794, 7.974, 7.212, 7.324]],
    ["M12X1.25", [11.76, 11.972, 11.028, 11.16]],
  ])("%s 6g", (name, expected) => expect(limits(`${name}-6g`, "outside")).toEqual(expected));

  it("has the largest 6g major diameters that openscad-mcad 2019.05 (Debian, LGPL-2.1) has in its table of screws", () => {
    const theirs: [number, number][] = [
      [3, 2.98],
      [4, 3.978],
      [5, 4.976],
      [6, 5.974],
      [8, 7.972],
      [10, 9.968],
      [12, 11.966],
      [16, 15.962],
      [20, 19.958],
      [24, 23.952],
      [30, 29.947],
      [36, 35.94],
    ];
    for (const [size, major] of theirs) expect([size, limits(`M${size}-6g`, "outside")[1]]).toEqual([size, major]);
  });

  it("tells the classes apart", () => {
    expect(limits("M10-4H", "inside")).toEqual([9.026, 9.138, 8.376, 8.566]);
    expect(limits("M10-5H", "inside")).toEqual([9.026, 9.166, 8.376, 8.612]);
    expect(limits("M10-7H", "inside")).toEqual([9.026, 9.25, 8.376, 8.751]);
    expect(limits("M10-6G", "inside")).toEqual([9.058, 9.238, 8.408, 8.708]);
    expect(limits("M10-4h", "outside")).toEqual([9.85, 10, 8.941, 9.026]);
    expect(limits("M10-6h", "outside")).toEqual([9.764, 10, 8.894, 9.026]);
    expect(limits("M10-6e", "outside")).toEqual([9.697, 9.933, 8.827, 8.959]);
    expect(limits("M10-6f", "outside")).toEqual([9.719, 9.955, 8.849, 8.981]);
    expect(limits("M10-8g", "outside")).toEqual([9.593, 9.968, 8.782, 8.994]);
    // Two grades: the pitch diameter's first, the crest's second.
    expect(limits("M10-4g6g", "outside")).toEqual([9.732, 9.968, 8.909, 8.994]);
    expect(limits("M10-5g6g", "outside")).toEqual([9.732, 9.968, 8.888, 8.994]);
    expect(limits("M10-4H5H", "inside")).toEqual([9.026, 9.138, 8.376, 8.612]);
    expect(limits("MJ6X1-4H5H", "inside")).toEqual([5.35, 5.445, 5.026, 5.216]);
  });
  it("takes 5H and 6h for the smallest, and the usual class where none is said", () => {
    expect(threadLimits(findThread("M1.2")!, "inside")!.class).toBe("5H");
    expect(threadLimits(findThread("M1.2")!, "outside")!.class).toBe("6h");
    expect(limits("M1", "inside")).toEqual([0.838, 0.894, 0.729, 0.785]);
    expect(limits("M10", "outside")).toEqual(limits("M10-6g", "outside"));
    expect([findThread("M10-6H")!, findThread("M10")!, findThread("M10-4H")!].map(isUsualClass)).toEqual([
      true,
      true,
      false,
    ]);
  });
  it("gives the root of an outside thread", () => {
    // ISO 965: d3 of M10 8.160 less the deviation .032.
    expect(rootDiameter(findThread("M10-6g")!)).toBeCloseTo(8.128, 3);
    expect(threadLimits(findThread("M10-6g")!, "outside")!.minorMax).toBeCloseTo(8.344, 9);
  });

  /** Terms of R 40 a printed figure is away from its formula. */
  const steps = (printed: number, formula: number) =>
    [-2, -1, 0, 1, 2].find((k) => preferredNumber(formula, k) === printed) ?? NaN;
  it("has printed figures within two terms of R 40 of their formulas, those of deviations among small numbers", () => {
    for (const r of byPitch.rows)
      for (const what of ["e", "f", "g"] as const)
        if (r[what] !== null) expect(Math.abs(r[what] - byFormula(what, r.pitch))).toBeLessThan(6);
    for (const r of byPitch.rows.filter((x) => x.pitch >= 0.35))
      for (const what of ["major6", "minor6"] as const)
        expect([what, r.pitch, Math.abs(steps(r[what], byFormula(what, r.pitch))) <= 1]).toEqual([what, r.pitch, true]);
  });
  it("lists where ISO 965-1 prints another figure than its formula: the printed one stands", () => {
    const departures = pitchTolerances.rows.flatMap((range) =>
      range.grade6.flatMap(([pitch, out, into]) => {
        const formula = pitchByFormula(pitch, Math.sqrt(range.over * range.upTo));
        return [
          ...(steps(out, formula) === 0 ? [] : [`d2 ${range.upTo} x ${pitch}: ${steps(out, formula)}`]),
          ...(steps(into, 1.32 * formula) === 0 ? [] : [`D2 ${range.upTo} x ${pitch}: ${steps(into, 1.32 * formula)}`]),
        ];
      }),
    );
    expect(departures).toEqual(
      [
        "D2 2.8 x 0.45: 1",
        "d2 5.6 x 0.5: -1",
        "D2 5.6 x 0.5: -1",
        "D2 5.6 x 0.75: -1",
        "D2 11.2 x 1.5: 1",
        "D2 22.4 x 1.25: 1",
        "D2 22.4 x 1.5: 1",
        "D2 45 x 4.5: 1",
        "d2 90 x 5: -1",
        "d2 355 x 3: 1",
        "D2 355 x 3: 1",
        "D2 355 x 4: 1",
        "d2 355 x 4: 1",
      ].sort((a, b) => departures.indexOf(a) - departures.indexOf(b)),
    );
  });
});

describe("Unified limits, ASME B1.1", () => {
  const inch = (name: string, side: "inside" | "outside") => limits(name, side, INCH, 4);
  // Handbooks' tables of standard limits: pitch and minor diameter inside. Figures from memory.
  it.each([
    ["1/4-20 UNC-2B", [0.2175, 0.2224, 0.196, 0.207]],
    ["1/4-20 UNC-3B", [0.2175, 0.2211, 0.196, 0.2067]],
    ["1/4-20 UNC-1B", [0.2175, 0.2248, 0.196, 0.207]],
    ["1/2-13 UNC-2B", [0.45, 0.4565, 0.417, 0.434]],
    ["1/2-13 UNC-3B", [0.45, 0.4548, 0.417, 0.4284]],
    ["10-24 UNC-2B", [0.1629, 0.1672, 0.145, 0.156]],
    ["10-24 UNC-3B", [0.1629, 0.1661, 0.145, 0.1555]],
    ["10-32 UNF-2B", [0.1697, 0.1736, 0.156, 0.164]],
    ["10-32 UNF-3B", [0.1697, 0.1726, 0.156, 0.1641]],
    ["8-32 UNC-2B", [0.1437, 0.1475, 0.13, 0.139]],
    ["6-32 UNC-2B", [0.1177, 0.1214, 0.104, 0.114]],
    ["4-40 UNC-2B", [0.0958, 0.0991, 0.0849, 0.0939]],
    ["3/8-16 UNC-3B", [0.3344, 0.3387, 0.307, 0.3182]],
    ["3/4-10 UNC-2B", [0.685, 0.6927, 0.642, 0.663]],
    ["3/4-10 UNC-3B", [0.685, 0.6907, 0.642, 0.6545]],
    ["1-8 UNC-2B", [0.9188, 0.9276, 0.865, 0.89]],
    ["0-80 UNF-2B", [0.0519, 0.0542, 0.0465, 0.0514]],
  ])("%s inside", (name, expected) => expect(inch(name, "inside")).toEqual(expected));
  // Major and pitch diameter outside.
  it.each([
    ["1/4-20 UNC-2A", [0.2408, 0.2489, 0.2127, 0.2164]],
    ["1/4-20 UNC-3A", [0.2419, 0.25, 0.2147, 0.2175]],
    ["1/4-20 UNC-1A", [0.2367, 0.2489, 0.2108, 0.2164]],
    ["1/2-13 UNC-2A", [0.4876, 0.4985, 0.4435, 0.4485]],
    ["1/2-13 UNC-3A", [0.4891, 0.5, 0.4463, 0.45]],
    ["1/2-28 UNEF-2A", [0.4924, 0.4989, 0.472, 0.4757]],
    ["1-12 UNF-2A", [0.9868, 0.9982, 0.9382, 0.9441]],
    ["1-14 UNS-2A", [0.988, 0.9983, 0.9463, 0.9519]],
    ["10-32 UNF-2A", [0.1831, 0.1891, 0.1658, 0.1688]],
    ["2-4.5 UNC-2A", [1.9751, 1.9971, 1.8433, 1.8528]],
    ["10-28 UNS-2A", [0.1825, 0.189, 0.1625, 0.1658]],
  ])("%s outside", (name, expected) => expect(inch(name, "outside")).toEqual(expected));
  it("gives the rounded root: .1894 for 1/4-20 2A", () =>
    expect(rootDiameter(findThread("1/4-20 UNC-2A")!)! / INCH).toBeCloseTo(0.1894, 9));
});

describe("other threads", () => {
  it("Acme 1-5, general purpose class 2G (ASME B1.5, as handbooks print it)", () => {
    expect(limits("1-5 ACME-2G", "outside", INCH, 4)).toEqual([0.99, 1, 0.8726, 0.892]);
    expect(limits("1-5 ACME-2G", "inside", INCH, 4)).toEqual([0.9, 0.9194, 0.8, 0.81]);
  });
  it("G 1/2 (ISO 228-1)", () => {
    expect(limits("G 1/2", "inside")).toEqual([19.793, 19.935, 18.631, 19.172]);
    expect(limits("G 1/2 A", "outside")).toEqual([20.671, 20.955, 19.651, 19.793]);
    expect(limits("G 1/2 B", "outside")).toEqual([20.671, 20.955, 19.509, 19.793]);
  });
});

describe("over three wires", () => {
  it("is 3 w - .86603 P over the pitch diameter, as handbooks have it, and touches at the pitch line", () => {
    const t = findThread("1/2-13")!;
    const wire = bestWire(t)!;
    expect(wire / t.pitch).toBeCloseTo(0.57735, 5);
    expect(overWires(t, 11.43, wire)!).toBeCloseTo(11.43 + 3 * wire - 0.866025404 * t.pitch, 7);
    // The flank's middle is where a best wire touches: its centre lies a quarter of the pitch's height over it.
    expect(overWires(t, 11.43, wire)! - 11.43).toBeCloseTo(wire * 3 - t.pitch * Math.cos(Math.PI / 6), 9);
  });
  it("Acme: M = E + 4.9939 w - 1.9334 P; best wire .51645 P", () => {
    const t = findThread("1-5 ACME-2G")!;
    expect(bestWire(t)! / t.pitch).toBeCloseTo(0.51645, 5);
    expect(overWires(t, 0, 1)! - overWires(t, 0, 0)!).toBeCloseTo(4.9939, 4);
    expect(-overWires(t, 0, 0)! / t.pitch).toBeCloseTo(1.93336, 4);
  });
});
