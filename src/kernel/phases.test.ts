import { phasesOf, roundsOf, type Put } from "./phases";

const boxAt = (x: number, wide = 1) => ({ min: { x, y: 0, z: 0 }, max: { x: x + wide, y: 1, z: 1 } });
const put = (op: Put["op"], x: number, wide = 1): Put => ({ op, box: boxAt(x, wide) });

describe("what is put in together", () => {
  it("bosses with their holes, each pair apart from the others, are two goes", () => {
    const pairs = [0, 10, 20].flatMap((x) => [put("leave", x), put("cut", x)]);
    expect(phasesOf(pairs)).toEqual([
      [0, 2, 4],
      [1, 3, 5],
    ]);
  });
  it("a body that comes where a cut has been stays after it, and what follows it there too", () => {
    expect(phasesOf([put("leave", 0), put("cut", 0, 12), put("leave", 10), put("cut", 10)])).toEqual([
      [0],
      [1],
      [2],
      [3],
    ]);
  });
  it("a cut goes before a body it does not meet, to the cuts there are", () => {
    expect(phasesOf([put("cut", 0), put("leave", 10), put("cut", 20), put("cut", 10)])).toEqual([[0, 2], [1], [3]]);
  });
  it("tools over one another go one after the other, those apart at once", () => {
    expect(roundsOf([boxAt(0), boxAt(5), boxAt(0.5), boxAt(5.5), boxAt(1.4)])).toEqual([
      [0, 1, 4],
      [2, 3],
    ]);
    expect(roundsOf([boxAt(0), boxAt(0), boxAt(0)])).toHaveLength(3);
  });
});
