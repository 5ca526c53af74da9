import fc from "fast-check";
import { runs } from "../../../tests/helpers/thorough";
import { readCard } from "@/core/callout";
import { prepare, solve } from "@/core/engine";
import { loadEngine } from "../node";
import type { OC } from "../oc";
import { OpenCascadeKernel } from "../openCascade";
import { allApart, ringClear, silhouette, stretchClear, within } from "./silhouette";

let oc: OC;
beforeAll(async () => {
  oc = (await loadEngine()).oc;
}, 60_000);

interface Built {
  /** Area of the picture's triangles, and length of its lines. */
  pictured: number;
  lines: number;
  volume: number;
  area: number;
  faces: string[];
  edges: number;
  failures: string[];
}
function picture(kernel: OpenCascadeKernel, key: string): { pictured: number; lines: number } {
  const { positions, triangles, lines } = kernel.mesh(key);
  const at = (i: number) => positions.slice(3 * i, 3 * i + 3);
  let pictured = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [at(triangles[t]), at(triangles[t + 1]), at(triangles[t + 2])];
    const [u, v] = [b, c].map((p) => p.map((x, i) => x - a[i]));
    pictured += Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
  }
  let drawn = 0;
  for (let i = 0; i < lines.length; i += 6)
    drawn += Math.hypot(lines[i + 3] - lines[i], lines[i + 4] - lines[i + 1], lines[i + 5] - lines[i + 2]);
  return { pictured, lines: drawn };
}

async function build(lines: string[], inserts: boolean): Promise<Built> {
  const read = readCard(["UNIT mm", ...lines].join("\n"));
  expect(read.errors).toEqual([]);
  const kernel = new OpenCascadeKernel(oc, { inserts });
  const { rows, finalKey } = await solve(prepare(read.job), kernel);
  const key = finalKey as string;
  // After each row in turn, as stepping through them asks for it: flats grow from one another there.
  for (const r of rows) if (r.key) kernel.mesh(r.key);
  return {
    volume: kernel.measure(key).volume,
    area: kernel.surfaceArea(key),
    faces: kernel.faces(key).map((f) => `${f.tag?.row} ${f.tag?.role} ${f.tag?.instance} ${f.area.toFixed(5)}`),
    edges: kernel.edges(key).filter((e) => e.length > 0).length,
    ...picture(kernel, key),
    failures: rows.flatMap((r) => (r.state === "failed" ? [r.message] : [])),
  };
}

async function sameBothWays(lines: string[]): Promise<void> {
  const put = await build(lines, true);
  const cut = await build(lines, false);
  expect(put.failures).toEqual(cut.failures);
  expect(Math.abs(put.volume / cut.volume - 1)).toBeLessThan(1e-9);
  expect(Math.abs(put.area / cut.area - 1)).toBeLessThan(1e-9);
  expect([...put.faces].sort()).toEqual([...cut.faces].sort());
  expect(put.edges).toBe(cut.edges);
  expect(Math.abs(put.lines / cut.lines - 1)).toBeLessThan(1e-3);
  // Rounds are drawn by chords: as near as the chord error lets them be.
  expect(Math.abs(put.pictured / put.area - 1)).toBeLessThan(5e-3);
}

/** Places on a lattice so coarse that most cuts are apart, some meet, some run out of the side. */
const at = fc.tuple(fc.integer({ min: -5, max: 5 }), fc.integer({ min: -3, max: 3 })).map(([i, j]) => [i * 10, j * 9]);
const plane = fc.constantFrom("", "", "", " ON BOTTOM");
const cut = fc.oneof(
  fc
    .tuple(
      at,
      plane,
      fc.constantFrom("4", "6.5", "9"),
      fc.constantFrom("THRU", "DEEP 5", "DEEP 7 FLAT", "DEEP 20 FLAT"),
    )
    .map(([[x, y], p, d, depth]) => `CUT ⌀${d} ${depth} AT ${x},${y}${p}`),
  fc.tuple(at, plane).map(([[x, y], p]) => `CUT ⌀4 THRU CBORE ⌀8 DEEP 4 AT ${x},${y}${p}`),
  fc.tuple(at, plane).map(([[x, y], p]) => `CUT ⌀4 DEEP 9 CSK ⌀7 X 90 AT ${x},${y}${p}`),
  fc.tuple(at, fc.constantFrom("THRU", "DEEP 4")).map(([[x, y], d]) => `CUT POCKET 14 X 8 R2 ${d} AT ${x},${y}`),
  fc.tuple(at, fc.constantFrom(0, 8)).map(([[x]]) => `CUT ⌀5 DEEP 12 AT ${x},10 ON FRONT`),
  at.map(([x, y]) => `CUT 4X ⌀3 DEEP 6 GRID 2 2 BY 12 10 AT ${x},${y}`),
);
const base = fc.constantFrom("LEAVE BLOCK 120 X 70 X 20", "LEAVE BLOCK 120 X 70 X 20 R10", "LEAVE ROUND ⌀120 X 20");

