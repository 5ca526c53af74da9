import { keyOf } from "../base/key";
import type { BodyStep, SolidKernel } from "../engine/kernel";
import { valueOf } from "../engine/numbers";
import { carried, movedFrame } from "../geometry/motion";
import { COINCIDENT } from "../geometry/tolerance";
import { add, scale, sideFrame, toFrame, v2, v3, type Box, type Frame, type Vec3 } from "../geometry/vec";
import { rectangleBetween } from "../outline";
import { viseJaw } from "../tables";
import type { NumberScope } from "../number";
import type { EvaluatedSetup } from "./checking";
import type { StandingSetup } from "./setup";

/** A solid of a setup: its state, its name, and where its own X Y Z come to lie when the piece is on its datum. */
export interface Standing {
  key: string;
  name: string;
  is: "piece" | "holder" | "beside";
  place: Frame;
  /** The way it goes when the jaws are opened, in the setup's coordinates; none where it stays. */
  opens: Vec3 | null;
}

/** How the axes of one frame lie in another: what carries a solid over. */
function placeIn(to: Frame, own: Frame): Frame {
  const origin = toFrame(to, own.origin);
  const turned = (d: Vec3): Vec3 => {
    const p = toFrame(to, add(to.origin, d));
    return v3(p.x, p.y, p.z);
  };
  return { origin, x: turned(own.x), y: turned(own.y), normal: turned(own.normal) };
}
const WORLD = sideFrame("top", 0);

/** When a setup is looked at: as it starts, or when its rows are cut. */
export type Moment = "start" | "end";

/** The piece as a setup starts from it or leaves it, and what holds it, as they lie together on the datum. */
export function assemblyOf(
  { standing, lying, setup, hold }: EvaluatedSetup,
  kernel: SolidKernel,
  scope: NumberScope,
  name: string,
  moment: Moment = "start",
): Standing[] {
  if (!standing) return [];
  const { frame, piece } = standing;
  const key = moment === "start" ? piece.before : piece.after;
  const work: Standing = { key, name, is: "piece", place: placeIn(frame, WORLD), opens: null };
  if (setup.hold?.fixture === "vise") return [work, ...plainJaws(standing, setup.hold, kernel, scope)];
  const across = setup.hold && "across" in setup.hold ? setup.hold.across : null;
  const holders = lying.flatMap((l): Standing[] => {
    const place = placeIn(frame, l.frame);
    const part = hold?.part ?? "";
    if (!across) return [{ key: l.holder, name: part, is: "holder", place, opens: null }];
    return jawsApart(kernel, l.holder).map(({ key, side }) => ({
      key,
      name: `${part}, ${side > 0 ? "fixed" : "moving"} jaw`,
      is: "holder" as const,
      place,
      opens: scale(place.y, side),
    }));
  });
  // A holder of several stations is one solid: it is drawn as it lies for the first.
  return [work, ...holders.filter((h, i) => holders.findIndex((o) => o.key === h.key) === i)];
}

/** The pieces at the other stations of a plate, as they lie while a setup is cut: for pictures. */
export function besideOf({ standing, lying, beside }: EvaluatedSetup, name: string, moment: Moment): Standing[] {
  const [here] = lying;
  if (!standing || !here) return [];
  const { before, after } = standing.piece;
  return beside.map((l) => {
    const inHolder = movedFrame(WORLD, l.motion);
    const place = placeIn(standing.frame, carried(inHolder, WORLD, here.frame));
    const key = l.piece === before && moment === "end" ? after : l.piece;
    return { key, name: `${name}, at another station`, is: "beside", place, opens: null };
  });
}

function put(kernel: SolidKernel, from: string | null, step: BodyStep): string | null {
  const key = keyOf(from, step);
  return kernel.apply(key, from, step).ok ? key : null;
}

const boxStep = (b: Box): BodyStep => ({
  op: "leave",
  row: "holder",
  frame: sideFrame("top", b.min.z),
  body: {
    body: "prism",
    outline: { outer: rectangleBetween(v2(b.min.x, b.min.y), v2(b.max.x, b.max.y)), holes: [] },
    from: 0,
    to: -(b.max.z - b.min.z),
  },
  places: [v2(0, 0)],
});

/** A pair of jaws taken apart at its middle: the one at the back, which is the fixed one, and the one at the front. */
export function jawsApart(kernel: SolidKernel, pair: string): { key: string; side: 1 | -1 }[] {
  const { box } = kernel.measure(pair);
  const grown = {
    min: v3(box.min.x - 1, box.min.y - 1, box.min.z - 1),
    max: v3(box.max.x + 1, box.max.y + 1, box.max.z + 1),
  };
  const middle = (box.min.y + box.max.y) / 2;
  const half = (side: 1 | -1): Box =>
    side > 0 ? { ...grown, max: { ...grown.max, y: middle } } : { ...grown, min: { ...grown.min, y: middle } };
  return ([1, -1] as const).flatMap((side) => {
    const other = put(kernel, null, boxStep(half(side)));
    if (!other) return [];
    const key = keyOf(pair, { less: other });
    const made = kernel.without(key, pair, other);
    return made.ok && made.value.volume > COINCIDENT ? [{ key, side }] : [];
  });
}

/** Plain jaws on both sides of a piece, as they are usual; in the setup's own coordinates. */
function plainJaws(
  { box }: StandingSetup,
  hold: Extract<NonNullable<EvaluatedSetup["setup"]["hold"]>, { fixture: "vise" }>,
  kernel: SolidKernel,
  scope: NumberScope,
): Standing[] {
  const grip = valueOf(hold.grip, "length", scope);
  if (!grip.ok) return [];
  const length = (t: typeof hold.jawWidth, usual: number) => {
    const r = t === undefined ? null : valueOf(t, "length", scope);
    return r?.ok ? r.value.value : usual;
  };
  const [wide, high] = [length(hold.jawWidth, viseJaw.width), length(hold.jawHeight, viseJaw.height)];
  const top = box.min.z + grip.value.value;
  const along = hold.across === "y" ? "x" : "y";
  const middle = (box.min[along] + box.max[along]) / 2;
  return ([1, -1] as const).flatMap((side) => {
    const near = side > 0 ? box.max[hold.across] : box.min[hold.across] - viseJaw.thickness;
    const at = (across: number, length: number, z: number): Vec3 =>
      hold.across === "y" ? v3(length, across, z) : v3(across, length, z);
    const jaw: Box = {
      min: at(near, middle - wide / 2, top - high),
      max: at(near + viseJaw.thickness, middle + wide / 2, top),
    };
    const key = put(kernel, null, boxStep(jaw));
    const opens = scale(hold.across === "y" ? v3(0, 1, 0) : v3(1, 0, 0), side);
    const name = `${side > 0 ? "fixed" : "moving"} jaw`;
    return key ? [{ key, name, is: "holder" as const, place: WORLD, opens }] : [];
  });
}
