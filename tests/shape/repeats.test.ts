// What a print says of copies, and what becomes of rows that no longer work. Lengths mm.
import { applyEdits } from "@/core/job";
import { evaluateCard, evaluateJob, jobOf, mm } from "../helpers/card";

const states = async (...card: string[]) =>
  Object.fromEntries((await evaluateCard(mm(...card))).ledger.map((l) => [l.number, [l.state, l.by]]));
const FLANGE = ["LEAVE ROUND ⌀60 X 10"];

describe("balloons over repeats", () => {
  it("7X over a repeat of one is proved by the seven that stand there", async () => {
    const s = await states("#1 7X ⌀5", ...FLANGE, "CUT ⌀#1 THRU AT 20,0", "REPEAT 2 7X AROUND Z");
    expect(s[1][0]).toBe("proved");
  });
  it("and is off where one is skipped, or one too many is there", async () => {
    expect((await states("#1 7X ⌀5", ...FLANGE, "CUT ⌀#1 THRU AT 20,0", "REPEAT 2 7X AROUND Z SKIP 3"))[1][0]).toBe(
      "off",
    );
    expect((await states("#1 7X ⌀5", ...FLANGE, "CUT ⌀#1 THRU AT 20,0", "REPEAT 2 8X AROUND Z"))[1][0]).toBe("off");
  });
  it("a count that drives a repeat is counted on the solid", async () => {
    const card = ["#1 ⌀5", "#2 6X", ...FLANGE, "CUT ⌀#1 THRU AT 20,0", "REPEAT 2 #2X AROUND Z"];
    expect((await states(...card))[2]).toEqual(["proved", "6 counted on the solid"]);
    // The sixth runs out of nothing: a hole cut away by a later pocket is not there to be counted.
    expect((await states(...card, "CUT POCKET ⌀12 THRU AT 20,0"))[2][0]).toBe("off");
  });
  it("a depth of copies is proved on every one", async () => {
    const s = await states(
      "#1 5 DEEP",
      "#2 ⌀6",
      "LEAVE BLOCK 80 X 40 X 20",
      "CUT POCKET ⌀#2 DEEP #1 AT -30,0",
      "REPEAT 2 LINE 4X BY 20 ALONG X",
    );
    expect([s[1][0], s[2][0]]).toEqual(["proved", "proved"]);
  });
  const block = "LEAVE BLOCK 120 X 60 X 20";
  const holed = [block, "CUT ⌀5 THRU AT -40,-10"];
  it.each([
    ["the pitch of a line", ["#1 20"], [...holed, "REPEAT 2 LINE 4X BY #1 ALONG X"], "proved"],
    [
      "a step about the axis of a row",
      ["#1 30°"],
      ["LEAVE ROUND ⌀100 X 10 AT 15,8", "CUT ⌀5 THRU AT 45,8", "REPEAT 2 4X AROUND AXIS OF 1 STEP #1"],
      "proved",
    ],
    [
      "a step about the axis of a row that is off",
      ["#1 30°"],
      ["LEAVE ROUND ⌀100 X 10 AT 15,8", "CUT ⌀5 THRU AT 45,8", "REPEAT 2 4X AROUND AXIS OF 1 STEP (#1+1)"],
      "off",
    ],
    [
      "the pitch of a repeat that is repeated",
      ["#1 12"],
      [...holed, "REPEAT 2 LINE 3X BY #1 ALONG X", "REPEAT 2-3 LINE 2X BY 15 ALONG Y"],
      "proved",
    ],
    [
      "the pitch of a repeat of a repeat",
      ["#1 15"],
      [...holed, "REPEAT 2 LINE 3X BY 12 ALONG X", "REPEAT 2-3 LINE 2X BY #1 ALONG Y"],
      "proved",
    ],
    [
      "one that is off",
      ["#1 15"],
      [...holed, "REPEAT 2 LINE 3X BY 12 ALONG X", "REPEAT 2-3 LINE 2X BY (#1-1) ALONG Y"],
      "off",
    ],
    ["a pitch that is off", ["#1 20"], [...holed, "REPEAT 2 LINE 4X BY (#1+1) ALONG X"], "off"],
    ["the pitch across a grid", ["#1 15"], [...holed, "REPEAT 2 GRID 3 2 BY 20 #1"], "proved"],
    [
      "the pitch of pockets",
      ["#1 22"],
      [block, "CUT POCKET 10 X 8 R2 DEEP 5", "REPEAT 2 LINE 3X BY #1 ALONG X"],
      "proved",
    ],
    [
      "a step of degrees",
      ["#1 30°"],
      ["LEAVE ROUND ⌀100 X 10", "CUT ⌀5 THRU AT 30,5", "REPEAT 2 3X AROUND Z STEP #1"],
      "proved",
    ],
    [
      "a step that is off",
      ["#1 30°"],
      ["LEAVE ROUND ⌀100 X 10", "CUT ⌀5 THRU AT 30,5", "REPEAT 2 3X AROUND Z STEP (#1+1)"],
      "off",
    ],
    // The only copy is cut away by a wider hole: there is nothing to measure.
    [
      "what is gone",
      ["#1 20"],
      [...holed, "REPEAT 2 LINE 2X BY #1 ALONG X", "CUT POCKET ⌀8 THRU AT -20,-10"],
      "drives",
    ],
  ])("%s is told by the copies", async (_, balloons, rows, state) => {
    expect((await states(...balloons, ...rows))[1][0]).toBe(state);
  });
  it("the pitch of a line is measured where the copies stand", async () => {
    const { ledger } = await evaluateCard(mm("#1 20", ...holed, "REPEAT 2 LINE 4X BY (#1+1) ALONG X"));
    expect(ledger[0].measured).toBeCloseTo(21, 9);
  });
  it("a mirrored boss proves its size", async () => {
    const s = await states(
      "#1 2X ⌀8",
      "LEAVE BLOCK 80 X 40 X 20",
      "LEAVE ROUND ⌀#1 X 6 ON TOP AT 20,0",
      "MIRROR 2 ABOUT X",
    );
    expect(s[1][0]).toBe("proved");
  });
});

