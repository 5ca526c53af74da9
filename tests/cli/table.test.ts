import { command } from "@/cli/command";

/** What the headless command says of a size, and how it ends. */
async function table(...words: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = "";
  let err = "";
  const code = await command(["table", ...words], ".", {
    line: (t) => (out += `${t}\n`),
    text: (t) => (out += t),
    error: (t) => (err += `${t}\n`),
  });
  return { code, out, err };
}

describe("the table verb", () => {
  it.each([
    ["M10-6g", "ISO 965-1", "majorMax", 9.968],
    ["M6 clearance", "ISO 273", "hole", 6.6],
    ["25 H7", "ISO 286-1", "max", 25.021],
    ["keyway 28", "DIN 6885-1, ISO 773", "shaftDepth", 4],
    ["ISO 4762 M6", "ISO 4762; counterbore DIN 974-1", "headDiameter", 10],
    ["DIN 471 20", "DIN 471", "grooveDiameter", 19],
    ["1/2-13 UNC-3B", "ASME B1.1", "minorMax", 10.88136],
    ["DRILL #7", "ASME B94.11M", "diameter", 5.1054],
  ])("%s: %s, %s %s", async (query, standard, name, mm) => {
    const { code, out } = await table(query, "--json");
    const entry = JSON.parse(out);
    expect(code).toBe(0);
    expect(entry).toMatchObject({ standard, values: { [name]: mm } });
    expect([typeof entry.what, typeof entry.source]).toEqual(["string", "string"]);
  });
  it("says in words where it knows, and what is nearest where it does not", async () => {
    expect((await table("M10-6g")).out).toMatch(/majorMax 9\.968 mm/);
    expect(await table("DIN 471 19.5")).toMatchObject({ code: 1, err: expect.stringContaining("DIN 471 20") });
    expect(JSON.parse((await table("DIN 471 19.5", "--json")).out)).toMatchObject({
      what: null,
      near: ["DIN 471 20", "DIN 471 19", "DIN 471 21"],
    });
    expect(await table()).toMatchObject({ code: 2, err: expect.stringContaining("what to look up is missing") });
    expect(await table("M6", "--all")).toMatchObject({ code: 2 });
  });
});
