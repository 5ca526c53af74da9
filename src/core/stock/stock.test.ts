import fc from "fast-check";
import { applyEdits, emptyJob } from "../job";
import { evaluateNumber, toNumberText } from "../number";
import { numberScope } from "../engine/numbers";
import { v3, type Box } from "../geometry/vec";
import { placeStock } from "../engine/placedStock";
import { allowanceOf, piecesPerBar, proposeStock } from "./stock";
import { readCard, writeStock } from "../callout";
import { evaluateCard, evaluateJob, jobOf, mm } from "../../../tests/helpers/card";

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
          const placed = placeStock(stock!, s, part);
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

describe("bars of other sections", () => {
  const barOf = async (stock: string, ...rows: string[]) => (await evaluateCard(mm(`STOCK ${stock}`, ...rows))).stock!;
  it("a hexagon holds what lies within its flats", async () => {
    // Area of a regular hexagon across flats a: √3/2 a² (Euclid); 30 across, 50 long.
    const s = await barOf("HEX AF 30 X 50", "LEAVE POLYGON 6 AF 28 X 46");
    expect(s.volume).toBeCloseTo((Math.sqrt(3) / 2) * 900 * 50, 6);
    expect(s.radial).toBeCloseTo(1, 9);
    expect((await barOf("HEX AF 30 X 50", "LEAVE POLYGON 6 AF 28 X 46 TURN 30")).radial).toBeCloseTo(
      15 - 28 / Math.sqrt(3),
      9,
    );
    expect((await barOf("HEX 30 X 50", "LEAVE ROUND ⌀26 X 46")).radial).toBeCloseTo(2, 9);
  });
  it("a square bar is a box that stands", async () => {
    const s = await barOf("SQUARE 40 X 60", "LEAVE BLOCK 38 X 36 X 50");
    expect(s.volume).toBe(96000);
    expect(s.allowance).toMatchObject({ left: 1, front: 2, top: 5, bottom: 5 });
  });
  it("a tube holds a ring, and nothing over its bore", async () => {
    const s = await barOf("TUBE OD 50 ID 30 X 40", "LEAVE RING OD 48 ID 33 X 38");
    expect(s.volume).toBeCloseTo((Math.PI / 4) * (2500 - 900) * 40, 6);
    expect(s.radial).toBeCloseTo(1, 9);
    expect((await barOf("TUBE OD 50 ID 30 X 40", "LEAVE RING OD 48 ID 29 X 38")).radial).toBeCloseTo(-0.5, 9);
    expect(
      (await evaluateCard(mm("STOCK TUBE OD 30 ID 30 X 40", "LEAVE RING OD 20 ID 10 X 38"))).stockProblem,
    ).not.toBeNull();
  });
  it("every form is written as it is read, and proposed", () => {
    for (const line of [
      "PLATE 60 X 40 X 20",
      "ROUND 30 X 50 AT 0,0,-1",
      "HEX AF 24 X 50",
      "SQUARE 20 X 80",
      "TUBE OD 40 ID 20 X 10",
    ]) {
      const { job, errors } = readCard(mm(`STOCK ${line}`));
      expect(errors).toEqual([]);
      expect(writeStock(job.stock!)).toBe(`STOCK ${line}`);
    }
    const part = { min: v3(-12, -12, 0), max: v3(12, 12, 38) };
    const proposed = proposeStock(part, "mm", numberScope(jobOf(mm())), true, 18);
    expect(proposed.hexagon).toEqual({ shape: "hexagon", across: "28", height: "40" });
    expect(proposed.square).toEqual({ shape: "square", side: "30", height: "40" });
    expect(proposed.tube).toEqual({ shape: "tube", outer: "28", inner: "16", height: "40" });
  });
});

describe("the next size of a stock", () => {
  const pressed = (stock: string, ...rows: string[]) => pressedStock(mm(`STOCK ${stock}`, ...rows));
  it("changes the size that is too small, and nothing else", async () => {
    // 5 over to the right only: the length; what was chosen for width and height stays, and so does its place.
    expect(await pressed("PLATE 50 X 47 X 33 AT 0,0,-7", "LEAVE BLOCK 60 X 40 X 20")).toEqual({
      shape: "plate",
      length: "65",
      width: "47",
      height: "33",
      at: { x: "0", y: "0", z: "-7" },
    });
    expect(await pressed("PLATE 70 X 41 X 20 AT 0,0,-0", "LEAVE BLOCK 60 X 40 X 21")).toMatchObject({ length: "70" });
  });
  it("of one laid to a side is as far to the other", async () => {
    // The part reaches 35 to the right of the stock's middle: 70 and clean-up.
    const stock = await pressed("PLATE 64 X 50 X 30 AT -5,0,-3", "LEAVE BLOCK 60 X 40 X 20");
    expect(stock).toMatchObject({ width: "50", height: "30", at: { x: "-5", y: "0", z: "-3" } });
    expect(Number((stock as { length: string }).length)).toBeGreaterThanOrEqual(72);
  });
  it("is laid lower where the part comes out below", async () => {
    const stock = await pressed("PLATE 70 X 50 X 30 AT 0,0,2", "LEAVE BLOCK 60 X 40 X 20");
    expect(stock).toMatchObject({ length: "70", width: "50", height: "30" });
    expect(Number((stock as { at: { z: string } }).at.z)).toBeLessThan(0);
  });
  it("of a round is its diameter alone", async () => {
    expect(await pressed("ROUND 38 X 44", "LEAVE ROUND ⌀40 X 40")).toMatchObject({ height: "44" });
  });
});

/** The stock after the fix of what sticks out of it was pressed; nothing sticks out then. */
async function pressedStock(text: string) {
  const job = jobOf(text);
  const [found] = (await evaluateJob(job)).findings.filter((f) => f.rule === "outside-stock");
  const edited = applyEdits(job, found.fix!.edits);
  if (!edited.ok) throw new Error(edited.problems[0].message);
  const left = (await evaluateJob(edited.value.job)).findings.filter((f) => f.rule === "outside-stock");
  expect(left.filter((f) => f.severity === "stop")).toEqual([]);
  return edited.value.job.stock;
}
