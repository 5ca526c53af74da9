import { gougeFindings } from "@/core/setups";
import { keyOf } from "@/core/base/key";
import { v2 } from "@/core/geometry/vec";
import { roundedLoop } from "@/core/outline";
import { outCorners } from "@/core/setups/corners";
import { remarks, setUp } from "./helpers";

const card = (...lines: string[]): string => ['JOB "part"', "UNIT mm", 'MATERIAL "steel 1045"', ...lines].join("\n");
const JAWS = (...lines: string[]) => [
  'PART "jaws" JAWS',
  "STOCK PLATE 110 X 90 X 40",
  "LEAVE BLOCK 105 X 80 X 35",
  ...lines,
];

describe("what a setup leaves undone is told, whatever kind of row it is", () => {
  const shaft = (...setups: string[]) =>
    card("STOCK ROUND 24 X 64", "LEAVE ROUND ⌀20 X 60", "CUT THREAD M20-6g LEN 20 ON SHAFT OF 1", ...setups);
  it("a thread that no setup has", async () => {
    const { routing, findings } = await setUp(shaft("SETUP 10 LATHE UP TOP DATUM CHUCK HOLD CHUCK GRIP 20 ROWS 1"));
    expect(routing!.unassigned).toContain(2);
    const f = findings.find((x) => x.rule === "row-in-no-setup" && x.row === 2)!;
    expect(f.fix?.label).toBe("row 2 in setup 10");
    const with2 = await setUp(shaft("SETUP 10 LATHE UP TOP DATUM CHUCK HOLD CHUCK GRIP 20 ROWS 1-2"));
    expect(with2.routing!.unassigned).not.toContain(2);
  });
  it("a square block is not turned, a round one is, with its cone and its bore", async () => {
    const lathe = "SETUP 10 LATHE UP TOP DATUM CHUCK HOLD CHUCK GRIP 10 ROWS";
    const square = card("STOCK ROUND 60 X 44", "LEAVE BLOCK 30 X 30 X 40", `${lathe} 1`);
    expect((await remarks(square, "not-turned")).map((f) => [f.row, f.severity])).toEqual([[1, "caution"]]);
    const round = card(
      "STOCK ROUND 60 X 44",
      "LEAVE ROUND ⌀50 X 40",
      "CUT ⌀10 THRU CSK ⌀14 X 90",
      "CUT TAPER ⌀20 A 10 DEEP 8",
      `${lathe} 1-3`,
    );
    expect(await remarks(round, "not-turned")).toEqual([]);
  });
});

describe("a nest is looked at where it is narrowest", () => {
  const nest = (mouth: number) =>
    card(
      "STOCK ROUND 50 X 44",
      "LEAVE ROUND ⌀44 X 30",
      "SETUP 10 MILL UP TOP DATUM CENTRE HOLD VISE GRIP 8 ACROSS Y ROWS 1",
      'SETUP 20 MILL UP BOTTOM DATUM CENTRE HOLD JAWS "jaws" GRIP 8 ACROSS Y ROWS 1',
      ...JAWS(`CUT TAPER ⌀${mouth} TO ⌀43.9 DEEP 8`),
      'PLACE "part" IN "jaws" AT 0,0,27 UP BOTTOM AFTER SETUP 10',
    );
  it("one that narrows to less than the piece does not take it", async () => {
    const met = (await remarks(nest(44.4), "goes-in-from-above")).filter((f) => f.severity === "stop");
    expect(met).toHaveLength(1);
    // A ring of a twentieth of a millimetre all round, at its lower end.
    expect(met[0].value).toBeGreaterThan(0);
  });
});

describe("corners that a cutter cannot make", () => {
  const plate = (radius: number) => {
    const made = roundedLoop([v2(-30, -20), v2(30, -20), v2(30, 20), v2(-30, 20)], radius)!;
    return [made];
  };
  it("are those that are sharp, and rounds smaller than its own", () => {
    expect(outCorners(plate(0), 1.5)).toHaveLength(4);
    expect(outCorners(plate(0.5), 1.5)).toHaveLength(4);
    expect(outCorners(plate(0.5), 0.5)).toEqual([]);
    expect(outCorners(plate(8), 1.5)).toEqual([]);
    // By the middle of the arc: so far out on its corner's diagonal.
    const [p] = outCorners(plate(0.5), 1.5);
    expect(Math.abs(p.x)).toBeCloseTo(29.5 + 0.5 * Math.SQRT1_2, 9);
  });
});

describe("what is cut away of the finished part", () => {
  it("is a stop that says how much, once: in the setup that cuts it", async () => {
    const made = await setUp(
      card(
        "STOCK PLATE 64 X 44 X 28",
        "LEAVE BLOCK 60 X 40 X 20",
        "CUT POCKET 30 X 20 R5 DEEP 8",
        "SETUP 10 MILL UP TOP DATUM CENTRE HOLD VISE GRIP 3 ACROSS Y ROWS 1-2",
        "SETUP 20 MILL UP BOTTOM DATUM LEFT FRONT ROWS 1",
      ),
    );
    const part = made.parts[0].evaluation.solved.finalKey!;
    const missing = (piece: string) => {
      const r = made.kernel.without(keyOf(part, { missingFrom: piece }), part, piece);
      return r.ok ? r.value.volume : null;
    };
    expect(gougeFindings(made, "mm", missing)).toEqual([]);
    const [first, second] = made.setups.map((s) => s.standing!.piece.after);
    const told = gougeFindings(made, "mm", (piece) => (piece === first ? 0 : piece === second ? 2513 : null));
    expect(told.map((f) => [f.rule, f.setup, f.severity])).toEqual([["gouge", 20, "stop"]]);
    expect(told[0].text).toContain("2513.0 mm³");
    expect(gougeFindings(made, "mm", () => 2513).map((f) => f.setup)).toEqual([10]);
    expect(gougeFindings(made, "mm", () => null)).toEqual([]);
  });
});
