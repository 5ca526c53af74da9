import { readCard, writeCard as writeCardText } from "../callout";
import { numberScope } from "../engine/numbers";
import { v2 } from "../geometry/vec";
import { breakAt, extend, mend, trimAt, winding } from "./chains";
import { joinEnds } from "./ends";
import { evaluateOutlines } from "./evaluateOutline";
import { circle, loopArea, perimeter, type Segment } from "./outline";
import { defectsOf } from "./defects";

const line = (x0: number, y0: number, x1: number, y1: number): Segment => ({
  kind: "line",
  from: v2(x0, y0),
  to: v2(x1, y1),
});
const made = (open: Segment[][], region: Segment[][] = []) => ({ open, region });
const good = <T>(r: { ok: true; value: T } | { ok: false; problems: { message: string }[] }): T => {
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value;
};
const square = (a: number): Segment[] => [line(0, 0, a, 0), line(a, 0, a, a), line(a, a, 0, a), line(0, a, 0, 0)];
/** Outlines of a card, by name. */
function outlines(text: string) {
  const { job, errors } = readCard(`UNIT mm\n${text}`);
  expect(errors).toEqual([]);
  return Object.fromEntries([...evaluateOutlines(job.outlines, numberScope(job)).values()].map((o) => [o.name, o]));
}

describe("trim", () => {
  it("takes the middle out of a line between its crossings", () => {
    const r = good(
      trimAt(made([[line(0, 0, 30, 0)], [line(10, -5, 10, 5)], [line(20, -5, 20, 5)]]), v2(15, 0.1), null),
    );
    expect(r.open.map((c) => perimeter(c)).sort((a, b) => a - b)).toEqual([10, 10, 10, 10]);
  });

  it("leaves the lens of two circles when the outer arcs go", () => {
    const two = made([], [circle(10), circle(10, v2(10, 0))]);
    const once = good(trimAt(two, v2(-10, 0), null)),
      lens = good(trimAt(once, v2(20, 0), null));
    expect(lens.open).toEqual([]);
    // Lens of two equal circles a radius apart: r²(2π/3 − √3/2).
    expect(Math.abs(loopArea(lens.region[0]))).toBeCloseTo(100 * ((2 * Math.PI) / 3 - Math.sqrt(3) / 2), 8);
  });

  it("goes round the beginning of a loop", () => {
    const r = good(trimAt(made([], [square(20)]), v2(0, 1), [line(-5, 5, 5, 5), line(5, -5, 5, 5)]));
    expect(r.region).toEqual([]);
    expect(perimeter(r.open[0])).toBeCloseTo(70, 9);
  });

  it("says so when nothing crosses", () => {
    for (const m of [made([[line(0, 0, 10, 0)]]), made([], [square(5)])]) {
      const r = trimAt(m, v2(5, 0), null);
      expect(!r.ok && r.problems[0].message).toMatch(/nothing crosses/);
    }
    // One crossing alone does not part a loop.
    expect(trimAt(made([], [circle(10)]), v2(-10, 0), [line(9, 0, 12, 0)]).ok).toBe(false);
  });
});

describe("break and extend", () => {
  it("opens a loop at a place and parts an open chain", () => {
    const opened = good(breakAt(made([], [square(10)]), v2(4, 0)));
    expect([opened.region.length, opened.open.length, perimeter(opened.open[0])]).toEqual([0, 1, 40]);
    const parted = good(breakAt(made([[line(0, 0, 10, 0), line(10, 0, 10, 10)]]), v2(10, 3)));
    expect(parted.open.map(perimeter)).toEqual([13, 7]);
    expect(breakAt(made([], [square(10)]), v2(5, 5))).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("⟦5⟧ away") }],
    });
  });

  it("goes straight on to the next outline, and on along its circle", () => {
    const straight = good(
      extend(made([[line(0, 0, 10, 0)]]), "end", { other: [line(25, -5, 25, 5), line(40, -5, 40, 5)] }),
    );
    expect(straight.open[0][0]).toEqual(line(0, 0, 25, 0));
    const quarter: Segment = { kind: "arc", centre: v2(0, 0), radius: 10, start: 0, sweep: Math.PI / 2 };
    const round = good(extend(made([[quarter]]), "end", { other: [line(-20, 0, 0, 0)] }));
    expect(perimeter(round.open[0])).toBeCloseTo(10 * Math.PI, 9);
    expect(perimeter(good(extend(made([[quarter]]), "start", { length: 3 })).open[0])).toBeCloseTo(5 * Math.PI + 3, 9);
    expect(extend(made([[line(0, 0, 10, 0)]]), "end", { other: [line(-5, -5, -5, 5)] }).ok).toBe(false);
  });
});

