import { evaluateNumber, INCH } from "../number";
import { fail } from "../base/result";
import {
  drillNamed,
  drillOver,
  drillUnder,
  findMaterial,
  findThread,
  inchCrib,
  inchDrills,
  inchThreads,
  materials,
  nearestMaterials,
  metricCoarse,
  metricCrib,
  metricDrills,
  metricFine,
  minorLimits,
  percentThread,
  pipeThreads,
  readThread,
  stockSizes,
  morseTapers,
} from ".";

const rising = (list: number[]) => list.every((v, i) => i === 0 || v >= list[i - 1]);

describe("tables", () => {
  it("have a source each", () => {
    for (const t of [
      inchDrills,
      metricDrills,
      inchThreads,
      metricCoarse,
      metricFine,
      materials,
      inchCrib,
      metricCrib,
      stockSizes,
    ])
      expect(t.source.length).toBeGreaterThan(10);
  });
  it("have drills in rising order, with the names of the trade", () => {
    expect(rising(inchDrills.rows.map((d) => d.diameter))).toBe(true);
    expect(rising(metricDrills.rows.map((d) => d.diameter))).toBe(true);
    expect(drillNamed(0.201 * INCH, inchDrills.rows)?.name).toBe("No. 7");
    expect(drillNamed(0.257 * INCH, inchDrills.rows)?.name).toBe("F");
    expect(inchDrills.rows.find((d) => d.name === "27/64")?.diameter).toBeCloseTo(0.421875 * INCH, 9);
    expect(drillUnder(5.04, metricDrills.rows)?.name).toBe("5 mm");
    expect(drillOver(5.04, metricDrills.rows)?.name).toBe("5.1 mm");
  });
  it("have number drills that fall and letter drills that rise", () => {
    const numbers = Array.from(
      { length: 60 },
      (_, i) => inchDrills.rows.find((d) => d.name === `No. ${i + 1}`)!.diameter,
    );
    expect(rising([...numbers].reverse())).toBe(true);
    const letters = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"].map((l) => inchDrills.rows.find((d) => d.name === l)!.diameter);
    expect(rising(letters)).toBe(true);
    expect(letters[0]).toBeGreaterThan(numbers[0]);
  });
  it("have tap drills that leave 52 to 87 per cent of thread", () => {
    for (const t of [...inchThreads.rows, ...metricCoarse.rows, ...metricFine.rows]) {
      const p = percentThread(t, t.tapDrill);
      expect([t.name, p > 52 && p < 87, p]).toEqual([t.name, true, p]);
    }
  });
  it("have drills under taper pipe threads between one and two thread heights of .8 P", () => {
    for (const t of pipeThreads.rows) {
      const heights = (t.major - t.tapDrill) / (1.6 * t.pitch);
      expect([t.name, heights > 1 && heights < 1.6, heights]).toEqual([t.name, true, heights]);
    }
    expect(readThread("1/4-18 NPT THRU")).toEqual({ designation: "NPT 1/4-18", length: 10 });
    expect(findThread("NPT 1/4-18")?.major).toBeCloseTo(0.54 * INCH, 9);
    expect(findThread("NPT 1/4-20")).toBeNull();
  });
  it("name the drill they give", () => {
    for (const t of inchThreads.rows) {
      const named = inchDrills.rows.find((d) => d.name === t.drillName);
      if (named) expect(Math.abs(named.diameter - t.tapDrill)).toBeLessThan(0.001);
      else expect(t.tapDrill).toBeGreaterThan(INCH); // over the drill table
    }
  });
  it("have minor diameters that follow the published ones", () => {
    // ISO 965-1, M5 6H: 4.134 to 4.334. ASME B1.1, 1/4-20 UNC 2B: .196 to .207. Figures from memory.
    const m5 = minorLimits(findThread("M5")!);
    expect(m5.min).toBeCloseTo(4.134, 3);
    expect(m5.max).toBeCloseTo(4.334, 2);
    const quarter = minorLimits(findThread("1/4-20 UNC-2B")!);
    expect(quarter.min / INCH).toBeCloseTo(0.196, 3);
    expect(quarter.max / INCH).toBeCloseTo(0.207, 3);
  });
  it("read threads as prints call them", () => {
    expect(readThread("10-32 UNF-2B DEEP")).toEqual({ designation: "10-32 UNF-2B", length: 12 });
    expect(readThread("1/4-20 THRU")).toEqual({ designation: "1/4-20", length: 6 });
    // A small letter is the class of an outside thread, and stays one.
    expect(readThread("m6x1-6h")).toEqual({ designation: "M6X1-6h", length: 7 });
    expect(readThread("10-33 THRU")).toBeNull();
    expect(readThread("5 X 2")).toBeNull();
    expect(findThread("10-32 UNF-2B")!.major / INCH).toBeCloseTo(0.19, 9);
    expect(findThread("1-1/4-7 UNC")!.major / INCH).toBeCloseTo(1.25, 9);
    expect(findThread("M8")!.pitch).toBe(1.25);
    expect(findThread("M8X1")!.size?.tapDrill).toBe(7);
    expect(findThread("M8X9")).toBeNull();
    expect(findThread("nonsense")).toBeNull();
  });
  it("have densities inside their family", () => {
    const range: Record<string, [number, number]> = {
      aluminium: [2.6, 2.9],
      steel: [7.65, 8.1],
      "copper alloy": [8.3, 9],
      titanium: [4.3, 4.6],
      iron: [6.9, 7.4],
      plastic: [0.9, 2.3],
    };
    for (const m of materials.rows)
      expect(m.density >= range[m.family][0] && m.density <= range[m.family][1]).toBe(true);
    expect(findMaterial("Aluminum 6061")?.density).toBe(2.7);
    expect(findMaterial("moon rock")).toBeNull();
  });
  it("have stock sizes that are numbers and rise", () => {
    for (const r of stockSizes.rows)
      for (const list of [r.plateThickness, r.barWidth, r.roundDiameter]) {
        const values = list.map((t) => {
          const v = evaluateNumber(t, "length", { unit: r.unit, balloon: () => fail({ message: "none" }) });
          return v.ok ? v.value.value : NaN;
        });
        expect(values.every(Number.isFinite) && rising(values)).toBe(true);
      }
  });
  it("have cutters that reach deeper as they grow", () => {
    for (const t of [inchCrib, metricCrib])
      expect(rising(t.rows.map((c) => c.reach)) && rising(t.rows.map((c) => c.diameter))).toBe(true);
  });
});

