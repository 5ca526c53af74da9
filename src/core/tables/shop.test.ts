// What a shop may set for itself, and what then counts.
import { defaultLimits, noSettings, shopMark, shopOf, shopSettingsSchema, usualShop } from ".";

const read = (value: object) => shopSettingsSchema.safeParse(value);
const settings = (value: object) => {
  const parsed = read(value);
  if (!parsed.success) throw new Error(parsed.error.issues[0].message);
  return parsed.data;
};

describe("a shop that has set nothing", () => {
  it("works by the usual figures", () => {
    expect(usualShop.limits).toEqual(defaultLimits);
    expect(usualShop.relief).toBe("corner");
    expect(shopMark(noSettings)).toBe("");
  });
});

describe("a figure of the shop's own", () => {
  it("is taken in the unit it was typed in, and says whose it is", () => {
    const shop = shopOf(settings({ limits: { turnOver: { text: ".002", unit: "in" } } }));
    expect(shop.limits.turnOver.value).toBeCloseTo(0.0508, 12);
    expect(shop.limits.turnOver.source).toBe("the shop's own figure");
    expect(shop.limits.thinWall).toEqual(defaultLimits.thinWall);
  });
  it("may be typed as a fraction, a sum, or with another unit", () => {
    const worth = (text: string, unit: string) =>
      shopOf(settings({ limits: { nestWall: { text, unit } } })).limits.nestWall.value;
    expect(worth("1/4", "in")).toBeCloseTo(6.35, 12);
    expect(worth("1/4in", "mm")).toBeCloseTo(6.35, 12);
    expect(worth("5 + 0.5", "mm")).toBeCloseTo(5.5, 12);
  });
  it("of an area is in the square of its unit, of a share in none", () => {
    const shop = shopOf(
      settings({
        limits: { gripAreaLeast: { text: ".25", unit: "in" }, heightOverGrip: { text: "5", unit: "in" } },
      }),
    );
    expect(shop.limits.gripAreaLeast.value).toBeCloseTo(0.25 * 25.4 * 25.4, 9);
    expect(shop.limits.heightOverGrip.value).toBe(5);
  });
  it("of metric fixtures leaves those of inch jobs as they are", () => {
    const { fixtures } = shopOf(settings({ fixtures: { mm: { clearance: { text: "0.1", unit: "mm" } }, in: {} } }));
    expect(fixtures.mm.clearance).toBe(0.1);
    expect(fixtures.in.clearance).toBe(usualShop.fixtures.in.clearance);
  });
  it("tells its settings apart from others", () => {
    const one = settings({ limits: { turnOver: { text: "0.05", unit: "mm" } } });
    const other = settings({ limits: { turnOver: { text: "0.06", unit: "mm" } } });
    expect(shopMark(one)).not.toBe("");
    expect(shopMark(one)).not.toBe(shopMark(other));
  });
});

describe("what is no figure of a shop", () => {
  it.each([
    ["a word", { limits: { turnOver: { text: "little", unit: "mm" } } }],
    ["a balloon", { limits: { turnOver: { text: "#4", unit: "mm" } } }],
    ["less than nothing", { limits: { nestWall: { text: "-1", unit: "mm" } } }],
    ["nothing, where something is divided by it", { limits: { heightOverGrip: { text: "0", unit: "mm" } } }],
    ["out of all range", { limits: { nestWall: { text: "1000000", unit: "mm" } } }],
    ["a division by zero", { limits: { nestWall: { text: "1/0", unit: "mm" } } }],
    ["a limit nobody holds to", { limits: { patience: { text: "1", unit: "mm" } } }],
    ["a unit of its own", { limits: { nestWall: { text: "1", unit: "ell" } } }],
    ["a school of its own", { relief: "nowhere" }],
    ["no blanks at all", { jawBlanks: [] }],
    ["something else", { colour: "red" }],
  ])("%s is refused", (_, value) => {
    expect(read(value).success).toBe(false);
  });
  it("nothing is taken where nothing is meant", () => {
    expect(shopOf(settings({ limits: { turnOver: { text: "0", unit: "mm" } } })).limits.turnOver.value).toBe(0);
  });
  it("a blank whose screws lie outside of it, or that is there twice", () => {
    const blank = { unit: "mm", name: "short", length: 60, height: 40, thickness: 20, screwPitch: 40, screw: 11 };
    expect(read({ jawBlanks: [blank] }).success).toBe(true);
    expect(read({ jawBlanks: [{ ...blank, screwPitch: 55 }] }).success).toBe(false);
    expect(read({ jawBlanks: [blank, { ...blank, name: "SHORT" }] }).success).toBe(false);
    expect(read({ jawBlanks: [blank, { ...blank, unit: "in" }] }).success).toBe(true);
  });
});
