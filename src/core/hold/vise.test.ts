import { numberScope } from "../engine/numbers";
import { emptyJob, type Hold } from "../job";
import { toNumberText } from "../number";
import { v3 } from "../geometry/vec";
import { elevationOf } from "./elevation";
import { placeVise } from "./vise";
import { findingsOf, mm } from "../../../tests/helpers/card";

const scope = numberScope(emptyJob("x", "mm", ""));
const hold: Hold = { fixture: "vise", across: "y", grip: toNumberText("6"), up: "top" };
const piece = { min: v3(-50, -30, 0), max: v3(50, 30, 20) };

describe("a vise with plain jaws", () => {
  it("stands on both sides of the piece and grips it from below", () => {
    const v = placeVise(hold, scope, piece);
    if (!v.ok) throw new Error();
    const [front, back] = v.value.jaws;
    expect(front.max.y).toBe(-30);
    expect(back.min.y).toBe(30);
    expect(v.value).toMatchObject({ jawTop: 6, grip: 6, above: 14, upIsTop: true });
    expect(front.max.z).toBe(6);
  });

  it("turns with the part", () => {
    const v = placeVise({ ...hold, up: "bottom", across: "x" }, scope, piece);
    if (!v.ok) throw new Error();
    expect(v.value.jawTop).toBe(14);
    expect(v.value.jaws[0].max.x).toBe(-50);
    expect(v.value.jaws[0].min.z).toBe(14);
  });

  it("takes jaws of other sizes, and says which number is wrong", () => {
    const wide = placeVise({ ...hold, jawWidth: toNumberText("200"), jawHeight: toNumberText("50") }, scope, piece);
    expect(wide).toMatchObject({ ok: true, value: { jaws: [{ min: { x: -100, z: -44 } }, {}] } });
    expect(placeVise({ ...hold, grip: toNumberText("?") }, scope, piece)).toMatchObject({
      ok: false,
      problems: [{ path: "grip" }],
    });
  });

  it("does not mind a pocket that stays inside, nor a pocket of another side", async () => {
    const base = ["STOCK PLATE 104 X 60 X 30 AT 0,0,-10", "LEAVE BLOCK 100 X 60 X 20", "HOLD VISE GRIP 8 ACROSS Y"];
    expect(await findingsOf(mm(...base, "CUT POCKET 50 X 30 R5 DEEP 18"), "cut-into-jaw")).toEqual([]);
    expect(await findingsOf(mm(...base, "CUT STEP LEFT 10 DEEP 15"), "cut-into-jaw")).toEqual([]);
    expect(await findingsOf(mm(...base, "CUT POCKET 200 X 10 THRU ON RIGHT AT 0,15"), "cut-into-jaw")).toEqual([]);
  });

  it("is met by every move that goes below its top beside the piece, and by a step that has no path", async () => {
    const rows = async (...lines: string[]) =>
      (await findingsOf(mm("LEAVE BLOCK 100 X 60 X 20", ...lines), "cut-into-jaw")).map((f) => [
        f.row,
        Number(f.value.toFixed(6)),
      ]);
    expect(await rows("HOLD VISE GRIP 8 ACROSS Y")).toEqual([[1, 8]]);
    expect(await rows("CUT STEP FRONT 10 DEEP 15", "HOLD VISE GRIP 8 ACROSS Y")).toEqual([
      [1, 8],
      [2, 3],
    ]);
    // A drill beside the piece, in the jaw; one a radius away from it.
    expect(await rows("CUT ⌀6 DEEP 15 FLAT AT 0,31", "HOLD VISE GRIP 8 ACROSS Y")).toEqual([
      [1, 8],
      [2, 3],
    ]);
    expect(await rows("CUT ⌀6 DEEP 15 FLAT AT 0,26.9", "HOLD VISE GRIP 8 ACROSS Y")).toEqual([[1, 8]]);
  });

  it("is refused at no grip, or at the height of the piece", () => {
    for (const grip of ["20", "25", "0.0005", "-3"])
      expect([grip, placeVise({ ...hold, grip: toNumberText(grip) }, scope, piece).ok]).toEqual([grip, false]);
    expect(placeVise({ ...hold, grip: toNumberText("19.9") }, scope, piece)).toMatchObject({
      ok: true,
      value: { above: expect.closeTo(0.1, 9) },
    });
  });
});

describe("the piece seen along the jaws", () => {
  const piece = { min: v3(-30, -20, 0), max: v3(30, 20, 25) };
  const part = { min: v3(-29, -19, 1), max: v3(29, 19, 24) };
  const held = (up: "top" | "bottom", across: "x" | "y") => {
    const v = placeVise({ fixture: "vise", across, up, grip: toNumberText("6") }, scope, piece);
    if (!v.ok) throw new Error(v.problems[0].message);
    return elevationOf(v.value, piece, part);
  };
  it("stands in them by the grip, whichever side looks up", () => {
    for (const up of ["top", "bottom"] as const) {
      const e = held(up, "y");
      expect(e.jawTop - e.piece.y).toBeCloseTo(6, 12);
      expect([e.piece.width, e.piece.height]).toEqual([40, 25]);
      // The jaws end where the piece begins, and their upper edges are level.
      expect(e.jaws.map((j) => j.y + j.height)).toEqual([e.jawTop, e.jawTop]);
      expect(e.jaws[0].x + e.jaws[0].width).toBe(e.piece.x);
      expect(e.jaws[1].x).toBe(e.piece.x + e.piece.width);
      expect(e.part!.y - e.piece.y).toBeCloseTo(1, 12);
    }
    expect(held("top", "x").piece.width).toBe(60);
  });
});
