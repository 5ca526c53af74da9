import fc from "fast-check";
import { INCH } from "@/core/number";
import { readDrawing } from "./drawing";
import { evenScale, readEntities } from "./dxfEntities";

type Pair = (string | number)[];
const block = (name: string, base: [number, number], ...e: Pair[]): Pair => [
  0,
  "BLOCK",
  8,
  0,
  2,
  name,
  10,
  base[0],
  20,
  base[1],
  ...e.flat(),
  0,
  "ENDBLK",
];
const file = (blocks: Pair[], entities: Pair[], header: Pair = []) =>
  [
    0,
    "SECTION",
    2,
    "HEADER",
    ...header,
    0,
    "ENDSEC",
    0,
    "SECTION",
    2,
    "BLOCKS",
    ...blocks.flat(),
    0,
    "ENDSEC",
    0,
    "SECTION",
    2,
    "ENTITIES",
    ...entities.flat(),
    0,
    "ENDSEC",
    0,
    "EOF",
  ].join("\n");
const circle = (x: number, y: number, r: number, layer: string | number = 0): Pair => [
  0,
  "CIRCLE",
  8,
  layer,
  10,
  x,
  20,
  y,
  40,
  r,
];
const insert = (name: string, x: number, y: number, ...more: Pair): Pair => [
  0,
  "INSERT",
  8,
  "PUT",
  2,
  name,
  10,
  x,
  20,
  y,
  ...more,
];
const chains = (text: string) => {
  const r = readDrawing({ want: "chains", name: "a.dxf", text, unit: "mm" });
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value;
};
const circles = (text: string) =>
  chains(text)
    .chains.flatMap((c) => c.items)
    .map((i) =>
      i.item === "circle" ? [Number(i.diameter) / 2, Number(i.at?.x ?? 0), Number(i.at?.y ?? 0)] : [0, 0, 0],
    );
/** A machine that is busy beside takes several times as long; what freezes a page takes for ever. */
const BUSY = 6;
const within = <T>(seconds: number, work: () => T): T => {
  const from = performance.now();
  const r = work();
  expect(performance.now() - from).toBeLessThan(BUSY * seconds * 1000);
  return r;
};

