import { evaluateCard, evaluateJob, jobOf, mm } from "../../../tests/helpers/card";
import { minutesByCutter } from "../paths/minutes";
import { planPaths } from "../paths/plan";
import { inBands } from "./band";

const card = (length: string) => mm("#1 60 ±0.1", "#2 40 ±0.1", "#3 20", `LEAVE BLOCK ${length} X #2 X #3`);

describe("where a dimension lies between its limits", () => {
  it.each([
    ["#1", 0, true],
    ["(#1 + .05)", 0.5, true],
    ["(#1 - .1)", -1, true],
    ["(#1 + .2)", 2, false],
  ])("%s lies at %s", async (length, share, inside) => {
    const e = await evaluateCard(card(length));
    const first = inBands(e.ledger).find((b) => b.balloon === 1)!;
    expect(first.share).toBeCloseTo(share, 6);
    expect(first.inside).toBe(inside);
  });
  it("is not asked of what is not measured", async () => {
    const e = await evaluateCard(card("60"));
    expect(inBands(e.ledger).map((b) => b.balloon)).not.toContain(1);
  });
});

describe("minutes by cutter", () => {
  it("add up to all minutes, the longest first", async () => {
    const job = jobOf(
      mm(
        "LEAVE BLOCK 100 X 60 X 20",
        "CUT POCKET 40 X 20 R5 DEEP 8",
        "CUT POCKET 20 X 20 R5 DEEP 4 AT 35,0",
        "CUT 4X ⌀5 THRU GRID 2 2 BY 80 40",
      ),
    );
    const plans = planPaths(job, (await evaluateJob(job)).solved.rows);
    const by = minutesByCutter(plans);
    const sum = (list: { minutes: number }[]) => list.reduce((t, m) => t + m.minutes, 0);
    expect(sum(by)).toBeCloseTo(sum(plans), 9);
    expect(by.map((m) => m.minutes)).toEqual(by.map((m) => m.minutes).sort((a, b) => b - a));
    expect(by.some((m) => m.name.startsWith("drill"))).toBe(true);
  });
});
