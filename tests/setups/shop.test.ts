// What a shop has set for itself, in what holds its pieces. Lengths mm.
import { shopOf, shopSettingsSchema } from "@/core/tables";
import { mm } from "../helpers/card";
import { derivedCard, remarks, setUp } from "./helpers";

const shop = (value: object) => shopOf(shopSettingsSchema.parse(value));
const limit = (key: string, text: string) => shop({ limits: { [key]: { text, unit: "mm" } } });
const TWO = ["LEAVE BLOCK 60 X 40 X 20", "SETUP 10 MILL UP TOP ROWS 1", "SETUP 20 MILL UP BOTTOM ROWS 1"];

describe("a shop's own figures", () => {
  it("what a turn-over costs there: a balloon is held to that", async () => {
    const card = mm(
      "#1 20 ±.1",
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT ⌀5 THRU AT -10,0",
      "CUT ⌀6 DEEP 4 AT (#1 - 10),0 ON BOTTOM",
      "SETUP 10 MILL UP TOP ROWS 1 2",
      "SETUP 20 MILL UP BOTTOM ROWS 1 3",
    );
    // ±0.1 is 0.2 wide: two turn-overs of 0.08 take less, of 0.11 more.
    const [usual] = await remarks(card, "turn-over");
    expect([usual.severity, usual.limit]).toEqual(["note", 0.16]);
    const [own] = await remarks(card, "turn-over", limit("turnOver", "0.11"));
    expect([own.severity, own.source]).toEqual(["caution", "the shop's own figure"]);
    expect(own.text).toContain("a turn-over costs ±0.11 in this shop");
  });
  it("the grip it asks for", async () => {
    const card = mm("LEAVE BLOCK 60 X 40 X 20", "SETUP 10 MILL UP TOP HOLD VISE GRIP 3 ACROSS Y ROWS 1");
    const { parts } = await setUp(card);
    const { parts: strict } = await setUp(card, limit("gripLeast", "4"));
    const shallow = (of: typeof parts) => of[0].evaluation.findings.find((f) => f.rule === "grip-too-shallow");
    expect(shallow(parts)?.severity).toBe("caution");
    expect(shallow(strict)?.severity).toBe("stop");
  });
  it("its school of relief, unless the assistant is told another", async () => {
    const wall = shop({ relief: "wall" });
    expect(await derivedCard(mm(...TWO), "jaws", 20)).toContain("RELIEF 8 CORNER OUTSIDE");
    expect(await derivedCard(mm(...TWO), "jaws", 20, {}, wall)).toContain("RELIEF 8 WALL OUTSIDE");
    expect(await derivedCard(mm(...TWO), "jaws", 20, { placement: "bisector" }, wall)).toContain("RELIEF 8 BISECTOR");
  });
  it("its own jaw blanks, and the sizes fixtures are proposed with", async () => {
    const blank = { unit: "mm", name: "ours", length: 110, height: 33, thickness: 30, screwPitch: 70, screw: 9 };
    const own = shop({
      jawBlanks: [blank],
      fixtures: { mm: { clearance: { text: "0.1", unit: "mm" }, spacer: { text: "6", unit: "mm" } }, in: {} },
    });
    const card = await derivedCard(mm(...TWO), "jaws", 20, {}, own);
    expect(card).toContain('LEAVE "pair": BLOCK 110 X 66 X 33');
    expect(card).toContain("OFFSET 0.1");
    expect(card).toContain("⌀9 DEEP 30 FLAT LINE 2 BY 70");
    const small = shop({ jawBlanks: [{ ...blank, length: 65, screwPitch: 40 }] });
    expect(await derivedCard(mm(...TWO), "jaws", 20, {}, small)).toContain("no jaw blank of the shop takes");
  });
  it("its table: mounting holes stand whole pitches apart", async () => {
    const own = shop({ fixtures: { mm: { tablePitch: { text: "40", unit: "mm" } }, in: {} } });
    const usual = await derivedCard(mm(...TWO), "plate", 20);
    // The piece is 60 x 40; 25 of plate all round: 110 by 90 at least, in whole pitches along x.
    expect(usual).toContain("GRID 2 2 BY 150 50");
    expect(await derivedCard(mm(...TWO), "plate", 20, {}, own)).toContain("GRID 2 2 BY 120 40");
  });
});