test("a cut put into a flat is the cut a boolean makes: volume, area, faces and where they come from", async () => {
  await fc.assert(
    fc.asyncProperty(base, fc.array(cut, { minLength: 1, maxLength: 7 }), async (first, cuts) => {
      // The step at the end is a boolean either way: it measures the whole part anew.
      await sameBothWays([first, ...cuts, "CUT STEP LEFT 3 DEEP 2"]);
    }),
    { numRuns: runs(25, 6), seed: 20261126 },
  );
}, 240_000);

/** Small cuts close together on a floor, beside it and from below: what goes through an earlier mouth meets what is under it. */
const small = fc
  .tuple(
    fc.integer({ min: -5, max: 5 }),
    fc.integer({ min: -5, max: 5 }),
    fc.constantFrom(" ON FLOOR OF 2", " ON FLOOR OF 2", "", " ON BOTTOM"),
    fc.constantFrom("⌀2 THRU", "⌀3 DEEP 4 FLAT", "⌀2 THRU CBORE ⌀4 DEEP 2", "⌀2 THRU CSK ⌀5 X 90", "⌀2.5 DEEP 16"),
  )
  .map(([i, j, plane, what]) => `CUT ${what} AT ${i * 4},${j * 4}${plane}`);
const mouth = fc.constantFrom(
  "CUT ⌀8 THRU CBORE ⌀36 DEEP 5",
  "CUT POCKET 36 X 30 R4 DEEP 6",
  "CUT ⌀6 THRU CSK ⌀16 X 90",
);

test("the same on floors, and through the mouths of what was cut before", async () => {
  await fc.assert(
    fc.asyncProperty(mouth, fc.array(small, { minLength: 2, maxLength: 6 }), async (second, cuts) => {
      const onFloor = second.includes("CSK") ? cuts.map((c) => c.replace(" ON FLOOR OF 2", "")) : cuts;
      await sameBothWays(["LEAVE BLOCK 70 X 60 X 20", second, ...onFloor, "CUT STEP LEFT 3 DEEP 2"]);
    }),
    { numRuns: runs(25, 6), seed: 20261126 },
  );
}, 240_000);

/** Patterns whose copies lap over one another, in rows, in rings that leave something standing, and one on another. */
const lapping = fc
  .tuple(
    fc.constantFrom("⌀5 THRU", "⌀7 DEEP 5 FLAT", "⌀4 THRU CBORE ⌀9 DEEP 4", "⌀4 DEEP 9 CSK ⌀8 X 90", "⌀6 DEEP 7"),
    fc.constantFrom("GRID 3 2 BY", "GRID 2 2 BY", "ON BC", "PLACES"),
    fc.integer({ min: 3, max: 12 }),
    fc.integer({ min: 3, max: 12 }),
    at,
    plane,
  )
  .map(([what, pattern, dx, dy, [x, y], p]) => {
    if (pattern === "ON BC") return `CUT 8X ${what} ON BC ${dx + dy} AT ${x},${y}${p}`;
    if (pattern === "PLACES") return `CUT 3X ${what} AT ${x},${y} ${x + dx},${y} ${x},${y}${p}`;
    const [n, m] = pattern.split(" ").slice(1, 3).map(Number);
    return `CUT ${n * m}X ${what} ${pattern} ${dx} ${dy} AT ${x},${y}${p}`;
  });

test("the same where copies of one row lap over one another", async () => {
  await fc.assert(
    fc.asyncProperty(base, fc.array(lapping, { minLength: 1, maxLength: 3 }), async (first, cuts) => {
      await sameBothWays([first, ...cuts, "CUT STEP LEFT 3 DEEP 2"]);
    }),
    { numRuns: runs(25, 6), seed: 20261127 },
  );
}, 240_000);

