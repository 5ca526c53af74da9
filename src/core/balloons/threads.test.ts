import { readCard, writeCard } from "../callout";
import { evaluateJob } from "../../../tests/helpers/card";
import { threadMeant } from "./threads";

const card = (row: string, thread = "4X 8-32 UNC-2B") =>
  ["UNIT in", "#4 4X ⌀.25", `#9 ${thread}`, "#8 .5 DEEP", "LEAVE BLOCK 3 X 2 X 1", row].join("\n");

describe("a thread taken from its balloon", () => {
  it("is a tapped row, and comes back as it was typed", () => {
    const { job, errors } = readCard(card("CUT 4X #9 DEEP #8 DRILL DEEP .7 GRID 2 2 BY 2 1"));
    expect(errors).toEqual([]);
    expect(job.rows[1].body).toMatchObject({ kind: "cutTapped", thread: "#9", count: "4" });
    expect(writeCard(job)).toContain("CUT 4X #9 DEEP #8 DRILL DEEP .7 GRID 2 2 BY 2 1");
  });
  it("is drilled for the thread the balloon prints, and follows it", async () => {
    for (const [thread, drill] of [
      ["4X 8-32 UNC-2B", 0.136],
      ["4X 10-32 UNF-2B", 0.159],
    ] as const) {
      const e = await evaluateJob(readCard(card("CUT 4X #9 DEEP #8 DRILL DEEP .7 FLAT GRID 2 2 BY 2 1", thread)).job);
      expect(-(e.solved.rows[1].volumeAfter - 6 * 25.4 ** 3) / 25.4 ** 3).toBeCloseTo(
        4 * (Math.PI / 4) * drill ** 2 * 0.7,
        5,
      );
      expect(e.ledger.find((l) => l.number === 9)!.state).toBe("proved");
    }
  });
  it("proves the balloon it cites and no other of the same thread", async () => {
    const text = card("CUT 4X #9 DEEP #8 DRILL DEEP .7 GRID 2 2 BY 2 1").replace("#8", "#12 2X 8-32 UNC-2B\n#8");
    const e = await evaluateJob(readCard(text).job);
    expect(e.ledger.filter((l) => [9, 12].includes(l.number)).map((l) => [l.number, l.state])).toEqual([
      [9, "proved"],
      [12, "unused"],
    ]);
  });
  it("a diameter stays a diameter", () => {
    expect(readCard(card("CUT 4X #4 DEEP #8 GRID 2 2 BY 2 1")).job.rows[1].body).toMatchObject({
      kind: "cutHoles",
      diameter: "#4",
    });
  });
  it("says what is missing", async () => {
    const { job } = readCard(card("CUT 4X #9 DEEP #8 GRID 2 2 BY 2 1"));
    const gone = { ...job, balloons: job.balloons.filter((b) => b.number !== 9) };
    expect(threadMeant("#9", gone.balloons)).toMatchObject({
      ok: false,
      problems: [{ message: "there is no balloon #9" }],
    });
    expect(threadMeant("#4", job.balloons)).toMatchObject({ ok: false, problems: [{ message: "#4 is no thread" }] });
    const e = await evaluateJob(gone);
    expect([e.solved.rows[1].state, e.solved.rows[1].message]).toEqual([
      "failed",
      expect.stringContaining("there is no balloon #9"),
    ]);
  });
});
