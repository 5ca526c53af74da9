import { evaluateNumber, INCH } from "../number";
import { fail } from "../base/result";
import {
  drillNamed,
  drillOver,
  drillUnder,
  findMaterial,
  inchCrib,
  inchDrills,
  materials,
  nearestMaterials,
  metricCrib,
  metricDrills,
  stockSizes,
  morseTapers,
} from ".";

const rising = (list: number[]) => list.every((v, i) => i === 0 || v >= list[i - 1]);

describe("tables", () => {
  it("have a source each", () => {
    for (const t of [inchDrills, metricDrills, materials, inchCrib, metricCrib, stockSizes])
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
      { length: 80 },
      (_, i) => inchDrills.rows.find((d) => d.name === `No. ${i + 1}`)!.diameter,
    );
    expect(rising([...numbers].reverse())).toBe(true);
    const letters = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"].map((l) => inchDrills.rows.find((d) => d.name === l)!.diameter);
    expect(rising(letters)).toBe(true);
    expect(letters[0]).toBeGreaterThan(numbers[0]);
  });
  it("have densities inside their family", () => {
    const range: Record<string, [number, number]> = {
      aluminium: [2.6, 2.9],
      steel: [7.6, 8.2],
      "copper alloy": [7.4, 9],
      titanium: [4.3, 4.6],
      iron: [6.9, 7.4],
      plastic: [0.9, 2.3],
      magnesium: [1.7, 1.85],
      "nickel alloy": [8.1, 8.9],
      zinc: [5.9, 7.2],
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
