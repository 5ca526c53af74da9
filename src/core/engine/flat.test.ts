import { sideFrame } from "../geometry/vec";
import { circle, rectangleCorners, roundedLoop, type Loop } from "../outline";
import { plateAfter, plateFrom, type Plate } from "./flat";
import { keyOf } from "../base/key";
import type { KernelStep } from "./kernel";

const plateStep = (outer: Loop): KernelStep => ({
  op: "leave",
  row: "a",
  frame: sideFrame("top", 0),
  places: [{ x: 0, y: 0 }],
  body: { body: "prism", outline: { outer, holes: [] }, from: 0, to: -10 },
});
const cut = (loop: Loop, places: { x: number; y: number }[], z = 10): KernelStep => ({
  op: "cut",
  row: "b",
  frame: sideFrame("top", z),
  places,
  body: { body: "prism", outline: { outer: loop, holes: [] }, from: 0, to: 11 },
});
const square = (s: number) => roundedLoop(rectangleCorners(s, s), 0)!;
const plate = (outer: Loop = roundedLoop(rectangleCorners(100, 60), 0)!): Plate => plateFrom(plateStep(outer))!;

describe("a plate in one piece", () => {
  it("starts from a first prism, not from a turned body or several", () => {
    expect(plate()).toMatchObject({ op: "plate", height: 10, holes: [] });
    expect(
      plateFrom({
        ...plateStep(square(10)),
        places: [
          { x: 0, y: 0 },
          { x: 20, y: 0 },
        ],
      } as KernelStep),
    ).toBeNull();
    expect(plateFrom(cut(square(10), [{ x: 0, y: 0 }]))).toBeNull();
  });

  it("takes windows that lie inside and apart", () => {
    const next = plateAfter(
      plate(),
      cut(square(10), [
        { x: -20, y: 0 },
        { x: 20, y: 0 },
      ]),
      true,
    );
    expect(next!.holes.map((h) => [h.row, h.instance])).toEqual([
      ["b", 0],
      ["b", 1],
    ]);
    expect(plateAfter(next!, cut(circle(4), [{ x: 0, y: 0 }]), true)!.holes).toHaveLength(3);
  });

  it("takes straight through holes as circles", () => {
    const drilled: KernelStep = {
      op: "cut",
      row: "c",
      frame: sideFrame("top", 10),
      places: [{ x: 0, y: 0 }],
      body: {
        body: "revolved",
        profile: [
          { r: 3, z: 0 },
          { r: 3, z: 11 },
        ],
      },
    };
    expect(plateAfter(plate(), drilled, true)!.holes[0].loop[0]).toMatchObject({ kind: "arc", radius: 3 });
    const stepped: KernelStep = {
      ...drilled,
      body: {
        body: "revolved",
        profile: [
          { r: 5, z: 0 },
          { r: 5, z: 2 },
          { r: 3, z: 2 },
          { r: 3, z: 11 },
        ],
      },
    };
    expect(plateAfter(plate(), stepped, true)).toBeNull();
  });

  it.each<[string, KernelStep, boolean]>([
    ["blind cuts", cut(square(10), [{ x: 0, y: 0 }]), false],
    ["cuts from another plane", cut(square(10), [{ x: 0, y: 0 }], 9), true],
    ["a window over the edge", cut(square(10), [{ x: 47, y: 0 }]), true],
    ["a window that touches the edge", cut(square(10), [{ x: 45, y: 0 }]), true],
    [
      "windows that overlap",
      cut(square(10), [
        { x: 0, y: 0 },
        { x: 9, y: 0 },
      ]),
      true,
    ],
    [
      "windows that touch",
      cut(square(10), [
        { x: 0, y: 0 },
        { x: 10, y: 0 },
      ]),
      true,
    ],
  ])("leaves %s to the booleans", (_what, step, thru) => expect(plateAfter(plate(), step, thru)).toBeNull());

  it("knows the room in a rounded corner and in a disc", () => {
    const rounded = plate(roundedLoop(rectangleCorners(100, 60), 20)!);
    expect(plateAfter(rounded, cut(circle(3), [{ x: 45, y: 25 }]), true)).toBeNull();
    expect(plateAfter(rounded, cut(circle(3), [{ x: 40, y: 20 }]), true)).not.toBeNull();
    const disc = plate(circle(30));
    expect(plateAfter(disc, cut(circle(3), [{ x: 26.9, y: 0 }]), true)).not.toBeNull();
    expect(plateAfter(disc, cut(circle(3), [{ x: 27.1, y: 0 }]), true)).toBeNull();
    expect(plateAfter(disc, cut(square(10), [{ x: 19, y: 19 }]), true)).toBeNull();
  });
});

describe("keys of states", () => {
  it("tell steps, orders and prefixes apart", () => {
    const keys = [
      keyOf(null, { a: 1 }),
      keyOf(null, { a: 2 }),
      keyOf("x", { a: 1 }),
      keyOf(keyOf(null, 1), 2),
      keyOf(keyOf(null, 2), 1),
    ];
    expect(new Set(keys).size).toBe(keys.length);
    expect(keyOf("x", { a: [1, 2.5] })).toBe(keyOf("x", { a: [1, 2.5] }));
  });

  it("do not meet in fifty thousand steps", () => {
    const seen = new Set<string>();
    for (let i = 0; i < 50_000; i++) seen.add(keyOf("p", { r: i / 1000 }));
    expect(seen.size).toBe(50_000);
  });
});
