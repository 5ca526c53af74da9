import { fewestChanges, type Placing } from "./cutterChanges";

const row = (among: number[], ...cutters: string[]): Placing => ({ among, parts: [], cutters });

describe("cutters changed as seldom as can be", () => {
  it("a row goes where its drill is used anyway, though an earlier setup could cut it", () => {
    expect(fewestChanges([row([0, 1], "drill 5"), row([0], "flat 10"), row([1], "drill 5")])).toEqual([1, 0, 1]);
  });
  it("rows with one cutter go together", () => {
    expect(fewestChanges([row([0, 1], "drill 5"), row([0, 1], "drill 5"), row([1], "drill 5")])).toEqual([1, 1, 1]);
  });
  it("where nothing is saved the earliest setup that cuts it keeps it", () => {
    expect(fewestChanges([row([0, 1], "drill 5"), row([0, 1], "flat 6"), row([1], "flat 10")])).toEqual([0, 0, 1]);
  });
  it("no row stays in a later setup for a cutter that has gone from there", () => {
    const [a, b] = fewestChanges([row([0, 2], "drill 5"), row([1, 2], "drill 5"), row([1], "drill 5")]);
    expect([a, b]).toEqual([0, 1]);
  });
  it("a row with two cutters goes where more of them are", () => {
    expect(
      fewestChanges([row([0, 1], "drill 5", "spot"), row([0], "spot"), row([1], "spot"), row([1], "drill 5")]),
    ).toEqual([1, 0, 1, 1]);
  });
  it("a row no setup cuts whole has its cutters in each that cuts a part of it", () => {
    const parts: Placing = { among: [], parts: [{ setup: 0 }, { setup: 1 }], cutters: ["flat 6"] };
    expect(fewestChanges([parts, row([0, 1], "flat 6"), row([], "flat 6")])).toEqual([null, 0, null]);
    expect(fewestChanges([{ ...parts, parts: [{ setup: 1 }] }, row([0, 1], "flat 6")])).toEqual([null, 1]);
  });
});