test.each([
  [
    "on a floor",
    ["LEAVE BLOCK 90 X 60 X 20", "CUT POCKET 60 X 40 R6 DEEP 6", "CUT 4X ⌀5 THRU GRID 2 2 BY 30 20 ON FLOOR OF 2"],
  ],
  ["a chamfer round its mouth", ["LEAVE ROUND ⌀80 X 20", "CUT 6X ⌀8 DEEP 10 ON BC 50", "CUT CHAMFER .5 MOUTH OF 2"]],
  ["just deep enough", ["LEAVE BLOCK 60 X 40 X 10", "CUT ⌀6 DEEP 10 FLAT", "CUT ⌀6 DEEP 11 FLAT AT 20,0"]],
  ["a point that comes through", ["LEAVE BLOCK 60 X 40 X 10", "CUT ⌀6 DEEP 9", "CUT ⌀6 DEEP 8.5 AT 20,0"]],
  ["a round island", ["LEAVE BLOCK 60 X 40 X 10", "CUT GROOVE OD 30 ID 26 DEEP 2", "CUT ⌀6 THRU"]],
  [
    "a hole through a counterbore's floor, and one from below beside a countersunk one",
    [
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT ⌀6 THRU CBORE ⌀20 DEEP 5",
      "CUT ⌀2 THRU AT 6,0 ON FLOOR OF 2",
      "CUT ⌀3 THRU CSK ⌀12 X 90 AT 20,0",
      "CUT ⌀2 DEEP 5 AT 23.5,0 ON BOTTOM",
      "CUT ⌀2 THRU AT -6,0 ON FLOOR OF 2",
    ],
  ],
  [
    "a blind hole after drillings that run out of the round",
    ["LEAVE ROUND ⌀120 X 20", "CUT 4X ⌀3 DEEP 6 GRID 2 2 BY 12 10 AT -50,27", "CUT ⌀4 DEEP 20 FLAT AT 0,0"],
  ],
  [
    "letters and holes on a face whose rim is broken or rounded",
    [
      "LEAVE ROUND ⌀60 X 20",
      "CUT BREAK 1 OUTER TOP",
      "CUT ROUND 2 OUTER BOTTOM",
      'OUTLINE "t"',
      'TEXT "TG" HEIGHT 6 MIDDLE',
      "END",
      'CUT ENGRAVE "t" V 60 DEEP .2',
      "CUT ⌀4 DEEP 6 FLAT AT 26.5,0",
      "CUT ⌀4 DEEP 6 FLAT AT 0,27.5",
      "CUT 3X ⌀5 DEEP 8 ON BC 40 ON BOTTOM",
    ],
  ],
  [
    "letters, one inside the other",
    [
      "LEAVE BLOCK 60 X 30 X 8",
      'OUTLINE "t"',
      'TEXT "D0" HEIGHT 10',
      "END",
      'CUT ENGRAVE "t" V 60 DEEP .3',
      "CUT ⌀3 THRU AT -20,-10",
    ],
  ],
])("both ways: %s", async (_, lines) => sameBothWays([...lines, "CUT STEP LEFT 3 DEEP 1"]), 60_000);

test("what is put in is read back by the library itself: STEP has the same volume", async () => {
  const read = readCard("UNIT mm\nLEAVE BLOCK 60 X 40 X 20\nCUT ⌀8 DEEP 10 FLAT AT 10,0\nCUT ⌀5 THRU AT -10,0");
  const kernel = new OpenCascadeKernel(oc);
  const { finalKey } = await solve(prepare(read.job), kernel);
  const { stepVolume } = await import("../stepFile");
  const expected = 60 * 40 * 20 - Math.PI * 16 * 10 - Math.PI * 2.5 * 2.5 * 20;
  expect(stepVolume(oc, kernel.step([{ key: finalKey as string, name: "part" }])) / expected).toBeCloseTo(1, 9);
  expect(kernel.measure(finalKey as string).volume / expected).toBeCloseTo(1, 12);
});

describe("silhouettes", () => {
  const square = silhouette(
    [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 10 },
      { x: 0, y: 10 },
    ],
    0,
  );
  const moved = (dx: number) =>
    silhouette(
      square.points.map((p) => ({ x: p.x + dx, y: p.y })),
      0,
    );
  test("one inside the other is not apart, nor are two that touch", () => {
    const small = silhouette(
      [
        { x: 4, y: 4 },
        { x: 6, y: 4 },
        { x: 5, y: 6 },
      ],
      0,
    );
    expect(allApart([square, small])).toBe(false);
    expect(allApart([square, moved(10)])).toBe(false);
    expect(allApart([square, moved(10.001)])).toBe(true);
  });
  test("a stretch within counts as met", () => {
    expect(stretchClear({ x: 4, y: 4 }, { x: 6, y: 4 }, 0, square)).toBe(false);
    expect(stretchClear({ x: 11, y: 4 }, { x: 16, y: 4 }, 0, square)).toBe(true);
    expect(stretchClear({ x: 10.05, y: 0 }, { x: 10.05, y: 9 }, 0.1, square)).toBe(false);
  });
  test("a ring is clear when it goes round or stays away", () => {
    const middle = { x: 5, y: 5 };
    expect(ringClear(middle, 8, 9, square)).toBe(true);
    expect(ringClear(middle, 5, 9, square)).toBe(false);
    expect(ringClear(middle, 1, 2, square)).toBe(false);
    expect(ringClear({ x: 20, y: 5 }, 1, 2, square)).toBe(true);
  });
  test("a point level with corners is judged rightly", () => {
    expect(within({ x: -5, y: 0 }, square.points)).toBe(false);
    expect(within({ x: 5, y: 5 }, square.points)).toBe(true);
  });
});
