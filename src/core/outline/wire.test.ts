import fc from "fast-check";
import { readCard } from "../callout";
import { numberScope } from "../engine/numbers";
import { loopArea, perimeter } from "./outline";
import { solveWire, tieDown } from "./wire";

const wire = (...lines: string[]) => {
  const { job, errors } = readCard(["UNIT mm", 'OUTLINE "o"', ...lines, "END"].join("\n"));
  if (errors.length) throw new Error(`${errors[0].line}: ${errors[0].message}; ${errors[0].expected}`);
  return solveWire(job.outlines[0].items, numberScope(job));
};

describe("walks", () => {
  it("a rectangle, only what changes typed", () => {
    const w = wire("START 0,0", "LINE TO X 40", "LINE TO Y 30", "LINE TO X 0", "CLOSE");
    expect([w.freedom, w.closed, w.solved, w.inked]).toEqual([0, true, true, [true, true, true, true]]);
    expect(loopArea(w.segments)).toBeCloseTo(1200, 9);
  });
  it("one coordinate from zero, the other from where it stands", () => {
    const w = wire("START 10,10", "LINE TO X 40 BY Y 5", "LINE BY X -3 TO Y 0", "CLOSE");
    expect(w.points.slice(1, 3).map((p) => p.at)).toEqual([
      { x: 40, y: 15 },
      { x: 37, y: 0 },
    ]);
    expect([w.freedom, w.solved]).toEqual([0, true]);
    expect(() => wire("START 0,0", "LINE TO 3,4 TO 5,6")).toThrow("TO is given twice");
  });
  it("lengths, angles, increments", () => {
    const w = wire("START 10,10", "LINE L 50 A 30", "LINE BY -20,15", "LINE BY Y 5", "CLOSE");
    expect(w.points[1].at).toEqual({ x: expect.closeTo(10 + 50 * Math.cos(Math.PI / 6), 9), y: expect.closeTo(35, 9) });
    expect(w.freedom).toBe(0);
  });
  it("arcs by radius, centre, sweep, tangent", () => {
    const slot = wire("START 0,0", "LINE TO X 40", "ARC TO 40,20 R 10", "LINE TO X 0", "ARC R 10 CLOSE");
    expect(slot.freedom).toBe(0);
    expect(loopArea(slot.segments)).toBeCloseTo(800 + Math.PI * 100, 6);
    const t = wire(
      "START 0,0",
      "LINE TO X 40",
      "ARC TANGENT SWEEP 90 R 10",
      "LINE TANGENT L 20",
      "LINE TO X 0",
      "CLOSE",
    );
    expect(t.freedom).toBe(0);
    expect(t.points.find((p) => p.name === "P2")!.at).toEqual({ x: expect.closeTo(50, 8), y: expect.closeTo(10, 8) });
    expect(t.points.find((p) => p.name === "P3")!.at).toEqual({ x: expect.closeTo(50, 8), y: expect.closeTo(30, 8) });
    const c = wire("START 10,0", "ARC CENTRE 0,0 TO 0,10 CCW", "ARC CENTRE 0,0 SWEEP 270 CCW CLOSE");
    expect(perimeter(c.segments)).toBeCloseTo(20 * Math.PI, 6);
    const cw = wire("START 0,0", "ARC TO 20,0 R 10 CW", "CLOSE");
    expect(loopArea(cw.segments)).toBeCloseTo(-Math.PI * 50, 6);
    expect(loopArea(wire("START 0,0", "ARC TO 20,0 R 15 CCW LONG", "CLOSE").segments)).toBeCloseTo(
      Math.PI * 225 - 225 * Math.asin(10 / 15) + 10 * Math.sqrt(125),
      5,
    );
  });
  it("finds what is left open from the rest", () => {
    // The line at 60 degrees runs until the next one, at 150, comes home level.
    const w = wire("START 0,0", "LINE TO X 50", "LINE A 120", "LINE A 180 TO Y 20", "LINE TO 0,0");
    expect(w.free).toEqual(["the end of step 3 (P3) is free along X"]);
    const u = wire("START 0,0", "LINE TO X 50", "LINE A 120", "LINE A 180 TO 10,20", "CLOSE");
    expect(u.freedom).toBe(0);
    expect(u.points[2].at).toEqual({ x: expect.closeTo(50 - 20 / Math.tan(Math.PI / 3), 9), y: expect.closeTo(20, 9) });
    const full = wire("START 0,0", "LINE TO Y 40", "ARC TANGENT CW", "LINE TANGENT TO 30,0", "CLOSE", "VERTICAL 3");
    expect(full.freedom).toBe(0);
    expect(full.points.find((p) => p.name === "P2")!.at).toEqual({
      x: expect.closeTo(30, 7),
      y: expect.closeTo(40, 7),
    });
  });
  it("relations and dimensions locate points", () => {
    const w = wire(
      "START 0,0",
      "LINE TO ?,?  NEAR 40,3",
      "LINE TO ?,? NEAR 42,25",
      "LINE TO ?,? NEAR 3,28",
      "CLOSE",
      "HORIZONTAL 1",
      "PERPENDICULAR 1 2",
      "PARALLEL 1 3",
      "PERPENDICULAR 3 4",
      "LENGTH 1 45",
      "DISTANCE 1 3 25",
    );
    expect(w.freedom).toBe(0);
    expect(loopArea(w.segments)).toBeCloseTo(1125, 6);
  });
  it("says what is free, in words, and draws it in pencil", () => {
    const w = wire("START 0,0", "LINE TO X ?", "LINE TO Y 20", "LINE TO X 0", "CLOSE");
    expect(w.freedom).toBe(1);
    expect(w.free).toEqual(["the end of step 1 (P1) is free along X", "the end of step 2 (P2) is free along X"]);
    expect(w.inked).toEqual([false, false, false, true]);
  });
  it("names the conflict and what to drop", () => {
    const w = wire("START 0,0", "LINE TO X 40", "LINE TO Y 30", "LINE TO X 0", "CLOSE", "LENGTH 1 45");
    expect(w.conflicts[0].drop).toContain(5);
    expect(w.conflicts[0].items).toContain(5);
    const t = wire("START 0,0", "LINE L 30 A 0", "LINE L 10 A 90", "LINE L 50 CLOSE");
    expect(t.conflicts[0].drop).toEqual([1, 2, 3]);
  });
  it("knows a dimension that says again what is said", () => {
    expect(wire("START 0,0", "LINE TO X 40", "LINE TO Y 30", "LINE TO X 0", "CLOSE", "LENGTH 1 40").redundant).toEqual([
      5,
    ]);
  });
});

