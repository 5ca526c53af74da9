import { pathFile } from "@/core/paths/file";
import { planPaths } from "@/core/paths/plan";
import { evaluateJob, findingsOf, jobOf, mm } from "../helpers/card";
import { remarks } from "../setups/helpers";

/** A plate that holds 13 holes a row 6 apart, asked for 50. */
const plate = (...rows: string[]) => mm("STOCK PLATE 84 X 44 X 22", "LEAVE BLOCK 80 X 40 X 20", ...rows);

describe("whatever is asked of a row's places is asked of its copies", () => {
  it("those that cut nothing are counted, and the row says where", async () => {
    const rows = ["CUT ⌀4 DEEP 5 AT -36,0", "REPEAT 2 LINE 50X BY 6 ALONG X"];
    const [f, ...more] = await findingsOf(plate(...rows), "cuts-nothing");
    expect(more).toEqual([]);
    // The 13th stands at x 36; those from 42 on are beside the plate.
    expect(f).toMatchObject({ row: 3, severity: "stop", value: 37, place: { x: 42, y: 0 } });
    expect(f.text).toContain("37 of its 49 copies cut nothing");
    expect(await findingsOf(plate(rows[0], "REPEAT 2 LINE 13X BY 6 ALONG X"), "cuts-nothing")).toEqual([]);
  });
  it("so are those of a mirror, and of a repeat of several rows", async () => {
    const rows = ["CUT ⌀4 DEEP 5 AT 20,0", "CUT POCKET 6 X 6 R2 DEEP 3 AT 20,12", "MIRROR 2-3 ABOUT X"];
    expect(await findingsOf(plate(...rows), "cuts-nothing")).toEqual([]);
    const again = [...rows, "REPEAT 2-3 LINE 2X BY 30 ALONG X"];
    expect((await findingsOf(plate(...again), "cuts-nothing")).map((f) => [f.row, f.value])).toEqual([[5, 0]]);
  });
  it("they break out, run into one another and hang over edges like any other", async () => {
    const out = plate("CUT ⌀6 DEEP 5 AT -36,0", "REPEAT 2 LINE 2X BY 75 ALONG X");
    expect((await findingsOf(out, "breaks-out")).map((f) => f.row)).toEqual([3]);
    const into = plate("CUT ⌀6 DEEP 5 AT -30,0", "REPEAT 2 LINE 3X BY 4 ALONG X");
    expect((await findingsOf(into, "overlap")).map((f) => f.row)).toEqual([3]);
    const apart = plate("CUT ⌀6 DEEP 5 AT -30,0", "REPEAT 2 LINE 3X BY 8 ALONG X");
    expect(await findingsOf(apart, "overlap")).toEqual([]);
  });
  it("a setup that cannot see them says so, and how many", async () => {
    const both = ["CUT ⌀6 DEEP 5 AT 20,8", 'PLANE "m" MIDWAY TOP BOTTOM', 'MIRROR 2 ABOUT PLANE "m"'];
    const top = plate(...both, "SETUP 10 MILL UP TOP HOLD VISE GRIP 4 ACROSS Y ROWS 1 2 3");
    const found = await remarks(top, "row-unreachable");
    expect(found.filter((f) => f.setup === 10).map((f) => [f.row, f.severity])).toEqual([[3, "stop"]]);
    const turned = plate(...both, "SETUP 10 MILL UP TOP ROWS 1 2", "SETUP 20 MILL UP BOTTOM ROWS 1 3");
    expect(await remarks(turned, "row-unreachable")).toEqual([]);
  });
  it("those of several sides are named where one setup has them all", async () => {
    const rows = ["CUT ⌀5 DEEP 6 ON TOP", "REPEAT 2 4X AROUND X"];
    const block = (...more: string[]) =>
      mm("STOCK PLATE 84 X 44 X 44", "LEAVE BLOCK 80 X 40 X 40 AT 0,0,-20", ...rows, ...more);
    const [f] = await remarks(block("SETUP 10 MILL UP FRONT ROWS 1 2 3"), "row-unreachable").then((all) =>
      all.filter((x) => x.row === 3),
    );
    expect(f.text).toContain("2 of the 3 copies of row 3");
    const three = ["FRONT", "BACK", "BOTTOM"].map((up, i) => `SETUP ${20 + 10 * i} MILL UP ${up} ROWS 3`);
    const routed = await remarks(block("SETUP 10 MILL UP TOP ROWS 1 2", ...three), "row-unreachable");
    expect(routed.filter((x) => x.row === 3)).toEqual([]);
  });
  it("what no path is planned for is named in the file of words", async () => {
    const job = jobOf(plate("CUT ⌀4 DEEP 5 AT -36,0", "REPEAT 2 LINE 5X BY 12 ALONG X"));
    const e = await evaluateJob(job);
    const file = pathFile(job, e, planPaths(job, e.solved.rows, e.stock?.placed.box));
    expect(file.leftOut.map((l) => l.row)).toContain(3);
  });
});
