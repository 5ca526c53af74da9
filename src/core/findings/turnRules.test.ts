// A case that trips each rule of turned and swept rows, and one just inside it.
import { afterFix, findingsOf, inch as inches, mm } from "../../../tests/helpers/card";

const path = 'OUTLINE "way"\nSTART 0,0\nLINE TO X 20\nARC TANGENT CENTRE 20,15 TO 35,15\nEND';
const straight = 'OUTLINE "way"\nSTART -20,5\nLINE TO X 20\nEND';

describe("turned and swept rows", () => {
  it("a bore along a bend is a stop, a straight one is none", async () => {
    const bent = await findingsOf(mm(path, 'LEAVE TUBE "way" OD 12', 'CUT TUBE "way" ⌀8'), "curved-bore");
    expect(bent).toMatchObject([{ severity: "stop", row: 2, value: 1 }]);
    expect(
      await findingsOf(mm(straight, "LEAVE BLOCK 40 X 30 X 20", 'CUT TUBE "way" ⌀4 AT 0,0,10'), "curved-bore"),
    ).toEqual([]);
  });
  it("a taper is named with its ratio and half its angle", async () => {
    const [plain] = await findingsOf(mm("LEAVE BLOCK 60 X 40 X 60", "CUT TAPER ⌀24 1:20 DEEP 50"), "taper");
    expect(plain.text).toBe("1 : 20, half angle 1°25'56\"");
    const [morse] = await findingsOf(mm("LEAVE ROUND ⌀40 X 90", "CUT TAPER MORSE 2"), "taper");
    expect(morse.text).toMatch(/^Morse 2 .*1°25'50"$/);
    // 7 : 24 leans 8°17'50" (ISO 7388).
    const [steep] = await findingsOf(mm("LEAVE ROUND ⌀80 X 90", "CUT TAPER ⌀44.45 TO ⌀27.825 DEEP 57"), "taper");
    expect(steep.text).toMatch(/^machine taper 7 : 24, .*8°17'50"$/);
  });
  it("a knurl wants a whole number of teeth", async () => {
    const card = (d: string) => mm(`LEAVE ROUND ⌀${d} X 30`, "CUT KNURL STRAIGHT PITCH 1 LEN 12 ON SHAFT OF 1");
    expect(await findingsOf(card("20"), "knurl")).toMatchObject([{ severity: "caution", limit: 63 }]);
    expect(await findingsOf(card("(63/3.14159265)"), "knurl")).toMatchObject([
      { severity: "note", text: expect.stringMatching(/^63 teeth/) },
    ]);
  });
  it("a thread's blank lies within the limits of the thread's major diameter", async () => {
    const card = (d: string) => mm(`LEAVE ROUND ⌀${d} X 30`, "CUT THREAD M10-6g LEN 20 ON SHAFT OF 1");
    // M10-6g: 9.732 to 9.968 (ISO 965-1).
    expect(await findingsOf(card("10.1"), "thread-blank")).toMatchObject([{ severity: "stop", limit: 9.968 }]);
    expect(await findingsOf(card("10"), "thread-blank")).toMatchObject([{ severity: "caution", limit: 9.968 }]);
    for (const d of ["9.968", "9.9", "9.74", "9.732"]) expect(await findingsOf(card(d), "thread-blank")).toEqual([]);
    expect(await findingsOf(card("9.73"), "thread-blank")).toMatchObject([{ severity: "caution", limit: 9.732 }]);
    expect(await afterFix(card("10"), "thread-blank")).toEqual([]);
    const inch = (d: string) => inches(`LEAVE ROUND ⌀${d} X 2`, "CUT THREAD 1/2-13 UNC-3A LEN 1 ON SHAFT OF 1");
    expect(await findingsOf(inch(".5"), "thread-blank")).toEqual([]);
    expect(await findingsOf(inch(".489"), "thread-blank")).toMatchObject([{ severity: "caution" }]);
    expect(await afterFix(inch(".489"), "thread-blank")).toEqual([]);
  });
  it("a thread to a shoulder wants room to run out", async () => {
    const card = (l: string) =>
      mm("LEAVE ROUND ⌀20 X 10", "LEAVE ROUND ⌀10 X 25 ON TOP", `CUT THREAD M10-6g LEN ${l} ON SHAFT OF 2`);
    expect(await findingsOf(card("24"), "thread-run-out")).toMatchObject([{ row: 3, limit: 2 }]);
    expect(await findingsOf(card("22"), "thread-run-out")).toEqual([]);
    // The free end of a bar is no shoulder.
    expect(
      await findingsOf(mm("LEAVE ROUND ⌀10 X 25", "CUT THREAD M10-6g LEN 25 ON SHAFT OF 1"), "thread-run-out"),
    ).toEqual([]);
  });
  it("a groove that is nearly a retaining ring's lies within the ring's limits", async () => {
    // DIN 471 for ⌀20: ⌀19 -0.13, 1.3 +0.14 wide.
    const card = (d: string, w: string) => mm("LEAVE ROUND ⌀20 X 40", `CUT GROOVE SHAFT ⌀${d} WIDE ${w} START 5 OF 1`);
    expect(await findingsOf(card("18.8", "1.3"), "ring-groove")).toMatchObject([
      { severity: "caution", limit: 19, row: 2 },
    ]);
    expect(await findingsOf(card("19", "1.2"), "ring-groove")).toMatchObject([{ limit: 1.3 }]);
    for (const [d, w] of [
      ["19", "1.3"],
      ["18.87", "1.44"],
      // Another groove altogether: a seal's, a relief.
      ["16", "3.6"],
      ["19", "3"],
      ["17", "1.3"],
    ])
      expect([d, w, await findingsOf(card(d, w), "ring-groove")]).toEqual([d, w, []]);
    expect(await afterFix(card("18.8", "1.3"), "ring-groove")).toEqual([]);
    expect(await afterFix(card("19", "1.2"), "ring-groove")).toEqual([]);
  });
  it("a groove round a shaft no deeper than three times its width", async () => {
    const card = (d: string) => mm("LEAVE ROUND ⌀30 X 30", `CUT GROOVE SHAFT ⌀${d} WIDE 2 START 5`);
    expect(await findingsOf(card("17"), "groove")).toMatchObject([{ value: 3.25, limit: 3 }]);
    expect(await findingsOf(card("18"), "groove")).toEqual([]);
  });
  it("a thread that ends in a groove down to its core has its run-out there; one in a shallow groove has not", async () => {
    const card = (groove: string) =>
      mm(
        "LEAVE ROUND ⌀20 X 10",
        "LEAVE ROUND ⌀10 X 25 ON TOP",
        `CUT GROOVE SHAFT ⌀${groove} WIDE 3 START 22 OF 2`,
        "CUT THREAD M10-6g LEN 22 ON SHAFT OF 2",
      );
    const core = 10 - 1.22687 * 1.5;
    const shallow = await findingsOf(card("9"), "thread-run-out");
    expect(await findingsOf(card(core.toFixed(2)), "thread-run-out")).toEqual([]);
    expect(shallow.map((f) => f.row)).toEqual(shallow.length ? [4] : []);
  });
  it("letters laid round a shaft want a rotary axis, and their sharp inside corners are told", async () => {
    const card = (outline: string) =>
      mm(
        'OUTLINE "t"',
        ...outline.split("|"),
        "END",
        "LEAVE ROUND ⌀40 X 60",
        'LEAVE TEXT "t" X 1 ON ROUND OF 1 AT 0,30',
      );
    const letter = card("START 0,0|LINE TO X 8|LINE TO Y 2|LINE TO X 2|LINE TO Y 8|LINE TO X 0|CLOSE");
    expect(await findingsOf(letter, "rotary-axis")).toMatchObject([{ row: 2, value: 40, severity: "note" }]);
    // An L has one inside corner.
    expect(await findingsOf(letter, "sharp-inside-corner")).toMatchObject([
      { row: 2, text: expect.stringMatching(/^1 sharp inside corner:/) },
    ]);
    const square = card("RECTANGLE 8 X 8");
    expect(await findingsOf(square, "sharp-inside-corner")).toEqual([]);
    expect(await findingsOf(mm("LEAVE ROUND ⌀40 X 60"), "rotary-axis")).toEqual([]);
  });
});
