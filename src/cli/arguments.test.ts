import { argumentsOf, type Arguments } from "./arguments";

const read = (...argv: string[]): Arguments => {
  const asked = argumentsOf(argv, "/bench");
  if (typeof asked === "string") throw new Error(asked);
  return asked;
};

describe("the words of the headless command", () => {
  it("are read wherever they stand, files from where it was called", () => {
    const asked = read("export", "--to", "step", "lid.card", "--all", "--out", "lid.step");
    expect([asked.file, asked.text("to"), asked.text("out"), asked.has("all"), asked.has("newer")]).toEqual([
      "/bench/lid.card",
      "step",
      "/bench/lid.step",
      true,
      false,
    ]);
    expect(read("outlines", "a.dxf", "--layer", "A", "--layer", "B").all("layer")).toEqual(["A", "B"]);
    expect(read("check", "/else/where.card", "--shop=shop.json").text("shop")).toBe("/bench/shop.json");
  });
  it.each([
    ["check lid.card --jsn", "--jsn"],
    ["check lid.card --to step", "--to"],
    ["format lid.card --json", "--json"],
    ["export lid.card --to", "--to"],
    ["check a.card b.card", "b.card is one FILE too many"],
    ["check", "a FILE is missing"],
    ["chek lid.card", "there is no verb chek"],
    ["toString lid.card", "there is no verb toString"],
    ["", "a verb is missing"],
  ])("%s is refused", (line, why) => {
    const asked = argumentsOf(line.split(" ").filter(Boolean), "/bench");
    expect(typeof asked).toBe("string");
    expect(asked).toContain(why);
  });
});