describe("materials by nearly their name", () => {
  const near = (typed: string) => nearestMaterials(typed).map((m) => m.name);
  it("finds what was spelt wrongly, or written otherwise", () => {
    expect(near("alumnium 6061")[0]).toBe("aluminium 6061");
    expect(near("aluminum")[0]).toMatch(/^aluminium/);
    expect(near("stainles 316")[0]).toBe("stainless 316");
    expect(near("titanuim")).toEqual(["titanium 6al-4v", "titanium grade 2"]);
    expect(near("steel 41")).toContain("steel 4140");
  });
  it("takes another grade for no slip of this one, and finds nothing near nonsense", () => {
    expect(near("1019")).toEqual([]);
    expect(near("zzgrk")).toEqual([]);
    expect(near("  ")).toEqual([]);
  });
});

describe("Morse tapers", () => {
  // Half angles as handbooks print them: 1°25'50" (2), 1°30'26" (5); ISO 296 by its ratios.
  it.each([
    [2, 1 + 25 / 60 + 50 / 3600],
    [5, 1 + 30 / 60 + 26 / 3600],
  ])("%i leans as printed", (number, degrees) => {
    const { taper } = morseTapers.rows.find((t) => t.number === number)!;
    expect(Math.abs((Math.atan(taper / 2) * 180) / Math.PI - degrees) * 3600).toBeLessThan(5);
  });
  it("rise in size", () => {
    const gauges = morseTapers.rows.map((t) => t.gauge);
    expect(gauges).toEqual([...gauges].sort((a, b) => a - b));
  });
});
