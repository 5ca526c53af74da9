import { mergedSettings } from "./shopMerge";
import { noSettings, shopMark, shopSettingsSchema, type ShopSettings } from "./shop";

const mm = (text: string) => ({ text, unit: "mm" as const });
const with_ = (limits: ShopSettings["limits"], more: Partial<ShopSettings> = {}): ShopSettings => ({
  ...noSettings,
  ...more,
  limits,
});

describe("the shop's figures of two windows", () => {
  it("go together where they are different ones", () => {
    const r = mergedSettings(noSettings, with_({ thinWall: mm("1") }), with_({ thinFloor: mm("2") }));
    expect(r.both).toEqual([]);
    expect(r.settings.limits).toEqual({ thinFloor: mm("2"), thinWall: mm("1") });
  });
  it("keep the one that was kept first where both have set it, and say which", () => {
    const r = mergedSettings(noSettings, with_({ thinWall: mm("1") }), with_({ thinWall: mm("2") }));
    expect(r).toEqual({ settings: with_({ thinWall: mm("2") }), both: ["thinWall"] });
  });
  it("take one back that only this window took back", () => {
    const base = with_({ thinWall: mm("1"), gripLeast: mm("4") });
    const r = mergedSettings(base, with_({ gripLeast: mm("4") }), { ...base, relief: "wall" });
    expect(r.settings).toEqual(with_({ gripLeast: mm("4") }, { relief: "wall" }));
  });
});

describe("a shop's mark", () => {
  it("is the same whatever order its keys come back in", () => {
    const a = with_({ thinWall: mm("1"), gripLeast: mm("4") });
    const b = with_({ gripLeast: { unit: "mm", text: "4" }, thinWall: { unit: "mm", text: "1" } });
    expect(shopMark(a)).toBe(shopMark(b));
    expect(shopMark(with_({ thinWall: mm("1.1"), gripLeast: mm("4") }))).not.toBe(shopMark(a));
    expect(shopMark({ ...noSettings })).toBe("");
  });
});

describe("limits that contradict each other", () => {
  it.each<[ShopSettings["limits"], boolean]>([
    [{ depthOverCutterCaution: mm("9") }, false],
    [{ depthOverCutterCaution: mm("4") }, true],
    [{ drillStop: mm("4") }, false],
    [{ drillStop: mm("5") }, true],
    [{ drillPeck: mm("6"), drillDeep: mm("7"), drillStop: mm("8") }, true],
    [{ overhangSteady: mm("2") }, false],
    [{ nestRoomLeast: { text: ".01", unit: "in" } }, false],
    [{ nestRoomLeast: { text: ".01", unit: "in" }, nestRoomMost: mm("0.3") }, true],
    [{ edgeWallLeast: mm("7") }, false],
    [{ tapLeadPlug: mm("0.5") }, false],
  ])("%j: %s", (limits, fits) => {
    const read = shopSettingsSchema.safeParse(with_(limits));
    expect(read.success).toBe(fits);
    if (!read.success) expect(read.error.issues[0].path[0]).toBe("limits");
  });
});
