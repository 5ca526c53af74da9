import { evaluateCard, mm } from "../../../tests/helpers/card";

const holes = async (...rows: string[]) => (await evaluateCard(mm(...rows, "CHECK HOLES 0"))).checks[0];
const outline = (name: string, ...lines: string[]) => [`OUTLINE "${name}"`, ...lines, "END"];
const BLOCK = "LEAVE BLOCK 80 X 60 X 30";

describe("holes as a machinist counts them", () => {
  it.each<[string, number, ...string[]]>([
    ["none", 0, BLOCK],
    ["a hole and its counterbore are one", 1, BLOCK, "CUT ⌀8 THRU CBORE ⌀14 DEEP 5"],
    ["a taper is one", 1, BLOCK, "CUT TAPER ⌀20 A 10 DEEP 12"],
    ["a taper and the hole through it are one", 1, BLOCK, "CUT TAPER ⌀20 A 10 DEEP 12", "CUT ⌀6 THRU"],
    [
      "a keyed bore is one",
      1,
      BLOCK,
      ...outline("k", "CIRCLE ⌀20", 'JOIN "key"'),
      ...outline("key", "RECTANGLE 6 X 12.8 AT 0,6.4"),
      'CUT POCKET "k" THRU',
    ],
    [
      "a bent bore is one",
      1,
      "LEAVE BLOCK 120 X 120 X 30",
      ...outline("way", "START -60,-30", "LINE TO X -20", "ARC CENTRE -20,10 TO 20,10 CCW", "LINE TO Y 60"),
      'CUT TUBE "way" ⌀12 AT 0,0,15',
    ],
    ["a ring round an island is none", 0, BLOCK, "CUT GROOVE OD 40 ID 24 DEEP 5"],
    [
      "a pocket round an island is none",
      0,
      BLOCK,
      ...outline("o", "CIRCLE ⌀50", 'CUTOUT "i"'),
      ...outline("i", "CIRCLE ⌀30"),
      'CUT POCKET "o" DEEP 5',
    ],
    [
      "corners and ends of slots are none",
      0,
      BLOCK,
      "CUT POCKET 30 X 20 R6 DEEP 8 AT -20,0",
      "CUT SLOT CENTRES 20 X 8 DEEP 5 AT 20,0",
    ],
    ["copies are counted", 4, BLOCK, "CUT ⌀5 THRU AT 25,0", "REPEAT 2 4X AROUND Z"],
  ])("%s", async (_, n, ...rows) => {
    expect(await holes(...rows)).toMatchObject({ expected: 0, actual: n, agrees: n === 0 });
  });
  it("a count that is no whole number says so", async () => {
    const [check] = (await evaluateCard(mm(BLOCK, "CHECK HOLES 1.5"))).checks;
    expect(check).toMatchObject({ agrees: false, problem: "a count is a whole number" });
  });
});
