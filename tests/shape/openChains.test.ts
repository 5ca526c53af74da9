import { evaluateCard, mm } from "../helpers/card";

const outline = (name: string, ...steps: string[]) => [`OUTLINE "${name}"`, ...steps, "END"].join("\n");
/** A tee 20 thick: a foot of 100 x 10, a body of 60 x 50 on it. */
const tee = outline(
  "tee",
  "START -50,0",
  "LINE TO 50,0",
  "LINE TO 50,10",
  "LINE TO 30,10",
  "LINE TO 30,60",
  "LINE TO -30,60",
  "LINE TO -30,10",
  "LINE TO -50,10",
  "LINE TO -50,0",
);
const TEE = (1000 + 3000) * 20;
/** The two corners a full round of 60 leaves. */
const CORNERS = (1800 - 450 * Math.PI) * 20;
const roundTop = outline("c", "START -30,30", "ARC TO 30,30 R 30 CW");

const removedBy = async (lines: string[], cut: string): Promise<number> => {
  const e = await evaluateCard(mm(...lines, cut));
  const last = e.solved.rows[e.solved.rows.length - 1];
  if (last.state !== "ok") throw new Error(last.message);
  return last.removed;
};

describe("an open chain cut to its side", () => {
  it("whose ends lie on the edge takes the corners of a full round, and no foot", async () => {
    expect(await removedBy([tee, roundTop, 'LEAVE PRISM "tee" X 20'], 'CUT POCKET "c" LEFT THRU')).toBeCloseTo(
      CORNERS,
      4,
    );
  });
  it("takes what is left of them the other way", async () => {
    const e = await evaluateCard(mm(tee, roundTop, 'LEAVE PRISM "tee" X 20', 'CUT POCKET "c" RIGHT THRU'));
    expect(e.solved.rows[1].removed).toBeCloseTo(TEE - CORNERS, 3);
  });
  it("is the same walked the other way, to its other side", async () => {
    const back = outline("c", "START 30,30", "ARC TO -30,30 R 30 CCW");
    expect(await removedBy([tee, back, 'LEAVE PRISM "tee" X 20'], 'CUT POCKET "c" RIGHT THRU')).toBeCloseTo(CORNERS, 4);
  });
  it("ON FRONT and turned as well as on top, blind as well as through", async () => {
    const lying = [tee, roundTop, 'LEAVE PRISM "tee" X 20 ON FRONT'];
    expect(await removedBy(lying, 'CUT POCKET "c" LEFT THRU ON FRONT')).toBeCloseTo(CORNERS, 4);
    expect(await removedBy(lying, 'CUT POCKET "c" LEFT DEEP 5 ON FRONT')).toBeCloseTo(CORNERS / 4, 4);
    const turned = [tee, roundTop, 'LEAVE PRISM "tee" X 20 TURN 30'];
    expect(await removedBy(turned, 'CUT POCKET "c" LEFT THRU TURN 30')).toBeCloseTo(CORNERS, 4);
  });
  it("goes on straight from an end inside, to where it first leaves the part", async () => {
    // From the middle of the body to the right, out at x 30; the foot below is left alone.
    const shelf = outline("c", "START 10,70", "LINE TO 10,40", "LINE TO 20,40");
    expect(await removedBy([tee, shelf, 'LEAVE PRISM "tee" X 20'], 'CUT POCKET "c" LEFT THRU')).toBeCloseTo(
      20 * 20 * 20,
      4,
    );
  });
  it("stops at a hole it first runs into", async () => {
    // A window of 10 x 30 between; the chain goes from the edge to it, and no further.
    const rows = ["LEAVE BLOCK 60 X 40 X 10", "CUT POCKET 10 X 30 THRU"];
    const slit = outline("c", "START -40,15", "LINE TO -20,15");
    await expect(removedBy([slit, ...rows], 'CUT POCKET "c" LEFT THRU')).rejects.toThrow(/does not part|to that side/);
    const through = outline("c", "START -40,15", "LINE TO 40,15");
    expect(await removedBy([through, ...rows], 'CUT POCKET "c" LEFT THRU')).toBeCloseTo(60 * 5 * 10, 4);
  });
  it("at several places takes at each what is there", async () => {
    const notch = outline("c", "START -3,40", "LINE TO -3,25", "LINE TO 3,25", "LINE TO 3,40");
    const rows = [notch, "LEAVE BLOCK 80 X 60 X 10"];
    expect(await removedBy(rows, 'CUT 3X POCKET "c" LEFT THRU AT -20,0 0,0 20,-10')).toBeCloseTo(
      (6 * 5 * 2 + 6 * 15) * 10,
      4,
    );
  });
  it("under a wider foot takes only as deep as it goes", async () => {
    const rows = ["LEAVE BLOCK 80 X 60 X 10", "LEAVE BLOCK 40 X 60 X 10 ON TOP OF 1"];
    const across = outline("c", "START -20,10", "LINE TO 20,10");
    expect(await removedBy([across, ...rows], 'CUT POCKET "c" LEFT DEEP 6')).toBeCloseTo(40 * 20 * 6, 4);
  });
  it("says so where nothing of the part lies there", async () => {
    const away = outline("c", "START -100,90", "LINE TO 100,90");
    await expect(removedBy([tee, away, 'LEAVE PRISM "tee" X 20'], 'CUT POCKET "c" LEFT THRU')).rejects.toThrow(
      /to that side/,
    );
  });
});

