import { prepare, solve, type KernelStep } from "@/core/engine";
import { toNumberText } from "@/core/number";
import { viewOf } from "@/core/engine/views";
import { sideFrame, v2, v3 } from "@/core/geometry/vec";
import { circle, rectangleCorners, roundedLoop, type Loop } from "@/core/outline";
import { applyEdits } from "@/core/job";
import { jobOf, mm } from "../../tests/helpers/card";
import { loadEngine } from "./node";
import type { OC } from "./oc";
import { OpenCascadeKernel } from "./openCascade";
import { cannotBe } from "./resultCheck";
import { stepVolume } from "./stepFile";

let kernel: OpenCascadeKernel;
let oc: OC;
beforeEach(async () => {
  oc = (await loadEngine()).oc;
  kernel = new OpenCascadeKernel(oc);
});

const block: KernelStep = {
  op: "leave",
  row: "a",
  frame: sideFrame("top", 0),
  places: [{ x: 0, y: 0 }],
  body: { body: "prism", outline: { outer: roundedLoop(rectangleCorners(60, 40), 0)!, holes: [] }, from: 0, to: -20 },
};
const hole = (d: number, x = 0): KernelStep => ({
  op: "cut",
  row: "b",
  frame: sideFrame("top", 20),
  places: [{ x, y: 0 }],
  body: {
    body: "revolved",
    profile: [
      { r: d / 2, z: 0 },
      { r: d / 2, z: 21 },
    ],
  },
});

describe("an island in a pocket", () => {
  // A block whose left side is hollowed by a half circle: walked round, that arc runs the other way.
  const hollowed: Loop = [
    { kind: "line", from: v2(-8, -6), to: v2(8, -6) },
    { kind: "line", from: v2(8, -6), to: v2(8, 6) },
    { kind: "line", from: v2(8, 6), to: v2(-8, 6) },
    { kind: "line", from: v2(-8, 6), to: v2(-8, 4) },
    { kind: "arc", centre: v2(-8, 0), radius: 4, start: Math.PI / 2, sweep: -Math.PI },
    { kind: "line", from: v2(-8, -4), to: v2(-8, -6) },
  ];
  const taken = (30 * 20 - (16 * 12 - 8 * Math.PI)) * 5;
  it.each([0, 1, 2, 3, 4, 5])("stays, whichever of its steps comes first: %d", (first) => {
    const island = [...hollowed.slice(first), ...hollowed.slice(0, first)];
    const outline = { outer: roundedLoop(rectangleCorners(30, 20), 0)!, holes: [island] };
    for (const inserts of [true, false]) {
      const k = new OpenCascadeKernel(oc, { inserts });
      k.apply("block", null, block);
      const step: KernelStep = { ...hole(1), body: { body: "prism", outline, from: 0, to: 5 } } as KernelStep;
      expect(k.apply("cut", "block", step)).toMatchObject({
        ok: true,
        value: { volume: expect.closeTo(48000 - taken, 6) },
      });
    }
  });
});

describe("states under keys", () => {
  it("are made once and known after", () => {
    expect(kernel.apply("1", null, block)).toMatchObject({ ok: true, value: { solids: 1 } });
    expect(kernel.has("1")).toBe(true);
    expect(kernel.apply("1", null, hole(4))).toMatchObject({ ok: true, value: { volume: expect.closeTo(48000, 6) } });
    expect(kernel.apply("2", "1", hole(10))).toMatchObject({
      ok: true,
      value: { volume: expect.closeTo(48000 - Math.PI * 25 * 20, 6) },
    });
    expect(kernel.measure("1").volume).toBeCloseTo(48000, 6);
  });

  it("are forgotten when there are many, those at hand last", () => {
    kernel.apply("base", null, block);
    for (let i = 0; i < 140; i++) kernel.apply(`h${i}`, "base", hole(4 + i / 100));
    kernel.trim(new Set(["base", "h0"]));
    expect(kernel.has("base")).toBe(true);
    expect(kernel.has("h0")).toBe(true);
    expect(kernel.has("h1")).toBe(false);
    expect(kernel.has("h139")).toBe(true);
  });

  it("refuse to start with a cut, and to end with nothing", () => {
    expect(kernel.apply("x", null, hole(4))).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("nothing to cut") }],
    });
    kernel.apply("1", null, block);
    expect(kernel.apply("y", "1", hole(400))).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("nothing is left") }],
    });
    expect(kernel.has("y")).toBe(false);
  });
});

