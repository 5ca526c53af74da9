import { readCard } from "@/core/callout";
import { evaluateJob } from "../../tests/helpers/card";
import { dxfPicture } from "./dxfPicture";
import { ledgerCsv, readLedgerCsv } from "./ledgerCsv";

const job = (...lines: string[]) => readCard(["UNIT mm", ...lines].join("\n")).job;

describe("the ledger as CSV", () => {
  it("goes out and comes back with every balloon as it was", async () => {
    const one = job(
      "#1 ⌀42 H7",
      '#2 6X ⌀6.6 ±0.1 ZONE B3 "say ""x"", then y"',
      "#3 1 X 45°",
      "#4 45° ±.5",
      "#5 6X M5",
      "#6 20.1 / 19.9",
      "#7 (12)",
      "#8 R3 MAX",
      "#9 30 BASIC",
      "LEAVE ROUND ⌀#1 X 30",
    );
    const csv = ledgerCsv(one, (await evaluateJob(one)).ledger);
    expect(csv.split("\r\n")[0]).toBe("number,dimension,zone,note,nominal,low,high,measured,state,measured on");
    expect(csv).toContain('1,⌀42 H7,,,42,42,42.025,42,proved,"a round wall, row 1"');
    const back = readLedgerCsv(csv, { unit: "mm", names: [], balloons: [] });
    expect(back.problems).toEqual([]);
    expect(back.balloons).toEqual(one.balloons);
  });
  it("reads plain lists, numbers what has no number, and lists what it cannot read", () => {
    const r = readLedgerCsv("⌀2.185 ±.005\n6X 8-32 UNC-2B\nnonsense\n\n45 DEG\n", {
      unit: "mm",
      names: [],
      balloons: job("#4 2").balloons,
    });
    expect(r.balloons.map((b) => [b.number, b.kind])).toEqual([
      [5, "diameter"],
      [6, "thread"],
      [7, "angle"],
    ]);
    expect(r.problems).toEqual([
      { line: 3, message: expect.stringContaining("nonsense"), expected: expect.any(String) },
    ]);
    expect(
      readLedgerCsv("4,2.5\n#4,3\n-1,2\n", { unit: "mm", names: [], balloons: [] }).problems.map((p) => p.line),
    ).toEqual([2, 3]);
    expect(readLedgerCsv("", { unit: "mm", names: [], balloons: [] }).problems).toHaveLength(1);
  });
  it("writes nothing a table program would run", () => {
    const one = job('#1 42 "=1+1"');
    expect(ledgerCsv(one, [])).toContain("'=1+1");
    expect(readLedgerCsv(ledgerCsv(one, []), { unit: "mm", names: [], balloons: [] }).balloons[0].note).toBe("=1+1");
  });
});

const dxf = (...entities: (string | number)[][]) =>
  ["0", "SECTION", "2", "ENTITIES", ...entities.flat().map(String), "0", "ENDSEC", "0", "EOF"].join("\n");

describe("a DXF as a picture", () => {
  it("draws lines, arcs, circles, bulges and texts into its box", () => {
    const made = dxfPicture(
      dxf(
        [0, "LINE", 8, 0, 10, 0, 20, 0, 30, 0, 11, 100, 21, 0, 31, 0],
        [0, "CIRCLE", 8, 0, 10, 50, 20, 25, 30, 0, 40, 10],
        [0, "ARC", 8, 0, 10, 0, 20, 0, 30, 0, 40, 50, 50, 0, 51, 90],
        [0, "LWPOLYLINE", 8, 0, 90, 2, 70, 0, 10, 0, 20, 0, 42, 1, 10, 20, 20, 0],
        [0, "TEXT", 8, 0, 10, 10, 20, 40, 30, 0, 40, 3, 1, "A <B> & %%c5"],
      ),
    );
    if (!made.ok) throw new Error(made.problems[0].message);
    expect(made.value.entities).toBe(5);
    expect(made.value.svg).toContain("A &lt;B&gt; &amp; ⌀5");
    // 100 wide with 3 % either side, drawn 2000 wide; from -10 (the bulge of radius 10 goes below) to 50 high.
    expect(made.value.height / made.value.width).toBeCloseTo((60 + 6) / 106, 2);
    const numbers = [...made.value.svg.matchAll(/[ML]([\d.]+) ([\d.]+)/g)];
    expect(
      numbers.every(
        (m) => Number(m[1]) >= 0 && Number(m[1]) <= 2000 && Number(m[2]) >= 0 && Number(m[2]) <= made.value.height,
      ),
    ).toBe(true);
  });
  it("draws inserted blocks in their place and size", () => {
    const made = dxfPicture(
      [
        "0",
        "SECTION",
        "2",
        "BLOCKS",
        "0",
        "BLOCK",
        "8",
        "0",
        "2",
        "HOLE",
        "10",
        "0",
        "20",
        "0",
        "0",
        "CIRCLE",
        "8",
        "0",
        "10",
        "0",
        "20",
        "0",
        "40",
        "5",
        "0",
        "ENDBLK",
        "0",
        "ENDSEC",
        "0",
        "SECTION",
        "2",
        "ENTITIES",
        "0",
        "INSERT",
        "8",
        "0",
        "2",
        "HOLE",
        "10",
        "0",
        "20",
        "0",
        "0",
        "INSERT",
        "8",
        "0",
        "2",
        "HOLE",
        "10",
        "100",
        "20",
        "0",
        "0",
        "ENDSEC",
        "0",
        "EOF",
      ].join("\n"),
    );
    if (!made.ok) throw new Error(made.problems[0].message);
    expect(made.value.entities).toBe(2);
    expect(made.value.height / made.value.width).toBeCloseTo((10 + 2 * 3.3) / (110 + 2 * 3.3), 2);
  });
  it("says what is wrong with a file that is none", () => {
    expect(dxfPicture("hello")).toMatchObject({ ok: false });
    expect(dxfPicture(dxf())).toMatchObject({ ok: false, problems: [{ message: expect.stringMatching(/nothing/) }] });
  });
});