describe("a rib", () => {
  const line = (name: string, a: string, b: string) => outline(name, `START ${a}`, `LINE TO ${b}`);
  // A pocket of 40 x 20, 15 deep: a rib of 4 from wall to wall along it, or across.
  it.each([
    ["ON TOP", "-20,0", "20,0", 40],
    ["ON TOP", "0,-10", "0,10", 20],
    ["ON TOP", "-19,3", "19,3", 40],
    ["ON FRONT", "-20,0", "20,0", 40],
    ["ON RIGHT", "-20,0", "20,0", 40],
    ["ON BOTTOM", "0,-10", "0,10", 20],
  ])("flush with the wall its pocket is cut in, %s from %s to %s", async (plane, a, b, length) => {
    const rows = ["LEAVE BLOCK 60 X 60 X 60 AT 0,0,-30", `CUT POCKET 40 X 20 DEEP 15 ${plane}`];
    expect(await removedBy([line("r", a, b), ...rows], `LEAVE RIB "r" THICK 4 ${plane}`)).toBeCloseTo(
      -length * 4 * 15,
      4,
    );
  });
});

describe("corners of an open walk", () => {
  const ell = (...more: string[]) => outline("w", "START -30,0", "LINE TO 0,0", "LINE TO 0,40", ...more);
  const strip = 'LEAVE STRIP "w" THICK 4 LEFT X 20';
  const rounded = (20 + 30) * 4 * 20 + (Math.PI / 4) * (100 - 36) * 20;
  it.each(["ROUND 10 AT P1", "ROUND 10 AT P2", "ROUND 10 ALL", "ROUND 10 OUTSIDE"])(
    "are rounded by %s",
    async (line) => {
      const e = await evaluateCard(mm(ell(line), strip));
      if (e.solved.rows[0].state === "ok") expect(-e.solved.rows[0].removed).toBeCloseTo(rounded, 4);
      else expect(e.solved.rows[0].message).toMatch(/no corner/);
    },
  );
  it("there is none at its ends, and none to round is said", async () => {
    const said = async (line: string) => (await evaluateCard(mm(ell(line), strip))).solved.rows[0].message;
    expect(await said("ROUND 3 INSIDE")).toContain("no inside corner");
    expect(await said("RELIEF 3 ALL")).toContain("closed outline");
    const straight = outline("w", "START 0,0", "LINE TO 9,0", "ROUND 1 ALL");
    expect((await evaluateCard(mm(straight, strip))).solved.rows[0].message).toContain("no corner");
  });
});
