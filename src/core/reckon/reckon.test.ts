import { evaluateNumber, dmsText, fractionText, decimalsForTolerance, decimalText } from "../number";
import { numberScope } from "../engine/numbers";
import { emptyJob } from "../job";
import { readCard } from "../callout";
import { operand, reckonings } from ".";

const scope = (unit: "in" | "mm") => numberScope(emptyJob("x", unit, ""));
/** The results of a reckoning by label, as numbers. */
function reckon(
  id: string,
  typed: Record<string, string>,
  unit: "in" | "mm" = "mm",
  s = scope(unit),
): Record<string, number> {
  const r = reckonings.find((x) => x.id === id)!;
  const words = r.words ? [r.words.key] : [];
  const given = r.gives(
    Object.fromEntries(Object.entries(typed).map(([k, v]) => [k, words.includes(k) ? v : operand(v)])),
    s,
  );
  if (!given.ok) throw new Error(given.problems[0].message);
  return Object.fromEntries(
    given.value.map((g) => {
      const v = evaluateNumber(g.text, g.quantity, s);
      if (!v.ok) throw new Error(`${g.label}: ${g.text}: ${v.problems[0].message}`);
      return [g.label, v.value.typed];
    }),
  );
}

describe("the arithmetic done by hand", () => {
  // Published tables of chords for a circle of diameter 1 (any engineering handbook): 3 .866025, 5 .587785, 7
  // .433884, 12 .258819.
  it.each([
    [3, 0.866025],
    [5, 0.587785],
    [7, 0.433884],
    [12, 0.258819],
    [32, 0.098017],
  ])("%d holes on a circle of 1 stand %d apart", (n, chord) =>
    expect(reckon("boltCircle", { d: "1", n: String(n), from: "0" })["chord between neighbours"]).toBeCloseTo(chord, 6),
  );
  it("gives the coordinates of a bolt circle", () => {
    const r = reckon("boltCircle", { d: "100", n: "6", from: "30" });
    expect([r["hole 1 x"], r["hole 1 y"], r["hole 2 x"], r["hole 2 y"]].map((v) => Number(v.toFixed(4)))).toEqual([
      43.3013, 25, 0, 50,
    ]);
  });
  it("knows chord, sagitta and radius from one another", () => {
    const s = reckon("sagitta", { r: "100", c: "60" }).sagitta;
    expect(s).toBeCloseTo(100 - Math.sqrt(100 ** 2 - 30 ** 2), 12);
    expect(reckon("radiusFromSagitta", { c: "60", s: String(s) }).radius).toBeCloseTo(100, 9);
    expect(reckon("chord", { d: "200", a: "60" }).chord).toBeCloseTo(100, 9);
  });
  it("puts tangent points on both circles, square to the tangent", () => {
    const r = reckon("tangents", { r: "25", q: "12", d: "75" });
    const p = [r["outer: on the first, x"], r["outer: on the first, y"]],
      q = [r["outer: on the second, x"], r["outer: on the second, y"]];
    expect(Math.hypot(p[0], p[1])).toBeCloseTo(25, 9);
    expect(Math.hypot(q[0] - 75, q[1])).toBeCloseTo(12, 9);
    expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeCloseTo(r["outer tangent length"], 9);
    expect(p[0] * (q[0] - p[0]) + p[1] * (q[1] - p[1])).toBeCloseTo(0, 8);
    const i = [r["inner: on the first, x"], r["inner: on the first, y"]],
      j = [r["inner: on the second, x"], r["inner: on the second, y"]];
    expect(i[0] * (j[0] - i[0]) + i[1] * (j[1] - i[1])).toBeCloseTo(0, 8);
    expect(Math.hypot(j[0] - 75, j[1])).toBeCloseTo(12, 9);
  });
  it("knows polygons: a hexagon of 1 across flats is 1.154701 across corners, a square 1.414214, an octagon 1.082392", () => {
    for (const [n, c] of [
      [6, 1.154701],
      [4, 1.414214],
      [8, 1.082392],
    ])
      expect(reckon("polygonFlats", { n: String(n), f: "1" })["circle through the corners ⌀"]).toBeCloseTo(c, 6);
    expect(reckon("polygonCorners", { n: "6", c: "2" }).side).toBeCloseTo(1, 9);
  });
  it("knows the published tapers: 7 : 24 is 16°35'39.4\", 1 : 20 is 2°51'51\", 1 : 10 is 5°43'29\" (ISO 1119)", () => {
    expect(dmsText(reckon("taperRatio", { k: "24/7", d: "50", l: "10" })["included angle"], 1)).toBe("16°35'39.4\"");
    expect(dmsText(reckon("taperRatio", { k: "20", d: "50", l: "10" })["included angle"])).toBe("2°51'51\"");
    expect(dmsText(reckon("taperRatio", { k: "10", d: "50", l: "10" })["included angle"])).toBe("5°43'29\"");
    expect(reckon("taperDiameters", { d: "25", s: "22.5", l: "50" })["ratio 1 :"]).toBeCloseTo(20, 9);
    expect(reckon("taperAngle", { a: "90", d: "25", l: "5" })["small ⌀"]).toBeCloseTo(15, 9);
  });
  it("knows points and cones", () => {
    // Handbook: the point of a 118 degree drill is 0.3004 of its diameter; a 90 degree countersink is as deep as
    // half the difference.
    expect(reckon("drillPoint", { d: "1", a: "118" })["point length"]).toBeCloseTo(0.3004, 4);
    expect(reckon("countersink", { m: "10", d: "6", a: "90" })["depth from the face to the hole"]).toBeCloseTo(2, 9);
    expect(reckon("veeWidth", { a: "60", d: "1", w: "1" })["line width at that depth"]).toBeCloseTo(1.154701, 6);
    expect(reckon("veeWidth", { a: "90", d: "1", w: "1" })["depth for that width"]).toBeCloseTo(0.5, 9);
  });
  it("weighs a blank: 100 x 50 x 25 mm of 2.70 is 337.5 g; an inch cube of steel 7.85 is .2836 lb", () => {
    expect(reckon("weight", { l: "100", w: "50", h: "25", d: "50", rho: "2.70" })["plate l × w × h, g"]).toBeCloseTo(
      337.5,
      9,
    );
    expect(
      reckon("weight", { l: "1", w: "1", h: "1", d: "1", rho: "7.85" }, "in")["plate l × w × h, g"] / 453.59237,
    ).toBeCloseTo(0.2836, 4);
  });
  it("turns units and fractions over, exactly", () => {
    const r = reckon("equivalents", { v: ".4375", a: "7.125" }, "in");
    expect(r["millimetres"]).toBeCloseTo(0.4375, 12);
    expect(r["inch, nearest 1/64"]).toBeCloseTo(7 / 16, 12);
    expect(reckon("equivalents", { v: "-11", a: "1" }, "mm")["inch, decimal"]).toBeCloseTo(-11, 5);
  });
  it("keeps the balloons it was made of as its source, and cites tables", () => {
    const { job } = readCard("UNIT in\n#4 ⌀2.500 ±.005");
    const s = numberScope(job);
    const r = reckonings.find((x) => x.id === "boltCircle")!.gives({ d: "#4", n: "6", from: "0" }, s);
    if (!r.ok) throw new Error();
    const v = evaluateNumber(r.value[3].text, "coordinate", s);
    expect(v).toMatchObject({ ok: true, value: { source: "print", cites: [4] } });
    const d = reckonings.find((x) => x.id === "tapDrill")!.gives({ thread: "M6" }, scope("mm"));
    if (!d.ok) throw new Error();
    expect(evaluateNumber(d.value[0].text, "length", scope("mm"))).toMatchObject({
      ok: true,
      value: { typed: 5, source: "standard", cited: "tap drill of M6" },
    });
    const f = reckonings.find((x) => x.id === "fit")!.gives({ d: "20", zone: "H7" }, scope("mm"));
    expect(f.ok && f.value[0].text).toBe("20.021{H7 of ISO 286-1}");
  });
  it("answers every reckoning with its own first figures", () => {
    for (const unit of ["in", "mm"] as const)
      for (const r of reckonings) {
        const typed = Object.fromEntries([
          ...r.asks.map((a) => [a.key, operand(a.start[unit])]),
          ...(r.words ? [[r.words.key, r.words.start[unit]]] : []),
        ]);
        const given = r.gives(typed, scope(unit));
        if (!given.ok) throw new Error(`${r.id}: ${given.problems[0].message}`);
        for (const g of given.value)
          expect([r.id, g.label, evaluateNumber(g.text, g.quantity, scope(unit)).ok]).toEqual([r.id, g.label, true]);
      }
  });
  it("says what is wrong", () => {
    expect(reckonings.find((x) => x.id === "tapDrill")!.gives({ thread: "wood" }, scope("in"))).toMatchObject({
      ok: false,
    });
    expect(reckonings.find((x) => x.id === "fit")!.gives({ d: "20", zone: "Q9" }, scope("mm"))).toMatchObject({
      ok: false,
    });
  });
});