describe("faces and edges", () => {
  beforeEach(() => {
    kernel.apply("1", null, block);
    kernel.apply("2", "1", hole(10));
  });

  it("say what they are", () => {
    const faces = kernel.faces("2");
    expect(faces).toHaveLength(7);
    const wall = faces.find((f) => f.surface === "cylinder")!;
    expect(wall).toMatchObject({
      hollow: true,
      radius: expect.closeTo(5, 9),
      tag: { row: "b", role: "wall", instance: 0 },
    });
    expect(wall.sweep).toBeCloseTo(2 * Math.PI, 9);
    expect(faces.filter((f) => f.surface === "plane").every((f) => f.tag?.row === "a")).toBe(true);
    expect(kernel.flats("2")).toHaveLength(6);
  });

  it("turn outwards at the rim of a hole and at every corner of a block", () => {
    const edges = kernel.edges("2").filter((e) => e.length > 0);
    expect(edges).toHaveLength(14);
    expect(edges.every((e) => e.turn === "convex")).toBe(true);
    expect(edges.every((e) => Math.abs(e.angle - Math.PI / 2) < 1e-9)).toBe(true);
  });

  it("turn inwards at the floor of a pocket", () => {
    const pocket: KernelStep = {
      ...block,
      op: "cut",
      row: "c",
      frame: sideFrame("top", 20),
      body: { body: "prism", outline: { outer: roundedLoop(rectangleCorners(20, 10), 0)!, holes: [] }, from: 0, to: 5 },
    };
    kernel.apply("3", "1", pocket);
    const mine = kernel
      .edges("3")
      .filter((e) => e.length > 0 && e.faces.every((i) => kernel.faces("3")[i].tag?.row === "c"));
    expect(mine).toHaveLength(8);
    expect(mine.every((e) => e.turn === "concave")).toBe(true);
  });

  it("are measured anew where a cut changed them, and kept where it did not", () => {
    kernel.edges("2");
    kernel.apply("3", "2", hole(6, 20));
    const fresh = new OpenCascadeKernel(kernel["oc"]);
    fresh.apply("1", null, block);
    fresh.apply("2", "1", hole(10));
    fresh.apply("3", "2", hole(6, 20));
    const shape = (k: OpenCascadeKernel) => k.edges("3").map((e) => [e.curve, e.turn, e.length.toFixed(6), e.faces]);
    expect(shape(kernel)).toEqual(shape(fresh));
    expect(kernel.faces("3").map((f) => f.area.toFixed(6))).toEqual(fresh.faces("3").map((f) => f.area.toFixed(6)));
  });

  it("of a chamfer made by an angle lean as told", () => {
    kernel.apply("r", null, {
      ...block,
      body: { body: "prism", outline: { outer: circle(20), holes: [] }, from: 0, to: -10 },
    });
    const rim = kernel.edges("r").findIndex((e) => e.curve === "circle" && e.middle.z > 9);
    const top = kernel.faces("r").findIndex((f) => f.normal.z > 0.9);
    kernel.apply("c", "r", {
      op: "edges",
      row: "e",
      treatment: "chamfer",
      size: 2,
      angle: Math.PI / 6,
      edges: [{ edge: rim, face: top }],
    });
    const cone = kernel.faces("c").find((f) => f.surface === "cone")!;
    expect(cone.tag).toEqual({ row: "e", role: "chamfer", instance: 0 });
    expect(cone.box.max.z - cone.box.min.z).toBeCloseTo(2 * Math.tan(Math.PI / 6), 9);
  });
});

describe("pictures", () => {
  beforeEach(() => {
    kernel.apply("1", null, block);
    kernel.apply("2", "1", hole(10));
  });

  it("group the triangles by face, whole", () => {
    const mesh = kernel.mesh("2");
    expect(mesh.groups).toHaveLength(7);
    expect(mesh.groups.reduce((s, g) => s + g.count, 0)).toBe(mesh.triangles.length);
    expect(Math.max(...mesh.triangles)).toBeLessThan(mesh.positions.length / 3);
    expect(mesh.lines.length).toBeGreaterThan(14 * 6);
  });

  it("show only the row's own solid as a ghost", () => {
    const ghost = kernel.ghost([hole(10)])!;
    for (let i = 0; i < ghost.positions.length; i += 3)
      expect(Math.hypot(ghost.positions[i], ghost.positions[i + 1])).toBeLessThan(5.001);
    expect(kernel.ghost([{ op: "edges", row: "x", treatment: "round", size: 1, angle: 0, edges: [] }])).toBeNull();
    // Of several steps all are shown, of their copies as many as can be told apart.
    const both = kernel.ghost([hole(10), hole(30)])!;
    expect(both.triangles.length).toBeGreaterThan(ghost.triangles.length);
    expect(Math.max(...both.positions.filter((_, i) => i % 3 === 0))).toBeGreaterThan(14);
  });

  it("cut open show the area of the section", () => {
    const s = kernel.section("2", v3(0, 0, 0), v3(0, -1, 0));
    expect(s.area).toBeCloseTo((60 - 10) * 20, 6);
    expect(s.sectionFaces).toHaveLength(2);
    expect(kernel.section("2", v3(0, 19, 0), v3(0, -1, 0)).area).toBeCloseTo(60 * 20, 6);
    expect(kernel.section("2", v3(0, 0, 5), v3(0, 0, 1)).area).toBeCloseTo(60 * 40 - Math.PI * 25, 6);
  });

  it("drawn from the top show the outline and the hole", () => {
    const lines = kernel.drawing("2", viewOf.top, false);
    const points = lines.flatMap((l) => l.points);
    expect(Math.max(...points.map((p) => p.x))).toBeCloseTo(30, 6);
    expect(Math.max(...points.map((p) => p.y))).toBeCloseTo(20, 6);
    expect(
      lines.some((l) => l.points.length > 4 && l.points.every((p) => Math.abs(Math.hypot(p.x, p.y) - 5) < 1e-6)),
    ).toBe(true);
    expect(kernel.drawing("2", viewOf.front, true).some((l) => l.hidden)).toBe(true);
    expect(kernel.drawing("2", viewOf.front, false).some((l) => l.hidden)).toBe(false);
  });

  it("STEP holds the same solid", async () => {
    const { oc } = await loadEngine();
    expect(stepVolume(oc, kernel.step([{ key: "2", name: "part" }]))).toBeCloseTo(kernel.measure("2").volume, 6);
  });
});

