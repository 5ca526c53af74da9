// Rounds that use up the face beside them, against closed forms: a square corner of r loses (1 - π/4) r² along its edge.
import { evaluateCard, inch, mm, volumeOf } from "../helpers/card";

const corner = (r: number) => (1 - Math.PI / 4) * r * r;
const block = "LEAVE BLOCK 60 X 40 X 40";

describe("a round that uses up the face beside it", () => {
  it.each([
    ["one edge after the other", ["CUT ROUND 30 BETWEEN TOP AND LEFT", "CUT ROUND 30 BETWEEN TOP AND RIGHT"]],
    ["both in one row", ["CUT ROUND 30 BETWEEN TOP AND LEFT, BETWEEN TOP AND RIGHT"]],
  ])("R30 on both edges of a 60 wide top: %s", async (_, rows) => {
    expect(await volumeOf(mm(block, ...rows))).toBeCloseTo(96000 - 2 * corner(30) * 40, 5);
  });
  it("ends that are full rounds, in either unit", async () => {
    expect(await volumeOf(mm("LEAVE BLOCK 60 X 40 X 20", "CUT ROUND 20 VERTICAL"))).toBeCloseTo(
      48000 - 4 * corner(20) * 20,
      5,
    );
    const slot = await volumeOf(inch("LEAVE BLOCK 3 X 1 X .5", "CUT ROUND .5 VERTICAL"));
    expect(slot / 25.4 ** 3).toBeCloseTo(1.5 - 4 * corner(0.5) * 0.5, 8);
  });
  it("its faces are the row's, and what comes after it stands on them", async () => {
    const e = await evaluateCard(mm("LEAVE BLOCK 60 X 40 X 20", "CUT ROUND 20 VERTICAL", "CUT CHAMFER 1 OUTER TOP"));
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok", "ok"]);
    // Two straights of 20 lose c²/2 each along them; the two half rounds together a cylinder less a cone's frustum.
    const frustum = (Math.PI * (20 ** 2 + 20 * 19 + 19 ** 2)) / 3;
    expect(e.solved.rows[2].removed).toBeCloseTo(2 * 20 * 0.5 + Math.PI * 20 ** 2 - frustum, 5);
  });
  it("one that is larger is refused with the largest that fits, and a leaning end is left to the library", async () => {
    for (const r of ["20.5", "20.01", "20.001"]) {
      const larger = await evaluateCard(mm("LEAVE BLOCK 60 X 40 X 20", `CUT ROUND ${r} VERTICAL`));
      expect([r, larger.solved.rows[1].state]).toEqual([r, "failed"]);
    }
    const leaning = mm(
      'OUTLINE "o"',
      "START -30,-20",
      "LINE TO 30,-20",
      "LINE TO 20,20",
      "LINE TO -30,20",
      "CLOSE",
      "END",
      'LEAVE PRISM "o" X 20',
      "CUT ROUND 20 BETWEEN TOP AND FRONT",
    );
    const { solved } = await evaluateCard(leaning);
    // Either the library makes it or it is refused: a square tool is never put on a leaning end.
    if (solved.rows[1].state === "ok") expect(solved.rows[1].removed).toBeGreaterThan(corner(20) * 50);
    else expect(solved.rows[1].message).toMatch(/does not fit/);
  });
});
