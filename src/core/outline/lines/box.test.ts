// The rectangle round what stands there, and places at the middles of its sides. Lengths mm.
import { readCard } from "@/core/callout";
import { prepare } from "@/core/engine";
import { loopArea } from "../outline";

const outline = (...lines: string[]) => {
  const text = ["UNIT mm", 'OUTLINE "o"', ...lines, "END"].join("\n");
  const { job, errors } = readCard(text);
  if (errors.length) throw new Error(errors[0].message);
  return [...prepare(job).outlines.values()][0];
};
const area = (...lines: string[]) => outline(...lines).region.reduce((sum, l) => sum + loopArea(l), 0);

describe("the rectangle round an outline", () => {
  it("is square to x and y, whatever stands in it", () => {
    expect(area("CIRCLE ⌀10", "BOX")).toBeCloseTo(100, 9);
    // A rectangle of 40 x 10 turned by 30 degrees.
    const [c, s] = [Math.sqrt(3) / 2, 0.5];
    expect(area("RECTANGLE 40 X 10 TURN 30", "BOX")).toBeCloseTo((40 * c + 10 * s) * (40 * s + 10 * c), 6);
  });
  it("stands farther out by so much on each side, and takes no notice of what is open in it", () => {
    expect(area("CIRCLE ⌀10", "BOX BY 2 X 3")).toBeCloseTo(14 * 16, 9);
    expect(area("CIRCLE ⌀10", "BOX BY -1 X 0")).toBeCloseTo(8 * 10, 9);
    expect(area("RING OD 20 ID 8", "BOX")).toBeCloseTo(400, 9);
  });
  it("is one of each shape that stands apart, and one of those that lap", () => {
    expect(outline("CIRCLE ⌀10", "CIRCLE ⌀10 AT 30,0", "BOX").region).toHaveLength(2);
    expect(area("CIRCLE ⌀10", "CIRCLE ⌀10 AT 12,0", "BOX BY 2 X 0")).toBeCloseTo(26 * 10, 9);
  });
  it("is refused where nothing of it is left", () => {
    expect(outline("CIRCLE ⌀10", "BOX BY -5 X 0").problems.length).toBe(1);
  });
});

describe("places at the middles of sides", () => {
  const places = (of: string) => {
    const lines = ["UNIT mm", 'OUTLINE "o"', "RECTANGLE 40 X 20 R 3", "END", "LEAVE BLOCK 100 X 60 X 10"];
    const { job, errors } = readCard([...lines, `CUT ⌀2 THRU PLACES "o" ${of}`].join("\n"));
    if (errors.length) return errors[0].expected;
    const { recipe } = prepare(job).rows[1];
    return recipe?.op === "cut" ? recipe.places.map((p) => [p.x, p.y].map((n) => Math.round(n * 1e6) / 1e6 + 0)) : [];
  };
  it("all of them, or those of sides that look along an axis", () => {
    expect(places("MIDDLES")).toHaveLength(4);
    expect([...(places("MIDDLES X") as number[][])].sort((a, b) => a[0] - b[0])).toEqual([
      [-20, 0],
      [20, 0],
    ]);
    expect([...(places("MIDDLES Y") as number[][])].sort((a, b) => a[1] - b[1])).toEqual([
      [0, -10],
      [0, 10],
    ]);
  });
  it("say what else there is", () => {
    expect(places("EDGES")).toContain("MIDDLES");
  });
});