describe("blocks put into a drawing", () => {
  it("stand at their place, from their base point, on the layer they are put on", () => {
    const r = chains(file([block("HOLE", [1, 2], circle(3, 2, 5), circle(0, 0, 1, "OWN"))], [insert("HOLE", 100, 50)]));
    expect(r.layers).toEqual([
      { name: "PUT", elements: 1 },
      { name: "OWN", elements: 1 },
    ]);
    expect(circles(file([block("HOLE", [1, 2], circle(3, 2, 5))], [insert("HOLE", 100, 50)]))).toEqual([[5, 102, 50]]);
  });

  it("are scaled, turned and mirrored, in rows and columns, and within one another", () => {
    const hole = block("HOLE", [0, 0], circle(10, 0, 1));
    expect(circles(file([hole], [insert("HOLE", 0, 0, 41, 2, 42, 2, 50, 90)]))).toEqual([
      [2, expect.closeTo(0, 9), expect.closeTo(20, 9)],
    ]);
    expect(circles(file([hole], [insert("HOLE", 0, 0, 41, -1, 42, 1)]))).toEqual([[1, -10, 0]]);
    expect(circles(file([hole], [insert("HOLE", 0, 0, 70, 2, 71, 2, 44, 5, 45, 7)])).map(([, x, y]) => [x, y])).toEqual(
      [
        [10, 0],
        [15, 0],
        [10, 7],
        [15, 7],
      ],
    );
    const pair = block("PAIR", [0, 0], insert("HOLE", 0, 0), insert("HOLE", 100, 0, 50, 180));
    expect(
      circles(file([hole, pair], [insert("PAIR", 0, 5, 41, 3, 42, 3)])).map(([r, x, y]) => [r, Math.round(x), y]),
    ).toEqual([
      [3, 30, 5],
      [3, 270, expect.closeTo(5, 9)],
    ]);
  });

  it("keep an arc an arc when mirrored, its ends where they are seen", () => {
    const arc: Pair = [0, "ARC", 8, 0, 10, 0, 20, 0, 40, 10, 50, 0, 51, 90];
    const [a] = chains(file([block("Q", [0, 0], arc)], [insert("Q", 0, 0, 41, -1)])).chains;
    expect(a.items).toMatchObject([
      { item: "start", at: { x: "-10", y: "0" } },
      { item: "arc", side: "cw", to: { x: "0", y: "10" } },
    ]);
  });

  it("say what an uneven scale makes of arcs, and take their lines", () => {
    const r = chains(
      file(
        [block("B", [0, 0], circle(0, 0, 1), [0, "LINE", 8, 0, 10, 0, 20, 0, 11, 3, 21, 4])],
        [insert("B", 0, 0, 41, 2, 42, 1)],
      ),
    );
    expect(r.problems.join()).toMatch(/CIRCLE left out: its block is scaled unevenly/);
    expect(r.chains).toHaveLength(1);
    expect(r.chains[0].length).toBeCloseTo(Math.hypot(6, 4), 9);
    expect(evenScale({ a: 2, b: 0, c: 0, d: -2, e: 0, f: 0 })).toBe(-2);
    expect(evenScale({ a: 2, b: 0, c: 1, d: 2, e: 0, f: 0 })).toBeNull();
  });

  it("name one that is missing, and read one that holds itself once", () => {
    expect(chains(file([], [insert("NONE", 0, 0), circle(0, 0, 1)])).problems.join()).toMatch(
      /block "NONE" is put in and is not there/,
    );
    expect(
      circles(file([block("SELF", [0, 0], circle(0, 0, 1), insert("SELF", 5, 0))], [insert("SELF", 0, 0)])),
    ).toEqual([[1, 0, 0]]);
  });
});

