// Chamfers on edges between cones and cylinders, by Pappus: a triangle turned. Lengths mm.
import { evaluateCard, mm } from "../../tests/helpers/card";

/** What a triangle takes that is turned about the axis: its corner at a radius, its legs from there. */
function turnedTriangle(radius: number, [ax, ay]: number[], [bx, by]: number[]): number {
  return 2 * Math.PI * (radius + (ax + bx) / 3) * (Math.abs(ax * by - ay * bx) / 2);
}
const SLANT = Math.SQRT1_2;

describe("chamfers all round between a cone and a cylinder", () => {
  const breakOf = async (length: number, c: number) => {
    // By their places: the edges of a chamfer that is there are no sharp ones.
    const edges = `EDGE AT 36,0,${length - 1}, EDGE AT 35,0,${length}, OUTER BOTTOM`;
    const card = mm(`LEAVE ROUND ⌀72 X ${length}`, "CUT CHAMFER 1 OUTER TOP", `CUT BREAK ${c} ${edges}`);
    const { solved } = await evaluateCard(card);
    return solved.rows[2];
  };
  const expected = (c: number) =>
    turnedTriangle(36, [0, -c], [-c * SLANT, c * SLANT]) +
    turnedTriangle(35, [c * SLANT, -c * SLANT], [-c, 0]) +
    turnedTriangle(36, [-c, 0], [0, c]);

  it.each([
    [24, 0.2],
    [240, 0.05],
    [2400, 0.3],
  ])("a shaft %d long, broken by %d", async (length, c) => {
    const row = await breakOf(length, c);
    expect(row.state).toBe("ok");
    expect(Math.abs(row.removed / expected(c) - 1)).toBeLessThan(2e-6);
  });
  it("legs that meet on the cone do not fit, and the largest that do are named", async () => {
    const row = await breakOf(24, 0.8);
    expect(row.state).toBe("failed");
    expect(row.message).toMatch(/does not fit on .*at most 0\.70|on all of these edges together/);
  });
  it("in a bore: a countersink's lower edge under it", async () => {
    const card = mm("LEAVE BLOCK 40 X 40 X 30", "CUT ⌀10 THRU CSK ⌀16 X 90", "CUT CHAMFER .5 ALL SHARP");
    const { solved } = await evaluateCard(card);
    const box = 4 * 40 * 2 + 4 * 30;
    const mouth = turnedTriangle(8, [0.5, 0], [-0.5 * SLANT, -0.5 * SLANT]);
    const neck = turnedTriangle(5, [0.5 * SLANT, 0.5 * SLANT], [0, -0.5]);
    const foot = turnedTriangle(5, [0.5, 0], [0, 0.5]);
    // Square edges take a triangle along their length, less what their corners count twice (three wedges to a point).
    expect(solved.rows[2].state).toBe("ok");
    const corners = solved.rows[2].removed - (mouth + neck + foot);
    expect(corners).toBeGreaterThan((box - 8 * 3 * 0.5) * 0.125);
    expect(corners).toBeLessThan(box * 0.125);
  });
});
