import { readCard } from "@/core/callout";
import { prepare } from "@/core/engine";
import { readSvg } from "@/io/svgOutlines";
import { readLedgerCsv } from "@/io/ledgerCsv";
import { loadKernel } from "@/kernel/node";
import { evaluateCard, jobOf, mm } from "../helpers/card";

const lastOf = async (text: string) => (await evaluateCard(text)).solved.rows.at(-1)!;

describe("what is too large is counted first, and refused in words", () => {
  it("copies of copies of copies", async () => {
    const rows = ["LEAVE BLOCK 400 X 400 X 400", "CUT ⌀.5 DEEP 1 AT -190,-190"];
    const nested = ["REPEAT 2 LINE 90X BY 4 ALONG X", "REPEAT 2-3 LINE 90X BY 4 ALONG Y"];
    const row = await lastOf(mm(...rows, ...nested));
    expect(row.state).toBe("failed");
    expect(row.message).toContain("8010 places");
  }, 60_000);
  it("outlines that use the one before twice", () => {
    const lines = ['OUTLINE "u0"', "CIRCLE ⌀2", "END"];
    for (let k = 1; k <= 16; k++)
      lines.push(`OUTLINE "u${k}"`, `USE "u${k - 1}" AT ${3 * k},0`, `USE "u${k - 1}" AT ${-3 * k},${50 * k}`, "END");
    const { outlines } = prepare(jobOf(mm(...lines, "LEAVE BLOCK 9 X 9 X 9")));
    const said = [...outlines.values()].flatMap((o) => o.problems.map((p) => p.message));
    expect(said.some((m) => /\d+ loops here/.test(m))).toBe(true);
  }, 60_000);
  it("a card of wrong lines is read as far as it is worth", () => {
    const wrong = Array.from({ length: 15_000 }, (_, i) => `CUT 4X WIBBLE ${i} DEEPISH 3 ON BC ACROSS`);
    const { errors } = readCard(["UNIT mm", ...wrong].join("\n"));
    expect(errors).toHaveLength(301);
    expect(errors[300].message).toContain("the rest was not read");
  });
  it("words that move a drawing", () => {
    const transform = "translate(1,0) ".repeat(50_000);
    const svg = `<svg width="10mm" height="10mm" viewBox="0 0 10 10"><g transform="${transform}"><path d="M0 0 L5 0 L5 5 Z"/></g><path d="M0 0 L5 0 L5 5 Z"/></svg>`;
    const read = readSvg(svg, "mm");
    expect(read.problems.join()).toContain("left out");
    expect(read.chains).toHaveLength(1);
  });
  it("a table of more dimensions than a job holds", () => {
    const lines = Array.from({ length: 50_000 }, (_, i) => `⌀${i + 1}`).join("\n");
    const read = readLedgerCsv(`dimension\n${lines}`, jobOf(mm("LEAVE BLOCK 9 X 9 X 9")));
    expect(read.balloons).toEqual([]);
    expect(read.problems).toHaveLength(1);
    expect(read.problems[0].message).toContain("50001 lines");
  });
});

describe("a STEP file that is none to cut", () => {
  const file = (data: string) => `ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\n${data}\nENDSEC;\nEND-ISO-10303-21;\n`;
  const faces = (n: number) =>
    Array.from({ length: n }, (_, i) => `#${i + 10} = ADVANCED_FACE('',(#1),#2,.T.);`).join("\n");
  it.each([
    ["too many faces", `#1 = MANIFOLD_SOLID_BREP('',#2);\n${faces(5006)}`, /5006 faces/],
    ["a shell without a solid", `#1 = SHELL_BASED_SURFACE_MODEL('',(#2));\n${faces(3)}`, /solid/],
    ["no numbers", "#1 = MANIFOLD_SOLID_BREP('',#2);\n#3 = CARTESIAN_POINT('',(NaN,0.,1.));", /NaN/],
    ["nothing at all", "", /solid/],
  ])("%s: refused before the library reads it", async (_, data, why) => {
    const kernel = await loadKernel();
    kernel.giveFile(data.length + why.source, new TextEncoder().encode(file(data)));
    const began = performance.now();
    const box = kernel.fileBox(data.length + why.source, "casting.step");
    expect(performance.now() - began).toBeLessThan(2000);
    expect(box.ok ? "read" : box.problems[0].message).toMatch(why);
  });
  it("as stock is a stop", async () => {
    const e = await evaluateCard(mm('STOCK SOLID "nowhere.step"', "LEAVE BLOCK 9 X 9 X 9"));
    expect(e.findings.filter((f) => f.rule === "no-stock")).toMatchObject([{ severity: "stop", row: null }]);
  });
});
