import fc from "fast-check";
import { emptyJob } from "../job";
import { evaluateNumber, toNumberText } from "../number";
import { numberScope } from "../engine/numbers";
import { v3, type Box } from "../geometry/vec";
import { allowanceOf, piecesPerBar, placeStock, proposeStock } from "./stock";
import { evaluateCard, mm } from "../../../tests/helpers/card";

const scope = numberScope(emptyJob("x", "mm", ""));
const n = toNumberText;
const box = (x: number, y: number, z: number): Box => ({ min: v3(-x / 2, -y / 2, 0), max: v3(x / 2, y / 2, z) });

describe("stock", () => {
  it("lies about the part, the surplus in Z shared", () => {
    const placed = placeStock(
      { shape: "plate", length: n("50"), width: n("40"), height: n("30") },
      scope,
      box(40, 30, 20),
    );
    expect(placed).toMatchObject({
      ok: true,
      value: { box: { min: v3(-25, -20, -5), max: v3(25, 20, 25) }, volume: 60000 },
    });
  });

  it("lies where it is put", () => {
    const placed = placeStock(
      { shape: "round", diameter: n("50"), height: n("30"), at: { x: n("1"), y: n("2"), z: n("-3") } },
      scope,
      box(40, 30, 20),
    );
    if (!placed.ok) throw new Error();
    expect(placed.value.box.min).toEqual(v3(-24, -23, -3));
    expect(placed.value.volume).toBeCloseTo(Math.PI * 625 * 30, 9);
    expect(allowanceOf(placed.value, box(40, 30, 20))).toEqual({
      left: 4,
      right: 6,
      front: 8,
      back: 12,
      bottom: 3,
      top: 7,
    });
  });

  it("names the number that is wrong", () => {
    const bad = placeStock({ shape: "plate", length: n("50"), width: n("0"), height: n("?") }, scope, null);
    expect(bad).toMatchObject({
      ok: false,
      problems: [{ path: "width", message: expect.stringContaining("more than zero") }],
    });
  });

  it("is proposed so that every part fits with something to clean up", () => {
    const size = fc.double({ min: 1, max: 280, noNaN: true });
    fc.assert(
      fc.property(size, size, size, fc.constantFrom("in" as const, "mm" as const), (x, y, z, unit) => {
        const s = numberScope(emptyJob("x", unit, ""));
        const part = box(x, y, z);
        const { plate, round } = proposeStock(part, unit, s, false);
        for (const stock of [plate, round]) {
          const placed = placeStock(stock, s, part);
          if (!placed.ok) throw new Error(placed.problems[0].message);
          for (const a of Object.values(allowanceOf(placed.value, part))) expect(a).toBeGreaterThan(0.9);
        }
        const bar = evaluateNumber((round as { diameter: string }).diameter, "length", s);
        expect(bar.ok && bar.value.value).toBeGreaterThan(Math.hypot(x, y));
      }),
      { numRuns: 60 },
    );
  });

  it("counts pieces from a bar with the kerf between them", () => {
    // 3000 less 50 to grip; each piece 47 and a kerf of 3: 59 pieces take 59 x 50 - 3 = 2947.
    expect(piecesPerBar(3000, 47, 3, 50)).toEqual({ ok: true, value: 59 });
    expect(piecesPerBar(100, 50, 0, 0)).toEqual({ ok: true, value: 2 });
    expect(piecesPerBar(100, 50, 1, 0)).toEqual({ ok: true, value: 1 });
    expect(piecesPerBar(10, 50, 1, 0)).toEqual({ ok: true, value: 0 });
    expect(piecesPerBar(0, 50, 1, 0)).toMatchObject({ ok: false });
  });

  it("holds a round part of just its own size without a complaint", async () => {
    const e = await evaluateCard(mm("STOCK ROUND 40 X 22", "LEAVE ROUND ⌀40 X 20"));
    expect(e.stock!.radial).toBeCloseTo(0, 9);
    expect(e.findings.filter((f) => f.rule === "outside-stock" && f.severity === "stop")).toEqual([]);
  });
});
