// Copies put in together come out as one after the other would. Volumes by hand, mm³.
import { evaluateCard, mm } from "../helpers/card";

const BASE = "LEAVE BLOCK 200 X 60 X 20";
const volumeOf = async (...card: string[]) => {
  const { part, solved } = await evaluateCard(mm(...card));
  const failed = solved.rows.filter((r) => r.state !== "ok").map((r) => `${r.number}: ${r.message}`);
  return failed.length ? failed : part!.volume;
};

describe("copies put in together", () => {
  it.each([
    [
      "bosses with a blind hole in each",
      ["LEAVE ROUND ⌀12 X 10 ON TOP OF 1 AT -80,0", "CUT ⌀5 DEEP 8 FLAT AT -80,0", "REPEAT 2-3 LINE 9X BY 20 ALONG X"],
      200 * 60 * 20 + 9 * Math.PI * (36 * 10 - 6.25 * 8),
    ],
    [
      "bosses with a hole through everything",
      ["LEAVE ROUND ⌀12 X 10 ON TOP OF 1 AT -80,0", "CUT ⌀5 THRU AT -80,0", "REPEAT 2-3 LINE 9X BY 20 ALONG X"],
      200 * 60 * 20 + 9 * Math.PI * (36 * 10 - 6.25 * 30),
    ],
    [
      "slots that run off an edge",
      ["CUT SLOT 20 X 4 DEEP 5 AT -90,-30 TURN 90", "REPEAT 2 LINE 19X BY 10 ALONG X"],
      200 * 60 * 20 - 19 * 5 * (8 * 4 + 2 * Math.PI),
    ],
    [
      // A slot cuts what is there by then: the next boss is put over it afterwards.
      "a cut where the next copy's boss will stand",
      [
        "LEAVE ROUND ⌀10 X 10 ON TOP OF 1 AT -80,0",
        "CUT POCKET 10 X 4 DEEP 12 AT -68,0 ON TOP OF 2",
        "REPEAT 2-3 LINE 8X BY 20 ALONG X",
      ],
      200 * 60 * 20 + 8 * (Math.PI * 25 * 10 - 10 * 4 * 2),
    ],
    [
      "cross slots through the middle, each over all others",
      ["CUT POCKET 300 X 4 DEEP 5", "REPEAT 2 2X AROUND Z STEP 90"],
      200 * 60 * 20 - 5 * (200 * 4 + 60 * 4 - 16),
    ],
  ])("%s", async (_what, rows, expected) => {
    const volume = await volumeOf(BASE, ...rows);
    expect(volume).toEqual(expect.any(Number));
    expect(Math.abs((volume as number) / expected - 1)).toBeLessThan(1e-9);
  });

  it("the copy that cannot be made is the one that is named", async () => {
    const rows = ["CUT POCKET 10 X 20 THRU AT -90,0", "MIRROR 2 ABOUT X", "LEAVE ROUND ⌀10 X 5 ON TOP OF 1 AT -60,0"];
    const { solved } = await evaluateCard(
      mm("LEAVE BLOCK 200 X 20 X 20", ...rows, "CUT CHAMFER 1 OUTER TOP OF 4", "REPEAT 4-5 LINE 6X BY 8 ALONG X"),
    );
    expect(solved.rows[5].state).toBe("failed");
    expect(solved.rows[5].message).toMatch(/^copy \d of row [45]/);
  });

  it("more copies that go by what they meet than could be waited for are refused at once", async () => {
    const rows = ["CUT ⌀3 DEEP TO NEXT ON FRONT AT 0,10", "REPEAT 2 700X AROUND Z"];
    const { solved } = await evaluateCard(mm("LEAVE RING OD 60 ID 40 X 20", ...rows));
    expect(solved.rows[2].message).toMatch(/^699 copies that each go by what they meet/);
  });
});
