import { evaluateCard, mm } from "../helpers/card";

/** Area two circles share: the usual formula of a lens; radii and the distance of their centres. */
function lens(r: number, R: number, d: number): number {
  if (d + r <= R) return Math.PI * r * r;
  const kite = Math.sqrt((-d + r + R) * (d + r - R) * (d - r + R) * (d + r + R)) / 2;
  return (
    r * r * Math.acos((d * d + r * r - R * R) / (2 * d * r)) +
    R * R * Math.acos((d * d + R * R - r * r) / (2 * d * R)) -
    kite
  );
}
/** Midpoint rule in two pieces: where a circle begins to stick out its area has a kink. */
function integral(f: (r: number) => number, from: number, kink: number, to: number): number {
  const n = 20_000;
  const piece = (a: number, b: number) => {
    let sum = 0;
    for (let i = 0; i < n; i++) sum += f(a + ((b - a) * (i + 0.5)) / n);
    return (sum * (b - a)) / n;
  };
  return piece(from, kink) + piece(kink, to);
}
const removed = async (...rows: string[]) =>
  (await evaluateCard(mm('OUTLINE "t"', 'TEXT "3" HEIGHT 9 MIDDLE AT -30,15', "END", ...rows))).solved.rows.map(
    (r) => r.removed,
  );

const away = Math.hypot(35, 20);
const round = "LEAVE ROUND ⌀90 X 20";
/** A countersink of 90° whose mouth, ⌀12, stands out over the rim of a round of ⌀90, on a hole of ⌀6 8 deep with its point. */
const hole = "CUT ⌀6 DEEP 8 CSK ⌀12 X 90 AT 35,20";
const closed =
  integral((r) => lens(r, 45, away), 3, 45 - away, 6) +
  Math.PI * 9 * 5 +
  (Math.PI * 9 * (3 / Math.tan((59 * Math.PI) / 180))) / 3;

describe("a countersink that breaks out of a round", () => {
  it("takes what two circles share, height by height", async () => {
    const [, taken] = await removed(round, hole);
    expect(Math.abs(taken / closed - 1)).toBeLessThan(2e-6);
  });

  it("takes the same wherever else the part has corners", async () => {
    const grave = 'CUT ENGRAVE "t" V 60 DEEP .2';
    const [, alone] = await removed(round, grave);
    const [, , after] = await removed(round, hole, grave);
    const [, , before] = await removed(round, grave, hole);
    expect(Math.abs(after - alone)).toBeLessThan(1e-3);
    expect(Math.abs(before / closed - 1)).toBeLessThan(5e-6);
  });

  it("has the area of its walls to some millionths", async () => {
    const e = await evaluateCard(mm(round, hole));
    const [R, d] = [45, away];
    // Of the cone what lies within the round, of the round's side what lies under the cone's rim.
    const within = (r: number) => (r <= R - d ? 2 * Math.PI * r : 2 * (Math.PI - outside(r)) * r);
    const outside = (r: number) => Math.acos((R * R - d * d - r * r) / (2 * d * r));
    const cone = Math.SQRT2 * integral(within, 3, R - d, 6);
    const widest = Math.acos((d * d + R * R - 36) / (2 * d * R));
    const notch = (angle: number) => R * (6 - Math.sqrt(d * d + R * R - 2 * d * R * Math.cos(angle)));
    const side = 2 * Math.PI * R * 20 - integral(notch, -widest, 0, widest);
    const point = (Math.PI * 9) / Math.sin((59 * Math.PI) / 180);
    const flats = 2 * Math.PI * R * R - lens(6, R, d);
    const area = flats + side + cone + 2 * Math.PI * 3 * 5 + point;
    expect(Math.abs(e.part!.surfaceArea / area - 1)).toBeLessThan(3e-6);
  });
});
