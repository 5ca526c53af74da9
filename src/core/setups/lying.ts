import { problems } from "./problems";
import { levelsBetween, sectionAt, shadowOfBand } from "../engine/shadow";
import { boxOfState } from "../engine/piece";
import type { SolidKernel } from "../engine/kernel";
import { stationOf } from "../engine/stations";
import type { EvaluatedPart } from "../evaluate/parts";
import { fail, ok, type Result } from "../base/result";
import { CONTACT } from "../geometry/tolerance";
import type { Motion } from "../geometry/motion";
import { dot, scale, sideFrame, v2, v3, type Box, type Frame, type Vec2, type Vec3 } from "../geometry/vec";
import type { Placement } from "../job/schema";
import type { NumberScope } from "../number";
import { startOf } from "../outline";
import { combine, offsetRegion, type Region } from "../outline/boolean";
import { rectanglesIn, type Rectangle } from "../outline/rectangles";
import { areaOf } from "./grip";

/** A piece as it lies in a part that holds it: both as states, with the frame of the holder seen from the piece. */
export interface Lying {
  kernel: SolidKernel;
  piece: string;
  holder: string;
  placement: Placement;
  motion: Motion;
  /** The holder's own X Y Z, in the piece's coordinates. */
  frame: Frame;
  /** The piece in the holder's coordinates. */
  box: Box;
  holderBox: Box;
}

const TOP = sideFrame("top", 0);

/** Lays a piece where its station says. */
export function lay(
  kernel: SolidKernel,
  placement: Placement,
  piece: string,
  holder: string,
  scope: NumberScope,
): Result<Lying> {
  const motion = stationOf(placement, scope, (d) => kernel.reach(piece, d));
  if (!motion.ok) return motion;
  const frame = seenFrom(motion.value);
  return ok({
    kernel,
    piece,
    holder,
    placement,
    motion: motion.value,
    frame,
    box: boxOfState(kernel, piece, frame),
    holderBox: boxOfState(kernel, holder, TOP),
  });
}

/** The frame that a motion turns into the holder's own. */
function seenFrom(m: Motion): Frame {
  const rows = [v3(1, 0, 0), v3(0, 1, 0), v3(0, 0, 1)].map((d) => m.direction(d));
  // A motion's directions turned back: the transposed of what it does to the axes.
  const back = (d: Vec3): Vec3 => v3(dot(d, rows[0]), dot(d, rows[1]), dot(d, rows[2]));
  const origin = scale(back(m.point(v3(0, 0, 0))), -1);
  return { origin, x: back(v3(1, 0, 0)), y: back(v3(0, 1, 0)), normal: back(v3(0, 0, 1)) };
}

/** The holder a setup names, as a part that computes. */
export function holderNamed(parts: EvaluatedPart[], name: string): Result<{ part: EvaluatedPart; key: string }> {
  const part = parts.slice(1).find((p) => p.name.toLowerCase() === name.toLowerCase());
  if (!part) return fail(problems.noPart(name));
  const key = part.evaluation.solved.finalKey;
  return key === null ? fail(problems.partNotMade(name)) : ok({ part, key });
}

/** What is farther from a holder than this has no part in how tightly the two fit, mm. */
const NEAR = 1;

/** Whether a face of the piece, by where it lies, can come near anything of the holder between two depths. */
function nearHolder(kernel: SolidKernel, holder: string, from: number, to: number): (seen: Rectangle) => boolean {
  const cover = shadowOfBand(kernel, holder, TOP, from, to);
  if (!cover.ok) return () => true;
  const place = rectanglesIn(cover.value);
  return ({ min, max }) =>
    place({ min: v2(min.x - NEAR, min.y - NEAR), max: v2(max.x + NEAR, max.y + NEAR) }) !== "out";
}

/** Heights of the holder at which something of it or of the piece begins or ends, from the piece's underside up. */
function heights({ kernel, piece, holder, frame, box, holderBox }: Lying): number[] {
  const [low, high] = [Math.max(box.min.z, holderBox.min.z), Math.min(box.max.z, holderBox.max.z)];
  if (high - low < CONTACT) return [];
  const ofPiece = levelsBetween(kernel, piece, frame, -high, -low, nearHolder(kernel, holder, -high, -low));
  const ofHolder = levelsBetween(kernel, holder, TOP, -high, -low);
  const all = [...ofPiece, ...ofHolder].map((depth) => -depth).sort((a, b) => a - b);
  return all.filter((h, i) => i === 0 || h - all[i - 1] > 100 * CONTACT);
}

