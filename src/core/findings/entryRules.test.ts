import { findingsOf, mm } from "../../../tests/helpers/card";

const stepped = (at: string) => mm("LEAVE BLOCK 60 X 40 X 20", "CUT STEP RIGHT 30 DEEP 4", `CUT ⌀8 THRU AT ${at}`);

describe("where a drill enters", () => {
  it("across a step is no slant: it is told as the step it is", async () => {
    const [found] = await findingsOf(stepped("0,0"), "entry-over-step");
    expect(found).toMatchObject({ row: 3, severity: "caution", text: expect.stringContaining("a step of 4") });
    expect(found.value).toBeCloseTo(4, 6);
    expect(await findingsOf(stepped("0,0"), "slanted-or-round-entry")).toEqual([]);
  });
  it("wholly on either side of it, nothing is told", async () => {
    for (const at of ["-8,0", "8,0"])
      for (const rule of ["entry-over-step", "slanted-or-round-entry"])
        expect([at, rule, await findingsOf(stepped(at), rule)]).toEqual([at, rule, []]);
  });
  it("two holes across it are told once, with both places", async () => {
    const [found, ...more] = await findingsOf(stepped("0,-10 0,10").replace("CUT ⌀8", "CUT 2X ⌀8"), "entry-over-step");
    expect(more).toEqual([]);
    expect(found.text).toMatch(/^2 holes start across/);
    expect(found.places?.map((p) => Math.round(p.y)).sort((a, b) => a - b)).toEqual([-10, 10]);
  });
  it("half on a flat and half on a slope is a slant: the hole's other end is no step of its mouth", async () => {
    for (const deep of ["THRU", "DEEP 9 FLAT"]) {
      const card = mm(
        "LEAVE BLOCK 60 X 40 X 20",
        "CUT CHAMFER 8 BETWEEN TOP AND RIGHT",
        `CUT ⌀8 ${deep} AT 22,0`,
        "CUT STEP LEFT 5 DEEP 5",
      );
      expect([deep, await findingsOf(card, "entry-over-step")]).toEqual([deep, []]);
      expect(await findingsOf(card, "slanted-or-round-entry")).toMatchObject([{ row: 3 }]);
    }
  });
  it("across two steps it ends on the lowest", async () => {
    const card = mm(
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT STEP RIGHT 30 DEEP 2",
      "CUT STEP FRONT 20 DEEP 5",
      "CUT ⌀12 THRU AT 0,0",
    );
    const [found] = await findingsOf(card, "entry-over-step");
    expect(found.value).toBeCloseTo(5, 6);
  });
  it("on the round of a shaft it is still a slant", async () => {
    const shaft = mm("LEAVE ROUND ⌀30 X 60", "CUT ⌀6 THRU AT 0,30 ON FRONT");
    expect(await findingsOf(shaft, "slanted-or-round-entry")).toMatchObject([{ row: 2 }]);
    expect(await findingsOf(shaft, "entry-over-step")).toEqual([]);
  });
});

describe("walls beside mouths", () => {
  it("a taper's mouth near the edge is told, as thin as it is there", async () => {
    const block = (width: string) => mm(`LEAVE BLOCK 60 X ${width} X 40`, "CUT TAPER ⌀24 1:10 DEEP 30");
    const [found] = await findingsOf(block("30.14"), "edge-distance");
    expect(found).toMatchObject({ row: 2 });
    // Half of what the block is wider than the mouth.
    expect(found.value).toBeCloseTo((30.14 - 24) / 2, 6);
    expect(await findingsOf(block("40"), "edge-distance")).toEqual([]);
  });
  it("a countersink is measured at its mouth", async () => {
    const block = (y: string) => mm("LEAVE BLOCK 60 X 40 X 20", `CUT ⌀5 THRU CSK ⌀12 X 90 AT 0,${y}`);
    const [found] = await findingsOf(block("12.5"), "edge-distance");
    expect(found.value).toBeCloseTo(20 - 12.5 - 6, 6);
    expect(await findingsOf(block("10"), "edge-distance")).toEqual([]);
  });
  it("the source is that of the figure that decides", async () => {
    const card = (d: string, at: string) => mm("LEAVE BLOCK 90 X 60 X 20", `CUT ⌀${d} THRU AT ${at}`);
    const [large] = await findingsOf(card("20", "0,16"), "edge-distance");
    expect(large).toMatchObject({ limit: 6, source: expect.stringContaining("6.00 at most") });
    const [middling] = await findingsOf(card("8", "0,23"), "edge-distance");
    expect(middling).toMatchObject({ limit: 4, source: expect.stringContaining("half the hole") });
    const [small] = await findingsOf(card("1.5", "0,28.5"), "edge-distance");
    expect(small).toMatchObject({ limit: 1, source: expect.stringMatching(/: 1.00$/) });
  });
});

describe("a room inside the part", () => {
  it("that nothing leads into is a stop before any setup, with the rows that made it", async () => {
    const card = (...more: string[]) =>
      mm("LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 30 X 20 R5 DEEP 8", "LEAVE BLOCK 60 X 40 X 6 ON TOP", ...more);
    const [found, ...none] = await findingsOf(card(), "closed-void");
    expect(none).toEqual([]);
    expect(found).toMatchObject({ severity: "stop", value: 1, text: expect.stringContaining("rows 2") });
    expect(await findingsOf(card("CUT ⌀4 THRU"), "closed-void")).toEqual([]);
    expect(await findingsOf(mm("LEAVE BLOCK 60 X 40 X 20", "CUT POCKET 30 X 20 R5 DEEP 8"), "closed-void")).toEqual([]);
  });
});