describe("figures as the trade writes them", () => {
  it("writes fractions", () => {
    expect([0.375, 1.5, 2, 0.015625, -0.75, 0.3333].map((v) => fractionText(v).text)).toEqual([
      "3/8",
      "1-1/2",
      "2",
      "1/64",
      "-3/4",
      "21/64",
    ]);
    expect(fractionText(0.3333).off).toBeCloseTo(0.3333 - 21 / 64, 9);
  });
  it("writes degrees, minutes and seconds without sixty of anything", () => {
    expect([1.4377777, 59.99999, 0.5, 45, 0, -7.125, 1 / 3600].map((v) => dmsText(v))).toEqual([
      "1°26'16\"",
      "60°",
      "0°30'",
      "45°",
      "0°",
      "-7°7'30\"",
      "0°0'1\"",
    ]);
  });
  it("shows as many decimals as the tolerance deserves", () => {
    expect([0.127, 0.0127, 0.254].map((mm) => decimalsForTolerance(mm, "in"))).toEqual([3, 4, 2]);
    expect([0.1, 0.05, 0.01, 0.5].map((mm) => decimalsForTolerance(mm, "mm"))).toEqual([1, 2, 2, 1]);
    expect(decimalText(6.35, { unit: "in", decimals: 3 })).toBe(".250");
    expect(decimalText(6.35, { unit: "in", decimals: 3, leadingZero: true })).toBe("0.250");
    expect(decimalText(-0.0001, { unit: "mm", decimals: 2 })).toBe("0.00");
  });
});
