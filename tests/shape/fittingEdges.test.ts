import { readCard, writeCard } from "@/core/callout";
import { isTooLargeForEdges } from "@/core/engine/kernel";
import { evaluateCard, mm } from "../helpers/card";

/** A plate with a rib of 4 on it: its four corners take a round of 3, the rib's only one at either end. */
const plate = ["LEAVE BLOCK 60 X 40 X 12", "LEAVE BLOCK 10 X 4 X 10 AT 0,10 ON TOP"];
const rounded = (radius: number, height: number) => (1 - Math.PI / 4) * radius ** 2 * height;

describe("rounds and chamfers where they fit", () => {
  it("are refused as a whole unless the row says otherwise", async () => {
    const e = await evaluateCard(mm(...plate, "CUT ROUND 3 VERTICAL"));
    expect(e.solved.rows[2].state).toBe("failed");
    expect(isTooLargeForEdges(e.solved.rows[2].failure)).toBe(true);
    const unsaid = await evaluateCard(mm(...plate, "CUT ROUND ? VERTICAL"));
    expect(isTooLargeForEdges(unsaid.solved.rows[2].failure)).toBe(false);
  });

  it("leave the edges that are too near one another, and take the others", async () => {
    const e = await evaluateCard(mm(...plate, "CUT ROUND 3 VERTICAL FITTING"));
    expect(e.solved.rows[2].removed).toBeCloseTo(4 * rounded(3, 12), 5);
    const [left] = e.findings.filter((f) => f.rule === "edges-left");
    expect(left).toMatchObject({
      row: 3,
      severity: "note",
      value: 4,
      text: expect.stringContaining("4 of 8 edges are left"),
    });
    // The rib's corners, each drawn on the part from its foot to its top.
    expect(left.lines!.map(([a, b]) => Math.abs(a.z - b.z))).toEqual(Array(4).fill(expect.closeTo(10, 6)));
  });

  it("see what is near along the whole of an edge, not at its middle", async () => {
    // The rib's front edges stand only where the block before it ends, its back edges from the foot: 4 apart, their
    // middles 15. Left are the four of the rib; taken are four of the plate and the two of the block's front.
    const e = await evaluateCard(
      mm(
        "LEAVE BLOCK 60 X 60 X 12",
        "LEAVE BLOCK 10 X 4 X 40 AT 0,10,12",
        "LEAVE BLOCK 10 X 20 X 30 AT 0,-2,12",
        "CUT ROUND 3 VERTICAL FITTING",
      ),
    );
    expect(e.solved.rows[3].removed).toBeCloseTo(rounded(3, 4 * 12 + 2 * 30), 5);
    expect(e.findings.find((f) => f.rule === "edges-left")).toMatchObject({ row: 4, value: 4 });
  });

  it("leave an edge that is too small by itself", async () => {
    // A boss of 5 has no room for a chamfer of 3; the plate’s rim has. Closed form of a rim chamfered
    // by c on a x b: c²/2 round it, its four corners mitred.
    const e = await evaluateCard(
      mm(
        "LEAVE BLOCK 60 X 40 X 12",
        "LEAVE ROUND ⌀5 X 8 ON TOP",
        "CUT CHAMFER 3 OUTER TOP OF 1, OUTER TOP OF 2 FITTING",
      ),
    );
    expect(e.solved.rows[2].state).toBe("ok");
    const rim = 0.5 * 9 * 2 * (60 + 40) - 4 * (27 / 3);
    expect(e.solved.rows[2].removed).toBeCloseTo(rim, 5);
  });

  it("are the same with and without it where all fit, and fail where none does", async () => {
    const [all, said, none] = await Promise.all(
      ["CUT ROUND 1 VERTICAL", "CUT ROUND 1 VERTICAL FITTING", "CUT ROUND 25 VERTICAL FITTING"].map((row) =>
        evaluateCard(mm(...plate, row)),
      ),
    );
    expect(said.part!.volume).toBeCloseTo(all.part!.volume, 9);
    expect(said.findings.filter((f) => f.rule === "edges-left")).toEqual([]);
    expect(none.solved.rows[2].state).toBe("failed");
    expect(none.part!.volume).toBeCloseTo(60 * 40 * 12 + 400, 6);
  });

  it("are read and written", () => {
    const rows = ["CUT ROUND 3 VERTICAL FITTING", "CUT CHAMFER 1 OUTER TOP FITTING", "CUT BREAK .2 ALL SHARP FITTING"];
    expect(
      writeCard(readCard(mm(...plate, ...rows)).job)
        .trim()
        .split("\n")
        .slice(-3),
    ).toEqual(rows);
  });
});