it("a hundred edits later the part is what the first run would have made", async () => {
  let job = jobOf(
    mm(
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT POCKET 30 X 20 R4 DEEP 8",
      "CUT 4X ⌀5 THRU GRID 2 2 BY 50 30",
      "CUT CHAMFER 1 OUTER TOP",
    ),
  );
  for (let i = 0; i < 100; i++) {
    const r = applyEdits(job, [
      {
        edit: "setNumber",
        id: i % 2 ? "r2" : "r3",
        path: i % 2 ? "radius" : "diameter",
        text: toNumberText((4 + (i % 7) / 10).toFixed(1)),
      },
    ]);
    if (!r.ok) throw new Error();
    job = r.value.job;
    await solve(prepare(job), kernel);
  }
  const last = await solve(prepare(job), kernel);
  const fresh = await solve(prepare(job), new OpenCascadeKernel((await loadEngine()).oc));
  expect(last.rows.map((r) => r.volumeAfter)).toEqual(fresh.rows.map((r) => r.volumeAfter));
  expect(last.finalKey).toBe(fresh.finalKey);
});

describe("chamfers that meet", () => {
  /** Three planes at each corner: of a corner's cube c³ a quarter is left where every pair of its legs is over c. */
  const sharp = (l: number, w: number, h: number, c: number) => l * w * h - 2 * c * c * (l + w + h) + 6 * c ** 3;
  const volumeOf = (...lines: string[]) => {
    const s = solve(prepare(jobOf(mm(...lines))), kernel);
    return s.then((r) => kernel.measure(r.finalKey!).volume);
  };
  it.each([
    [20, 30, 40, 2],
    [20, 30, 40, 0.5],
    [12, 12, 12, 3],
  ])("%s x %s x %s, chamfer %s on every edge, comes to three planes", async (l, w, h, c) => {
    expect(await volumeOf(`LEAVE BLOCK ${l} X ${w} X ${h}`, `CUT CHAMFER ${c} ALL SHARP`)).toBeCloseTo(
      sharp(l, w, h, c),
      6,
    );
  });
  it("is the same in one row and in two", async () => {
    const one = await volumeOf("LEAVE BLOCK 20 X 30 X 40", "CUT CHAMFER 2 OUTER TOP, VERTICAL");
    const two = await volumeOf("LEAVE BLOCK 20 X 30 X 40", "CUT CHAMFER 2 OUTER TOP", "CUT CHAMFER 2 VERTICAL");
    expect(one).toBeCloseTo(two, 6);
  });
  it("keeps its faces its own", async () => {
    const r = await solve(prepare(jobOf(mm("LEAVE BLOCK 20 X 30 X 40", "CUT CHAMFER 2 ALL SHARP"))), kernel);
    const faces = kernel.faces(r.finalKey!);
    expect(faces.length).toBe(6 + 12);
    expect(faces.filter((f) => f.tag?.role === "chamfer").length).toBe(12);
  });
});

describe("what a step cannot have done", () => {
  const was = { volume: 1000 };
  it.each([
    ["cut", 990, 10, true],
    ["cut", 989.9, 10, false],
    ["cut", 1000.1, 10, false],
    ["leave", 1010, 10, true],
    ["leave", 1010.1, 10, false],
    ["leave", 999.9, 10, false],
    ["edges", 900, undefined, true],
  ] as const)("%s from 1000 to %s with tools of %s", (op, volume, most, can) => {
    expect(cannotBe({ op }, was, { volume }, most) === null).toBe(can);
  });
});
