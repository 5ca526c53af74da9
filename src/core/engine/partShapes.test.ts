import { evaluateJob, jobOf } from "../../../tests/helpers/card";
import { prepare } from ".";

const run = (text: string) => evaluateJob(jobOf(text));
const head = 'JOB "x"\nUNIT mm\nSTOCK PLATE 110 X 70 X 30\n';

describe("outlines taken from the part", () => {
  const card = (l: string, more = "") =>
    `${head}OUTLINE "inset"\nFACE TOP AFTER 2\nOFFSET -5\nEND\nOUTLINE "cross"\nSECTION Z 15 AFTER 3\nEND\nOUTLINE "floor"\nFACE FLOOR OF 3\nEND\nLEAVE BLOCK ${l} X 60 X 20 R8\nCUT ⌀12 THRU AT 25,0\nCUT POCKET "inset" DEEP 8\n${more}`;

  it("follow the part and stay exact: a pocket five millimetres inside the rim and round the hole", async () => {
    for (const l of [100, 120]) {
      const e = await run(card(String(l)));
      expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok", "ok"]);
      // The inset rim (R3) less the hole grown by five.
      const area = (l - 10) * 50 - (4 - Math.PI) * 9 - Math.PI * 11 * 11;
      expect(e.outlines.find((o) => o.name === "inset")!.area).toBeCloseTo(area, 6);
      expect(e.solved.rows[2].removed).toBeCloseTo(area * 8, 4);
      expect(e.outlines.find((o) => o.name === "floor")!.area).toBeCloseTo(area, 6);
      // Cut at mid height: what stands between the rims.
      expect(e.outlines.find((o) => o.name === "cross")!.area).toBeCloseTo(
        l * 60 - (4 - Math.PI) * 64 - Math.PI * 36 - area,
        6,
      );
    }
  });

  it("wait while there is no solid, and say which row is missing", async () => {
    const job = jobOf(card("100"));
    expect(prepare(job).rows[2].recipe).toBeNull();
    const e = await run(card("100").replace("AFTER 2", "AFTER 3"));
    expect(e.solved.rows[2]).toMatchObject({
      state: "failed",
      message: expect.stringContaining("row 3 is no row before"),
    });
    expect(e.solved.rows.slice(0, 2).map((r) => r.state)).toEqual(["ok", "ok"]);
    const none = await run(card("100").replace("SECTION Z 15", "SECTION Z 55"));
    expect(none.outlines.find((o) => o.name === "cross")!.problems[0].message).toBe("there is nothing of the part");
  });

  it("are there for a later row, whatever an earlier one asked too soon", async () => {
    const e = await run(
      card("100")
        .replace("CUT ⌀12 THRU AT 25,0", 'CUT POCKET "floor" DEEP 1\nCUT ⌀12 THRU AT 25,0')
        .replace("FACE FLOOR OF 3", "FACE FLOOR OF 4")
        .replace("TOP AFTER 2", "TOP AFTER 3")
        .replace('AFTER 3\nEND\nOUTLINE "floor"', 'AFTER 4\nEND\nOUTLINE "floor"') +
        'CUT POCKET "floor" DEEP 1 ON FLOOR OF 4\n',
    );
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "failed", "ok", "ok", "ok"]);
  });

  it("refuse what is neither line nor arc by its name", async () => {
    const e = await run(
      `${head}PLANE "t" TILT 30 ABOUT Y AT 0,0,20\nOUTLINE "cross"\nSECTION Z 10 AFTER 2\nEND\nLEAVE BLOCK 100 X 60 X 20\nCUT ⌀12 THRU ON PLANE "t"\nCUT POCKET "cross" DEEP 1\n`,
    );
    const said = /part of an ellipse .* an outline holds lines and arcs/;
    expect(e.outlines[0].problems[0].message).toMatch(said);
    expect(e.solved.rows.map((r) => r.state)).toEqual(["ok", "ok", "failed"]);
  });

  it("take sections upright too, seen from the front and from the right", async () => {
    const e = await run(card("100").replace("SECTION Z 15 AFTER 3", "SECTION Y 0 AFTER 2"));
    const cross = e.outlines.find((o) => o.name === "cross")!;
    expect(cross.area).toBeCloseTo((100 - 12) * 20, 6);
    expect(cross.box).toEqual({
      min: { x: expect.closeTo(-50, 9), y: expect.closeTo(0, 9) },
      max: { x: expect.closeTo(50, 9), y: expect.closeTo(20, 9) },
    });
    const x = (await run(card("100").replace("SECTION Z 15 AFTER 3", "SECTION X 25 AFTER 2"))).outlines.find(
      (o) => o.name === "cross",
    )!;
    expect(x.area).toBeCloseTo((60 - 12) * 20, 6);
  });

  it("take edges by their meaning: the mouth of a pocket, its floor, the outer rim alone", async () => {
    const rows = "LEAVE BLOCK 100 X 60 X 20 R8\nCUT POCKET 50 X 30 R6 DEEP 5 AT -5,0\nCUT ⌀12 THRU AT 40,0\n";
    const area = async (line: string) => (await run(`${head}OUTLINE "e"\n${line}\nEND\n${rows}`)).outlines[0];
    const pocket = 1500 - (4 - Math.PI) * 36;
    expect((await area("EDGES MOUTH OF 2")).area).toBeCloseTo(pocket, 6);
    expect((await area("EDGES FLOOR OF 2")).area).toBeCloseTo(pocket, 6);
    expect((await area("EDGES OUTER TOP AFTER 3")).area).toBeCloseTo(6000 - (4 - Math.PI) * 64, 6);
    expect((await area("EDGES MOUTH OF 3")).area).toBeCloseTo(Math.PI * 36, 6);
    expect((await area("EDGES FLOOR OF 3")).problems[0].message).toMatch(/row 3 has no floor/);
  });
});