/** A random closed walk of right-angled and slanted steps, every one located by its coordinates. */
const corner = fc.tuple(fc.integer({ min: -200, max: 200 }), fc.integer({ min: -200, max: 200 }));
const ring = fc
  .uniqueArray(corner, { minLength: 3, maxLength: 9, selector: (p) => p.join() })
  .filter((p) => p.every((a, i) => Math.hypot(a[0] - p[(i + 1) % p.length][0], a[1] - p[(i + 1) % p.length][1]) > 5));

describe("any outline", () => {
  it("that is located solves to 1e-9 where its numbers say", () => {
    fc.assert(
      fc.property(ring, (p) => {
        const w = wire(`START ${p[0]}`, ...p.slice(1).map((q) => `LINE TO ${q}`), "CLOSE");
        expect([w.freedom, w.solved]).toEqual([0, true]);
        p.forEach((q, i) => expect(Math.hypot(w.points[i].at.x - q[0], w.points[i].at.y - q[1])).toBeLessThan(1e-9));
      }),
      { numRuns: 40 },
    );
  });
  it("given by lengths and turned by angles comes to the same place", () => {
    fc.assert(
      fc.property(ring, (p) => {
        const legs = p
          .slice(1)
          .map(
            (q, i) =>
              `LINE L ${Math.hypot(q[0] - p[i][0], q[1] - p[i][1]).toFixed(12)} A ${((Math.atan2(q[1] - p[i][1], q[0] - p[i][0]) * 180) / Math.PI).toFixed(12)}`,
          );
        const w = wire(`START ${p[0]}`, ...legs, "CLOSE");
        expect([w.freedom, w.solved]).toEqual([0, true]);
        p.forEach((q, i) => expect(Math.hypot(w.points[i].at.x - q[0], w.points[i].at.y - q[1])).toBeLessThan(1e-7));
      }),
      { numRuns: 30 },
    );
  });
  it("with one coordinate taken away is free exactly there, and with it said wrongly names it", () => {
    fc.assert(
      fc.property(ring, fc.nat(), fc.boolean(), (p, pick, x) => {
        const k = 1 + (pick % (p.length - 1));
        const lines = (text: (q: number[], i: number) => string) => [`START ${p[0]}`, ...p.slice(1).map(text), "CLOSE"];
        const open = wire(
          ...lines((q, i) => (i + 1 === k ? `LINE TO ${x ? `?,${q[1]}` : `${q[0]},?`} NEAR ${q}` : `LINE TO ${q}`)),
        );
        expect(open.freedom).toBe(1);
        expect(open.free).toEqual([`the end of step ${k} (P${k}) is free along ${x ? "X" : "Y"}`]);
        // Only the steps that end there are in pencil.
        expect(open.inked.map((ink, i) => (ink ? -1 : i + 1)).filter((i) => i > 0)).toEqual([k, k + 1]);
        const wrong = wire(
          ...lines((q) => `LINE TO ${q}`),
          `D${x ? "X" : "Y"} P0 P${k} ${p[k][x ? 0 : 1] - p[0][x ? 0 : 1] + 7}`,
        );
        expect(wrong.conflicts[0].drop).toContain(p.length + 1);
        expect(wrong.conflicts[0].items).toContain(k);
      }),
      { numRuns: 30 },
    );
  });
  it("keeps to its own side: a radius grown a little moves it a little", () => {
    const at = (r: number) =>
      wire("START 0,0", "LINE TO X 60", `ARC TO 60,40 R ${r} CCW`, "LINE TO X 0", "CLOSE").points.find(
        (p) => p.name === "C2",
      )!.at;
    for (let r = 20.001, last = at(20.001); r < 60; r += 0.5) {
      const c = at(r);
      expect(Math.hypot(c.x - last.x, c.y - last.y)).toBeLessThan(5);
      expect(c.x).toBeLessThanOrEqual(60 + 1e-9);
      last = c;
    }
  });
  it("is tied down by as many dimensions as it has freedoms", () => {
    const { job } = readCard(
      'UNIT mm\nOUTLINE "o"\nSTART 0,0\nLINE TO X ? NEAR 40,0\nLINE TO ?,? NEAR 42,30\nLINE TO X 0\nCLOSE\nEND',
    );
    const items = job.outlines[0].items,
      scope = numberScope(job),
      before = solveWire(items, scope);
    const tied = tieDown(items, scope);
    expect(tied).toHaveLength(before.freedom);
    const after = solveWire([...items, ...tied], scope);
    expect([after.freedom, after.conflicts]).toEqual([0, []]);
    after.points.forEach((p, i) =>
      expect(Math.hypot(p.at.x - before.points[i].at.x, p.at.y - before.points[i].at.y)).toBeLessThan(2e-3),
    );
  });
});

