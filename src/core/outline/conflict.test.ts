import { readCard } from "../callout";
import { numberScope } from "../engine/numbers";
import { loopArea } from "./outline";
import { conflictWords, solveWire } from "./wire";

const items = (...lines: string[]) => {
  const { job, errors } = readCard(["UNIT mm", 'OUTLINE "o"', ...lines, "END"].join("\n"));
  if (errors.length) throw new Error(`${errors[0].line}: ${errors[0].message}; ${errors[0].expected}`);
  return { items: job.outlines[0].items, scope: numberScope(job) };
};
const wire = (...lines: string[]) => {
  const o = items(...lines);
  return solveWire(o.items, o.scope);
};
const without = (drop: number, lines: string[]) => {
  const o = items(...lines);
  return solveWire(
    o.items.filter((_, i) => i !== drop),
    o.scope,
  );
};

describe("what cannot hold together", () => {
  it("of a triangle that cannot close, every length is offered", () => {
    for (const sides of [
      [30, 10, 50],
      [50, 10, 30],
      [10, 50, 30],
    ]) {
      const w = wire("START 0,0", `LINE L ${sides[0]} A 0`, `LINE L ${sides[1]}`, `LINE L ${sides[2]} CLOSE`);
      expect([sides, w.conflicts.length]).toEqual([sides, 1]);
      expect(w.conflicts[0].drop).toEqual([1, 2, 3]);
      expect(w.conflicts[0].proven).toBe(true);
    }
  });
  it("a triangle that closes is none", () => {
    const w = wire("START 0,0", "LINE L 30 A 0", "LINE L 40", "LINE L 50 CLOSE");
    expect([w.conflicts, w.solved]).toEqual([[], true]);
    expect(Math.abs(loopArea(w.segments))).toBeCloseTo(600, 6);
  });
  it("two contradictions that have nothing to do with one another are two, each with its ways out", () => {
    const lines = ["START 0,0", "LINE TO X 40", "LINE TO Y 30", "LINE TO X 0", "CLOSE", "LENGTH 1 45", "LENGTH 2 35"];
    const w = wire(...lines);
    expect(w.conflicts.map((c) => c.drop)).toEqual([
      [1, 5],
      [2, 6],
    ]);
    // Mending one leaves the other.
    expect(without(6, lines).conflicts.map((c) => c.drop)).toEqual([[1, 5]]);
    expect(without(5, lines).conflicts.map((c) => c.drop)).toEqual([[2, 5]]);
  });
  it("every way out that is offered mends it", () => {
    const lines = ["START 0,0", "LINE TO ?,? NEAR 40,0", "LINE TO ?,? NEAR 42,30", "LINE TO ?,? NEAR 0,30", "CLOSE"];
    const said = [
      "HORIZONTAL 1",
      "PERPENDICULAR 1 2",
      "PARALLEL 1 3",
      "LENGTH 1 40",
      "LENGTH 2 30",
      "ANGLE 1 3 190",
      "DY P0 P2 25",
    ];
    const w = wire(...lines, ...said);
    expect(w.conflicts.length).toBe(2);
    const whole = [...lines, ...said];
    // Each with one of its ways out taken, whichever it is, nothing contradicts any more.
    for (const a of w.conflicts[0].drop)
      for (const b of w.conflicts[1].drop) {
        const o = items(...whole);
        if (a === b) continue;
        const left = o.items.filter((_, i) => i !== a && i !== b);
        if (left.filter((i) => i.item === "line").length < 4) continue;
        expect([a, b, solveWire(left, o.scope).conflicts]).toEqual([a, b, []]);
      }
    // A relation is a way out too.
    expect(w.conflicts.flatMap((c) => c.drop)).toContain(whole.indexOf("PARALLEL 1 3"));
  });
  it("where the rest leaves no room it says so, with what to drop", () => {
    const lines = ["START 0,0", "LINE TO X 27", "LINE TO Y 36", "LINE TO X 10", "LINE TO Y 60", "LINE TO X 0", "CLOSE"];
    for (const distance of [12, 61]) {
      const w = wire(...lines, `DISTANCE 1 4 ${distance}`);
      expect([distance, w.conflicts.length]).toEqual([distance, 1]);
      expect(w.conflicts[0].drop).toContain(7);
      expect(conflictWords(w.conflicts[0])).toMatch(/cannot hold together/);
      expect(without(7, [...lines, `DISTANCE 1 4 ${distance}`]).conflicts).toEqual([]);
    }
  });
  it("a step of no length is said to be one", () => {
    const w = wire("START 0,0", "LINE TO X 40", "LINE TO X 40", "LINE TO Y 20", "LINE TO X 0", "CLOSE");
    expect(w.conflicts.map((c) => [c.drop, c.shrunk])).toEqual([[[1, 2], true]]);
    expect(conflictWords(w.conflicts[0])).toContain("a step would have no length");
    // One that is home already when it closes is none.
    expect(wire("START 0,0", "LINE TO X 40", "LINE TO Y 20", "LINE TO X 0", "LINE TO Y 0", "CLOSE").conflicts).toEqual(
      [],
    );
  });
  it("says what it is in words", () => {
    const w = wire("START 0,0", "LINE TO X 40", "LINE TO Y 30", "LINE TO X 0", "CLOSE", "LENGTH 1 45");
    expect(conflictWords(w.conflicts[0])).toContain("length 1");
    expect(conflictWords(w.conflicts[0])).toContain("cannot hold together");
  });
});