describe("mend", () => {
  it("closes small gaps where the lines meet and leaves larger ones", () => {
    const loose = [[line(0, 0, 10, 0)], [line(10.02, 0.02, 10.02, 10)], [line(10, 10, 0, 10)], [line(0, 10, 0, 0)]];
    const r = mend(made(loose), 0.05);
    expect(r.open).toEqual([]);
    expect(Math.abs(loopArea(r.region[0]))).toBeCloseTo(100.2, 9);
    expect(mend(made(loose), 0.01).region).toEqual([]);
  });

  it("drops elements of no length and one of two on one another", () => {
    const r = mend(
      made([
        [line(0, 0, 10, 0), line(10, 0, 10, 0), line(10, 0, 10, 10)],
        [line(10, 10, 0, 10), line(0, 10, 0, 0)],
        [line(2, 0, 8, 0)],
      ]),
      0.01,
    );
    expect(r.open).toEqual([]);
    expect([r.region.length, r.region[0].length, Math.abs(loopArea(r.region[0]))]).toEqual([1, 4, 100]);
    expect(defectsOf(r.region, r.open)).toEqual([]);
  });

  it("makes two loops of a figure eight", () => {
    const eight = [[line(0, 0, 10, 10), line(10, 10, 10, 0), line(10, 0, 0, 10), line(0, 10, 0, 0)]];
    const r = mend(made([], eight), 0.01);
    expect(r.region.map((l) => Math.abs(loopArea(l)))).toEqual([25, 25]);
  });

  it("joins only ends that meet two by two", () => {
    const star = [[line(0, 0, 10, 0)], [line(0, 0, 0, 10)], [line(0, 0, -10, 0)]];
    expect(joinEnds(star).open).toHaveLength(3);
    expect(joinEnds(star.slice(0, 2)).open).toHaveLength(1);
    expect(winding([circle(5)], v2(1, 1))).toBe(1);
    expect(winding([circle(5), circle(9)], v2(1, 1))).toBe(2);
    expect(winding([circle(5)], v2(9, 1))).toBe(0);
  });
});

describe("in a card", () => {
  it("trims one outline against another and closes what is left", () => {
    const o = outlines(
      'OUTLINE "cut"\nSTART -20,5\nLINE TO X 20\nEND\nOUTLINE "d"\nCIRCLE ⌀20\nTRIM AT 0,10 AGAINST "cut"\nEND\nOUTLINE "closed"\nUSE "d"\nEXTEND END BY 1\nBREAK AT 0,-10\nEND',
    );
    expect(o.d.open).toHaveLength(1);
    expect(o.d.perimeter).toBeCloseTo(10 * (2 * Math.PI - 2 * Math.acos(0.5)), 9);
    expect(o.closed.open).toHaveLength(2);
    expect(o.closed.perimeter).toBeCloseTo(o.d.perimeter + 1, 9);
  });

  it("writes text, trims, faces and sections as it reads them", () => {
    const lines = [
      'TEXT "TG-4" HEIGHT 8 MONO MIDDLE AROUND ⌀60 FROM 90 AT 0,1 TURN 5',
      'TEXT "a b" HEIGHT #2/2 AROUND ⌀30 INSIDE',
      "FACE TOP AFTER 2",
      "FACE FLOOR OF 3 AT 1,2",
      "SECTION Z 12.5 AFTER 3",
      "EDGES MOUTH OF 3 AT 1,2",
      "EDGES OUTER TOP AFTER 1",
      'TRIM AT 1,2 AGAINST "x"',
      "TRIM AT 1,2",
      'EXTEND START AGAINST "x"',
      "EXTEND END BY 4",
      "BREAK AT 1,2",
      "MEND",
      "MEND .1",
      "LINE TO X ⌀20",
      "LINE TO ⌀20,4",
      "START ⌀5,0",
    ];
    const card = `JOB "x" REV A\nUNIT mm\nOUTLINE "x"\n${lines.join("\n")}\nEND\nLEAVE BLOCK 9 X 9 X 9\nCUT FACE DEEP 1\nCUT POCKET 4 X 4 DEEP 1\n`;
    const { job, errors } = readCard(card);
    expect(errors).toEqual([]);
    expect(writeCardText(job)).toBe(card);
  });

  it("halves what is typed as a diameter", () => {
    const o = outlines(
      'OUTLINE "shaft"\nSTART ⌀0,0\nLINE TO X ⌀20\nLINE TO Y 30\nLINE BY X ⌀-8\nLINE TO Y 50\nLINE TO ⌀0,50\nCLOSE\nEND',
    ).shaft;
    expect(o.area).toBeCloseTo(10 * 30 + 6 * 20, 9);
    // Wherever a place is typed: a link's circles, a mirror's line, the middle of a repeat.
    const halves = outlines(
      'OUTLINE "l"\nLINK ⌀4 AT ⌀20,0 ⌀2 AT ⌀60,0\nEND\nOUTLINE "m"\nCIRCLE ⌀2\nMIRROR ⌀20,0 TO ⌀20,5\nEND\nOUTLINE "r"\nCIRCLE ⌀2\nREPEAT 2X AROUND ⌀20,0\nEND',
    );
    expect(halves.l.box!.max.x).toBeCloseTo(31, 9);
    expect(halves.m.centroid!.x).toBeCloseTo(20, 9);
    expect(halves.r.box!.max.x).toBeCloseTo(21, 9);
  });
});
