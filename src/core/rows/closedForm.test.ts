import { kindOf, type RowBody } from ".";
import { prepare } from "../engine";
import { evaluateCard, jobOf, mm, volumeOf } from "../../../tests/helpers/card";

/** A block that every lone cut fits in. */
const BLOCK = "LEAVE BLOCK 200 X 200 X 100";
const close = (actual: number, expected: number) =>
  expect(Math.abs(actual - expected) / Math.abs(expected)).toBeLessThan(1e-6);

describe("every row against its closed form", () => {
  it.each([
    "LEAVE BLOCK 40 X 30 X 20",
    "LEAVE BLOCK 40 X 30 X 20 R5 TURN 33 AT 7,8,9",
    "LEAVE BLOCK 40 X 30 X 20 CORNER",
    "LEAVE ROUND ⌀37 X 11",
    "LEAVE POLYGON 6 AF 30 X 12",
    "LEAVE POLYGON 5 AC 30 X 12 R2 TURN 10",
    "LEAVE RING OD 120 ID 75 X 5.8",
  ])("%s", async (line) => {
    const job = jobOf(mm(line));
    const p = prepare(job).rows[0];
    close(await volumeOf(mm(line)), kindOf(p.row.body).closedForm(p.resolved!)!);
  });
  it.each([
    "CUT POCKET 50 X 30 DEEP 8",
    "CUT POCKET 50 X 30 R5 DEEP 8 TURN 27",
    "CUT POCKET ⌀41 DEEP 12",
    "CUT POCKET POLYGON 6 AF 30 DEEP 9",
    "CUT POCKET POLYGON 8 AC 30 R2 DEEP 9 ON BOTTOM",
    "CUT POCKET 30 X 20 DEEP 5 START 10 ON FRONT AT 0,50",
    "CUT SLOT 50 X 10 DEEP 5",
    "CUT SLOT CENTRES 40 X 10 DEEP 5 TURN 30 AT 5,5",
    "CUT CBORE ⌀54 DEEP 6",
    "CUT CSK ⌀12 X 90",
    "CUT GROOVE OD 60 ID 50 DEEP 4",
    "CUT GROOVE BORE ⌀34 WIDE 1.6 START 4",
    "CUT ⌀10 DEEP 30",
    "CUT ⌀10 DEEP 30 FLAT",
    "CUT ⌀10 DEEP 30 POINT 135",
    "CUT ⌀10 DEEP 30 CBORE ⌀18 DEEP 11",
    "CUT ⌀10 DEEP 30 CSK ⌀20 X 90",
    "CUT ⌀10 DEEP 30 CSK ⌀21 X 82 CBORE ⌀18 DEEP 11",
    "CUT ⌀10 DEEP 30 ON LEFT AT 0,50",
    "CUT M5 DEEP 9 DRILL DEEP 13 CSK ⌀5.6 X 90",
    "CUT M12 DEEP 20",
    "CUT 1/4-20 UNC-2B DEEP 15 DRILL ⌀5.2 DEEP 22",
  ])("%s", async (line) => {
    const p = prepare(jobOf(mm(BLOCK, line))).rows[1];
    close(4e6 - (await volumeOf(mm(BLOCK, line))), kindOf(p.row.body).closedForm(p.resolved!)!);
  });
  it("cones by the usual formulas, worked here by hand", async () => {
    // ⌀10 by 30 deep with a 118 degree point: cylinder, and a cone of height 5/tan 59°.
    close(
      4e6 - (await volumeOf(mm(BLOCK, "CUT ⌀10 DEEP 30"))),
      Math.PI * 25 * 30 + (Math.PI * 25 * (5 / Math.tan((59 * Math.PI) / 180))) / 3,
    );
    // ⌀4 through 20 mm, countersunk ⌀9.4 by 90: the frustum from 4.7 to 2 over 2.7 of depth replaces that much of
    // the hole.
    const frustum = (Math.PI * 2.7 * (4.7 ** 2 + 4.7 * 2 + 4)) / 3;
    close(
      80 * 80 * 20 - (await volumeOf(mm("LEAVE BLOCK 80 X 80 X 20", "CUT ⌀4 THRU CSK ⌀9.4 X 90"))),
      Math.PI * 4 * (20 - 2.7) + frustum,
    );
  });
  it("face and step", async () => {
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT FACE DEEP 3")), 40 * 30 * 17);
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT FACE DEEP 3 ON LEFT")), 37 * 30 * 20);
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT STEP LEFT 10 DEEP 5")), 40 * 30 * 20 - 10 * 30 * 5);
    close(
      await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT STEP FRONT 10 DEEP 5 ON BOTTOM")),
      40 * 30 * 20 - 40 * 10 * 5,
    );
    // The second step is a strip along the top as it is now: the first step has taken its left end.
    close(
      await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT STEP LEFT 10 DEEP 5", "CUT STEP BACK 6 DEEP 8")),
      40 * 30 * 20 - 10 * 30 * 5 - 30 * 6 * 8,
    );
  });
  it("chamfers and rounds of straight and round edges", async () => {
    const block = 40 * 30 * 20;
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT ROUND 2 VERTICAL")), block - (4 - Math.PI) * 4 * 20);
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT CHAMFER 2 VERTICAL")), block - 4 * 2 * 20);
    // Rim of the top, mitred: a prism frustum from 40 x 30 to 36 x 26 over 2 of height.
    const mitred = (2 / 6) * (40 * 30 + 4 * 38 * 28 + 36 * 26);
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT CHAMFER 2 OUTER TOP")), 40 * 30 * 18 + mitred);
    close(await volumeOf(mm("LEAVE BLOCK 40 X 30 X 20", "CUT BREAK 2 OUTER TOP")), 40 * 30 * 18 + mitred);
    const cone = (Math.PI * 2 * (400 + 20 * 18 + 324)) / 3;
    close(
      await volumeOf(mm("LEAVE ROUND ⌀40 X 20", "CUT CHAMFER 2 OUTER TOP, OUTER BOTTOM")),
      Math.PI * 400 * 16 + 2 * cone,
    );
    // 2 along the face at 30 degrees to it: 2 tan 30 down.
    const h = 2 * Math.tan(Math.PI / 6);
    close(
      await volumeOf(mm("LEAVE ROUND ⌀40 X 20", "CUT CHAMFER 2 X 30 OUTER TOP")),
      Math.PI * 400 * (20 - h) + (Math.PI * h * (400 + 20 * 18 + 324)) / 3,
    );
    // A round along the floor of a round pocket leaves material: a quarter-circle fillet swept by Pappus.
    const fillet = (1 - Math.PI / 4) * 4,
      reach = 10 - (2 * (10 - 3 * Math.PI)) / (3 * (4 - Math.PI));
    const e = await evaluateCard(mm("LEAVE BLOCK 60 X 60 X 20", "CUT POCKET ⌀20 DEEP 8", "CUT ROUND 2 FLOOR OF 2"));
    expect(e.solved.rows[2].removed).toBeLessThan(0);
    // Centroid of the region between a corner and its quarter round: r (10 - 3π) / (3 (4 - π)) from the walls.
    close(-e.solved.rows[2].removed, fillet * 2 * Math.PI * reach);
  });
  it("names every number of a row in its grammar", () => {
    const body = jobOf(
      mm(BLOCK, "CUT 2X M5 DEEP 9 DRILL ⌀4.2 DEEP 13 POINT 120 CBORE ⌀9 DEEP 2 CSK ⌀10 X 90 AT 1,2 3,4 START 1"),
    ).rows[1].body as RowBody;
    const labels = prepare(
      jobOf(mm(BLOCK, "CUT 2X M5 DEEP 9 DRILL ⌀4.2 DEEP 13 POINT 120 CBORE ⌀9 DEEP 2 CSK ⌀10 X 90 AT 1,2 3,4 START 1")),
    ).rows[1].numbers.map((n) => n.path);
    expect(kindOf(body).kind).toBe("cutTapped");
    expect(labels.sort()).toEqual([
      "cbore.deep",
      "cbore.diameter",
      "count",
      "csk.angle",
      "csk.diameter",
      "deep",
      "drill.deep",
      "drill.diameter",
      "pattern.points.0.x",
      "pattern.points.0.y",
      "pattern.points.1.x",
      "pattern.points.1.y",
      "plane.start",
      "point",
    ]);
  });
});