describe("NEAR", () => {
  /** A line from the origin that touches the circle ⌀20 about 50,0: the points of touch by elementary geometry. */
  const touch = { x: 50 - 100 / 50, y: (10 * Math.sqrt(50 ** 2 - 10 ** 2)) / 50 };
  const walk = (near: string, side: string) =>
    wire(
      "START 0,0",
      `LINE TO ?,? ${near}`,
      `ARC CENTRE 50,0 R 10 ${side} TO 60,0 TANGENT`,
      "LINE TO 60,-30",
      "LINE TO 0,-30",
      "CLOSE",
    );
  it.each([
    ["NEAR 45,-12", "CCW", -1],
    ["NEAR 45,12", "CW", 1],
    ["", "CCW", -1],
    ["", "CW", 1],
  ])("%s %s: the line runs into the arc smoothly", (near, side, sign) => {
    const w = walk(near, side);
    expect(w.problems).toEqual([]);
    const p = w.points.find((q) => q.name === "P1")!.at;
    expect(p.x).toBeCloseTo(touch.x, 6);
    expect(p.y).toBeCloseTo(sign * touch.y, 6);
  });
  it.each([
    ["NEAR 48,9.8", "CCW"],
    ["NEAR 48,-9.8", "CW"],
  ])("%s %s: says that smoothness rules that place out", (near, side) => {
    const w = walk(near, side);
    expect(w.problems.map((p) => [p.item, p.message])).toEqual([[1, expect.stringContaining("turn back")]]);
    expect(w.solved).toBe(false);
  });
  it("decides between two points on a circle", () => {
    for (const sign of [1, -1]) {
      const w = wire(
        "START 0,0",
        `LINE TO ?,? L 45 NEAR 40,${sign * 20}`,
        `LINE TO 60,0 L 30`,
        "LINE TO 60,-60",
        "LINE TO 0,-60",
        "CLOSE",
      );
      // Heron: the height over a base of 60 of a triangle 45, 30, 60.
      const x = (45 ** 2 - 30 ** 2 + 60 ** 2) / 120;
      const p = w.points.find((q) => q.name === "P1")!.at;
      expect([w.solved, p.x.toFixed(6), p.y.toFixed(6)]).toEqual([
        true,
        x.toFixed(6),
        (sign * Math.sqrt(45 ** 2 - x * x)).toFixed(6),
      ]);
    }
  });
  it("decides for an arc by its end too", () => {
    for (const sign of [1, -1]) {
      const w = wire(
        "START 0,0",
        `ARC TO ?,? R 30 ${sign > 0 ? "CCW" : "CW"} NEAR 40,${sign * 10}`,
        "LINE TO 80,0",
        "LINE TO 80,-60",
        "LINE TO 0,-60",
        "CLOSE",
        "LENGTH 2 45",
        "DX P0 P1 40",
      );
      const p = w.points.find((q) => q.name === "P1")!.at;
      expect(Math.sign(p.y)).toBe(sign);
    }
  });
});