describe("edges of copies", () => {
  it("are all there, or the row says how many are missing", async () => {
    const e = await evaluateCard(
      mm(
        "LEAVE BLOCK 80 X 40 X 10",
        "LEAVE BLOCK 10 X 10 X 5 AT -20,0 ON TOP OF 1",
        "LEAVE BLOCK 10 X 10 X 5 AT 20,0 ON TOP OF 1",
        "CUT POCKET 4 X 4 THRU AT 25,5",
        "CUT ROUND 1 VERTICAL OF 2",
        "REPEAT 5 LINE 2X BY 40 ALONG X",
      ),
    );
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok", "ok", "ok", "ok", "failed"]);
    expect(e.solved.rows[5].message).toContain("1 of its 4 edges is not there");
  });
});

describe("rows that no longer work", () => {
  const card = mm(
    'PLANE "p" OFFSET -5 FROM TOP OF 1',
    "LEAVE BLOCK 60 X 40 X 20",
    "CUT ⌀6 THRU AT -20,0",
    "REPEAT 2 LINE 3X BY 20 ALONG X",
    'CUT POCKET 10 X 10 DEEP 3 ON PLANE "p"',
    "CUT ROUND 2 VERTICAL",
  );
  it("are marked with their reason, and the rest computes", async () => {
    const job = jobOf(card);
    const r = applyEdits(job, [{ edit: "deleteRow", id: "r2" }]);
    if (!r.ok) throw new Error(r.problems[0].message);
    const e = await evaluateJob(r.value.job);
    expect(e.solved.rows.map((x) => [x.state, x.message])).toEqual([
      ["ok", ""],
      ["failed", "row 2 is no row before this one (expected: the number of an earlier row that is on)"],
      ["ok", ""],
      ["ok", ""],
    ]);
    expect(e.part!.volume).toBeCloseTo(48000 - 300 - 20 * 4 * (1 - Math.PI / 4) * 4, 6);
  });
  it("a plane that is used says by what, and cannot go", () => {
    const job = jobOf(card);
    const r = applyEdits(job, [{ edit: "deletePlane", id: "p1" }]);
    expect(r.ok ? "" : r.problems[0].message).toBe('plane "p" is used by row 4');
  });
  it("a plane with another name is found under it", async () => {
    const job = jobOf(card);
    const plane = { ...job.planes![0], name: "seat" };
    const r = applyEdits(job, [{ edit: "setPlane", id: "p1", plane }]);
    if (!r.ok) throw new Error(r.problems[0].message);
    expect((await evaluateJob(r.value.job)).solved.rows.every((x) => x.state === "ok")).toBe(true);
    expect(r.value.job.rows[3].body).toMatchObject({ plane: { on: "named", plane: "seat" } });
  });
  it("a plane made from itself, a plane of a row that is gone, and a row off: each says so", async () => {
    const said = async (...lines: string[]) => (await evaluateCard(mm(...lines))).solved.rows.map((r) => r.message);
    expect(
      (
        await said(
          'PLANE "a" OFFSET 1 FROM PLANE "b"',
          'PLANE "b" OFFSET 1 FROM PLANE "a"',
          "LEAVE BLOCK 9 X 9 X 9",
          'CUT ⌀2 DEEP 2 ON PLANE "a"',
        )
      )[1],
    ).toContain('plane "a" is made from itself');
    expect((await said("LEAVE BLOCK 9 X 9 X 9", "CUT ⌀2 DEEP 2 ON SIDE 7 OF 1"))[1]).toContain("row 1 has no flat 7");
    expect((await said("LEAVE BLOCK 9 X 9 X 9", 'CUT ⌀2 DEEP 2 ON PLANE "nowhere"'))[1]).toContain(
      'there is no plane "nowhere"',
    );
    expect((await said("LEAVE BLOCK 9 X 9 X 9", "CUT GROOVE SHAFT ⌀5 WIDE 1 START 1"))[1]).toContain(
      "there is no shaft yet",
    );
    const two = ["LEAVE ROUND ⌀40 X 10", "LEAVE ROUND ⌀20 X 30 ON TOP", "CUT GROOVE SHAFT ⌀16 WIDE 3 START 4"];
    expect((await said(...two))[2]).toContain("which shaft: row 1 or row 2");
    expect((await said("LEAVE BLOCK 9 X 9 X 9", "CUT CHAMFER 1 OUTER TOP", "REPEAT 2 3X AROUND Z"))[2]).toContain(
      "copy 2 of row 2",
    );
    expect((await said("LEAVE BLOCK 9 X 9 X 9", "CUT SHELL 1 OPEN TOP", "REPEAT 2 3X AROUND Z"))[2]).toContain(
      "of the whole part",
    );
    expect((await said("LEAVE BLOCK 9 X 9 X 9", "CUT ⌀2 DEEP TO TOP"))[1]).toContain("lies over where it starts");
    expect((await said("LEAVE BLOCK 9 X 9 X 9", "LEAVE ROUND ⌀4 X TO NEXT ON TOP"))[1]).not.toBe("");
  });
});