describe("drawings that would freeze a page", () => {
  it("30 inserts of 30 inserts, six deep: said, and not read", () => {
    const deep = Array.from({ length: 6 }, (_, k) =>
      block(
        `B${k}`,
        [0, 0],
        ...(k === 0 ? [circle(0, 0, 1)] : Array.from({ length: 30 }, (_, i) => insert(`B${k - 1}`, i, k))),
      ),
    );
    const text = file(
      deep,
      Array.from({ length: 30 }, (_, i) => insert("B5", i, 0)),
    );
    const r = within(2, () => chains(text));
    expect(r.chains).toEqual([]);
    expect(r.problems.join()).toMatch(/comes to [\d,]+ elements with its blocks/);
    expect(within(2, () => readDrawing({ want: "picture", text }))).toMatchObject({ ok: false });
    // Blocks that hold nothing but blocks count too.
    expect(
      within(2, () =>
        readEntities(
          file([block("E", [0, 0]), block("F", [0, 0], insert("E", 0, 0, 70, 30000, 71, 30000))], [insert("F", 0, 0)]),
        ),
      ),
    ).toMatchObject({ entities: [] });
  });

  it("an arc that goes round 1e300 degrees, and numbers without end", () => {
    const arc = (from: string, to: string): Pair => [0, "ARC", 8, "A", 10, 0, 20, 0, 40, 10, 50, from, 51, to];
    const text = file(
      [],
      [
        arc("0", "1e300"),
        arc("-1e300", "90"),
        arc("1e308", "-1e308"),
        [0, "LINE", 8, "A", 10, "1e300", 20, 0, 11, 0, 21, 0],
        [0, "CIRCLE", 8, "A", 10, 0, 20, 0, 40, "-5"],
        [0, "CIRCLE", 8, "A", 10, 0, 20, 0, 40, "1e999"],
        circle(0, 0, 2, "A"),
      ],
    );
    const r = within(1, () => chains(text));
    for (const c of r.chains) expect(c.length).toBeLessThanOrEqual(2 * Math.PI * 10 + 1e-6);
    expect(r.problems.join()).toMatch(/farther away/);
    expect(within(1, () => readDrawing({ want: "picture", text })).ok).toBe(true);
  });

  it("20,000 lines, joined to chains in a moment, the loose ones in words that end", () => {
    const n = 20_000;
    const zigzag = Array.from({ length: n }, (_, i): Pair => [
      0,
      "LINE",
      8,
      "Z",
      10,
      i,
      20,
      i % 2,
      11,
      i + 1,
      21,
      (i + 1) % 2,
    ]);
    const mixed = zigzag.map((_, i) => zigzag[(i * 7919) % n]);
    const r = within(5, () => chains(file([], mixed)));
    expect(r.chains.map((c) => [c.items.length, c.closed])).toEqual([[n + 1, false]]);
    expect(r.chains[0].length).toBeCloseTo(n * Math.SQRT2, 4);
    const loose = within(5, () =>
      chains(
        file(
          [],
          Array.from({ length: n }, (_, i): Pair => [0, "LINE", 8, "Z", 10, 3 * i, 20, 0, 11, 3 * i + 1, 21, 0]),
        ),
      ),
    );
    expect(loose.chains).toHaveLength(n);
    expect(loose.problems.length).toBeLessThan(60);
    expect(within(5, () => readDrawing({ want: "picture", text: file([], mixed) })).ok).toBe(true);
  });

  it("cut off anywhere, its layer table too, or without ENTITIES", () => {
    const table: Pair = [0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LAYER", 70, 1, 0, "LAYER", 2, "A", 70, 0, 62, 7];
    const head = table.join("\n");
    expect(within(1, () => chains(head)).problems.join()).toMatch(/no ENTITIES/);
    expect(within(1, () => chains(`${head}\n${circle(0, 0, 1).join("\n")}\n0\nEOF`)).chains).toEqual([]);
    expect(within(1, () => readDrawing({ want: "picture", text: head }))).toMatchObject({ ok: false });
    const whole = file(
      [block("B", [0, 0], circle(1, 1, 1))],
      [insert("B", 0, 0), circle(0, 0, 3), [0, "LINE", 8, 0, 10, 0, 20, 0, 11, 1, 21, 1]],
      [9, "$INSUNITS", 70, 1],
    );
    for (let cut = 0; cut < whole.length; cut += 3)
      within(1, () => readDrawing({ want: "chains", name: "a.dxf", text: whole.slice(0, cut), unit: "mm" }));
    expect(chains(whole).said).toBe("in");
    expect(circles(whole)[1][0]).toBeCloseTo(3 * INCH, 9);
  });

  it("whatever else: nothing throws and no figure is no number", () => {
    const value = fc.oneof(
      fc.double({ noNaN: true }).map(String),
      fc.integer().map(String),
      fc.constantFrom(
        "LINE",
        "ARC",
        "INSERT",
        "SECTION",
        "ENDSEC",
        "BLOCK",
        "ENDBLK",
        "POLYLINE",
        "VERTEX",
        "SPLINE",
        "ELLIPSE",
        "MTEXT",
        "DIMENSION",
        "EOF",
        "x",
        "",
      ),
    );
    const code = fc.constantFrom(
      0,
      0,
      0,
      2,
      8,
      10,
      20,
      30,
      11,
      21,
      40,
      41,
      42,
      44,
      50,
      51,
      70,
      71,
      90,
      100,
      210,
      230,
      290,
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(code, value), { maxLength: 60 }), (pairs) => {
        const text = `0\nSECTION\n2\nENTITIES\n${pairs.flat().join("\n")}\n0\nENDSEC\n0\nEOF`;
        const r = readDrawing({ want: "chains", name: "a.dxf", text, unit: "mm" });
        const picture = readDrawing({ want: "picture", text });
        if (picture.ok) expect(picture.value.svg).not.toMatch(/NaN|Infinity/);
        return r.ok && r.value.chains.every((c) => Number.isFinite(c.length));
      }),
      { numRuns: 500 },
    );
  });
});