/** How a piece and what holds it fit. Areas mm², lengths mm. */
export interface Fit {
  /** What of the piece would meet the holder on its way in from above, and where. */
  meets: number;
  at: Vec2 | null;
  /** The least room between them, on all sides. */
  room: number;
  /** What the piece covers below the holder's top, and what is open there. */
  shadow: Region;
  mouth: Region;
}

/**
 * Whether a piece goes in from above: at every height the holder is open where anything of the piece below that height
 * has to pass. Sections next to every level, so that upright walls are exact.
 */
export function fitOf(lying: Lying): Result<Fit> {
  const { kernel, piece, holder, frame, box } = lying;
  const levels = heights(lying);
  if (levels.length < 2) return ok({ meets: 0, at: null, room: Infinity, shadow: [], mouth: [] });
  const leaning = hasLeaningWalls(kernel, holder);
  let meets = 0;
  let at: Vec2 | null = null;
  let room = Infinity;
  let last: { shadow: Region; solid: Region } = { shadow: [], solid: [] };
  for (let i = 0; i + 1 < levels.length; i++) {
    const shadow = shadowOfBand(kernel, piece, frame, -levels[i + 1], -box.min.z);
    if (!shadow.ok) return shadow;
    for (const height of leaning ? withinBand(levels[i], levels[i + 1]) : [(levels[i] + levels[i + 1]) / 2]) {
      const solid = sectionAt(kernel, holder, TOP, -height);
      if (!solid.ok) return solid;
      const met = combine(shadow.value, solid.value, "overlap");
      const area = areaOf(met);
      if (area > meets + CONTACT) {
        meets = area;
        at = startOf(met[0][0]);
      }
      room = Math.min(room, roomBetween(shadow.value, solid.value, room));
      last = { shadow: shadow.value, solid: solid.value };
    }
  }
  return ok({ meets: meets > AREA ? meets : 0, at, room, shadow: last.shadow, mouth: last.solid });
}
/** Heights of a band that tell all of its walls where they lean: just within its ends, and its middle. */
const withinBand = (low: number, high: number): number[] => {
  const inset = Math.min(100 * CONTACT, (high - low) / 4);
  return [low + inset, (low + high) / 2, high - inset];
};
/** Whether anything of a holder is wider at one height than at the next: what narrows is as narrow as its lower end. */
const hasLeaningWalls = (kernel: SolidKernel, holder: string): boolean =>
  kernel.faces(holder).some(({ surface, normal, axis }) => {
    if (surface === "plane") return Math.abs(normal.z) > LEAN && Math.abs(normal.z) < 1 - LEAN;
    return surface === "cylinder" ? Math.abs(axis!.direction.z) < 1 - LEAN : true;
  });
const LEAN = 1e-6;

/** Overlaps under this are what arithmetic leaves of walls that touch, mm². */
const AREA = 1e-4;
const FINEST = 1e-3;
/** Room over this is not worth a figure, mm. */
const WIDE = 5;

/** The least distance between two regions, by growing one until it meets the other; to a thousandth of a millimetre. */
function roomBetween(a: Region, b: Region, most: number): number {
  const meets = (by: number) => areaOf(combine(by > 0 ? offsetRegion(a, by) : a, b, "overlap")) > AREA;
  let [low, high] = [0, Math.min(WIDE, most)];
  if (meets(0)) return 0;
  if (!meets(high)) return high;
  while (high - low > FINEST) {
    const middle = (low + high) / 2;
    if (meets(middle)) high = middle;
    else low = middle;
  }
  return low;
}

/** A point of the holder's top. */
export const onTop = (lying: Lying, p: Vec2 = v2(0, 0)): Vec3 => v3(p.x, p.y, lying.holderBox.max.z);

/** A point of the holder in the piece's own coordinates: where the stage points. */
export const seenFromPiece = ({ frame }: Pick<Lying, "frame">, q: Vec3): Vec3 => {
  const along = (k: "x" | "y" | "z") => frame.origin[k] + frame.x[k] * q.x + frame.y[k] * q.y + frame.normal[k] * q.z;
  return { x: along("x"), y: along("y"), z: along("z") };
};