describe("first guesses", () => {
  it("find a belt round two circles from nothing but centres, radii and tangents", () => {
    const belt = wire(
      "START ?,?",
      "ARC CENTRE 0,0 R 10 CCW",
      "LINE TANGENT",
      "ARC CENTRE 50,0 R 5 CCW TANGENT",
      "LINE TANGENT CLOSE",
      "TANGENT 4 1",
    );
    // Two circles and their outer tangents: cos φ = (r₁ − r₂)/d.
    const phi = Math.acos(5 / 50),
      area = 15 * 50 * Math.sin(phi) + (Math.PI - phi) * 100 + phi * 25;
    expect([belt.solved, belt.freedom]).toEqual([true, 0]);
    expect(Math.abs(loopArea(belt.segments))).toBeCloseTo(area, 6);
  });
  it("go round to the left, so that an open outline does not lie on itself nor cross", () => {
    const trapezoid = wire(
      "START ?,0",
      "LINE TO ?,0",
      "LINE TO ?,20",
      "LINE TO ?,20",
      "CLOSE",
      "SYMMETRIC P0 P1 ABOUT Y",
      "SYMMETRIC P3 P2 ABOUT Y",
      "LENGTH 1 40",
      "LENGTH 3 20",
    );
    expect(loopArea(trapezoid.segments)).toBeCloseTo(600, 6);
    const open = wire("START 0,0", "LINE TO X 40", "LINE TO ?,?", "LINE TO X 0", "CLOSE");
    expect(open.freedom).toBe(2);
    expect(loopArea(open.segments)).toBeGreaterThan(1);
  });
});
