import type { SetupFinding } from "./finding";
import { saidOnce, stockFirst } from "./saidOnce";

const remark = (more: Partial<SetupFinding>): SetupFinding => ({
  rule: "clamp-screw",
  severity: "stop",
  setup: 10,
  row: null,
  rowId: null,
  value: 0,
  limit: 0,
  place: null,
  text: "met",
  source: "geometry",
  ...more,
});
const at = (x: number) => ({ x, y: 0, z: 0 });

describe("what is remarked of a setup", () => {
  it("is said once where only the place differs, with how often and each place", () => {
    const said = saidOnce([
      remark({ place: at(1) }),
      remark({ place: at(2) }),
      remark({ text: "other", place: at(3) }),
    ]);
    expect(said.map((f) => [f.text, f.places?.map((p) => p.x)])).toEqual([
      ["met (2 times)", [1, 2]],
      ["other", undefined],
    ]);
  });
  it("comes with its causes first, whatever follows from them", () => {
    const said = saidOnce([
      remark({ rule: "clamp-screw" }),
      remark({ rule: "nest-clearance", severity: "caution" }),
      remark({ rule: "goes-in-from-above", text: "in" }),
      ...stockFirst([remark({ rule: "outside-stock", text: "sticks out" })], 10),
    ]);
    expect(said.map((f) => f.rule)).toEqual(["outside-stock", "goes-in-from-above", "clamp-screw", "nest-clearance"]);
    expect(said[0].text).toMatch(/^sticks out: remarks below may follow/);
  });
  it("a stock that is only tight, or waived, is no cause", () => {
    expect(stockFirst([remark({ rule: "outside-stock", severity: "caution" })], 10)).toEqual([]);
    expect(stockFirst([remark({ rule: "outside-stock", waived: "cast oversize" })], 10)).toEqual([]);
  });
});
