import { ok, type Result } from "../base/result";
import type { BodyStep } from "../engine/kernel";
import { boxOfState } from "../engine/piece";
import { levelsOfBody } from "../engine/rowShape";
import { levelsBetween, sectionAt, shadowOfBand } from "../engine/shadow";
import type { SolvedRow } from "../engine/solve";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { movedFrame } from "../geometry/motion";
import { fromFrame, sideFrame, v2, type Vec2 } from "../geometry/vec";
import { circle, moveLoop, startOf, type Loop } from "../outline";
import { combine, joined, offsetRegion, oriented, type Region } from "../outline/boolean";
import { flippedLoop } from "../outline/flip";
import { rectanglesIn, type Rectangle } from "../outline/rectangles";
import { pathPractice } from "../tables";
import { areaOf } from "./grip";
import { onlyOuter } from "./corners";
import type { Lying } from "./lying";

/** What a row's cutter sweeps over a holder, seen from above, and how deep it goes; in the holder's coordinates. */
export interface Swept {
  row: SolvedRow;
  region: Region;
  low: number;
  /** It comes out below the piece. */
  isThrough: boolean;
}

const TOP = sideFrame("top", 0);

/** The outlines of a cut's tools in their own plane, at every place. */
function footprint(step: BodyStep): Loop[] {
  const { body, places } = step;
  const own: Loop[] =
    body.body === "prism"
      ? [body.outline, ...(body.more ?? [])].map((o) => o.outer)
      : body.body === "revolved"
        ? [circle(Math.max(...body.profile.map((p) => p.r)))]
        : [];
  return places.flatMap((p) => own.map((l) => moveLoop(l, p)));
}

/**
 * What is swept where the stock round the part is milled off: a band as wide as a cutter round all that the part
 * covers, down to where anything still stands round it.
 */
function sweptRound(lying: Lying, row: SolvedRow, part: string, cutter: number): Swept[] {
  const { kernel, frame } = lying;
  const { min, max } = boxOfState(kernel, part, frame);
  const shadow = shadowOfBand(kernel, part, frame, -max.z, -min.z);
  if (!shadow.ok) return [];
  const inside = onlyOuter(shadow.value);
  const low = lowestOutside(lying, offsetRegion(inside, SLIVER), min.z);
  if (low === null) return [];
  const band = combine(offsetRegion(inside, cutter), inside, "cutout");
  return [{ row, region: band, low, isThrough: false }];
}

/** The lowest height over a level at which a piece stands out of a region; null where it does nowhere. */
function lowestOutside({ kernel, piece, frame, box }: Lying, inside: Region, level: number): number | null {
  const place = rectanglesIn(inside);
  const isOut = (seen: Rectangle) => place(seen) !== "in";
  const depths = levelsBetween(kernel, piece, frame, -box.max.z, -Math.max(level, box.min.z), isOut);
  for (let i = depths.length - 1; i > 0; i--) {
    const section = sectionAt(kernel, piece, frame, (depths[i] + depths[i - 1]) / 2);
    if (section.ok && areaOf(combine(section.value, inside, "cutout")) > MET) return -depths[i];
  }
  return null;
}
/** Less than this round the part is what the shadow of slanted walls leaves out, not stock, mm. */
const SLIVER = 0.02;
/** Areas under this are what arithmetic leaves, mm². */
const MET = 1e-3;

/**
 * What a cut takes, and where it is open to a side of the piece also what the cutter sweeps beside it: a cutter is as
 * wide as it is, however narrow the cut.
 */
function withOverrun({ kernel, piece, frame, box }: Lying, region: Region, cutter: number): Region {
  const shadow = shadowOfBand(kernel, piece, frame, -box.max.z, -box.min.z);
  if (!shadow.ok) return region;
  const covered = onlyOuter(shadow.value);
  const isOpen = areaOf(combine(offsetRegion(region, SLIVER), covered, "cutout")) > MET;
  return isOpen ? joined(region, combine(offsetRegion(region, cutter), covered, "cutout")) : region;
}

/** What a cut takes, seen from above as the piece lies; nothing where it does not come down from above or below. */
function seenFromAbove(lying: Lying, step: BodyStep): Loop[] {
  const frame = movedFrame(step.frame, lying.motion);
  if (Math.abs(frame.normal.z) < PARALLEL) return [];
  const o = fromFrame(frame, v2(0, 0));
  const x = fromFrame(frame, v2(1, 0));
  const turned = Math.atan2(x.y - o.y, x.x - o.x);
  const own = footprint(step);
  // Seen from behind it is the mirror image.
  const loops = frame.normal.z > 0 ? own : own.map(flippedLoop);
  return loops.map((l) => moveLoop(l, v2(o.x, o.y), frame.normal.z > 0 ? turned : turned - Math.PI));
}

const stepsOf = (row: SolvedRow): BodyStep[] =>
  (row.placed?.step ? [row.placed.step, ...(row.placed.more ?? [])] : []).filter((s): s is BodyStep => s.op === "cut");

/** Where rows go through the piece, upright as it lies, whatever setup cuts them: what a holder may be open under. */
export const throughSeen = (lying: Lying, rows: SolvedRow[]): Region =>
  rows
    .filter((row) => row.state === "ok" && row.placed?.thru)
    .flatMap((row) => stepsOf(row).flatMap((step) => seenFromAbove(lying, step)))
    .reduce<Region>((all, l) => joined(all, oriented([l])), []);

/** What rows sweep that are cut from above as the piece lies; others do not come down beside it. */
export function sweptOver(lying: Lying, rows: SolvedRow[], part: string, cutter: number): Swept[] {
  return rows.flatMap((row) => {
    if (row.placed?.step?.op === "leave") return sweptRound(lying, row, part, cutter);
    return stepsOf(row).flatMap((step): Swept[] => {
      const frame = movedFrame(step.frame, lying.motion);
      const isThrough = row.placed!.thru;
      // What goes through is cut from either side, whichever it is dimensioned from.
      const comesDown = frame.normal.z > PARALLEL || isThrough;
      const seen = comesDown ? seenFromAbove(lying, step) : [];
      if (!seen.length) return [];
      const deepest = frame.normal.z > PARALLEL ? frame.origin.z + levelsOfBody(step.body).low : -Infinity;
      // A cutter that comes out below goes no further than it has to.
      const low = isThrough ? Math.max(deepest, lying.box.min.z - pathPractice.breakThrough) : deepest;
      const region = seen.reduce<Region>((all, l) => joined(all, oriented([l])), []);
      return [{ row, region: withOverrun(lying, region, cutter), low, isThrough }];
    });
  });
}

/** What a cutter meets of a holder: area, how far below its top, and a place. */
interface Met {
  area: number;
  below: number;
  at: Vec2;
}

/** Where a cutter would cut into the holder; null where it passes, a reason where that cannot be told. */
export function metBy({ region, low }: Swept, lying: Lying): Result<Met | null> {
  const { kernel, holder, holderBox } = lying;
  if (low > holderBox.max.z - SLIVER) return ok(null);
  let untold: Result<Met | null> | null = null;
  for (const level of [Math.max(low, holderBox.min.z) + 2 * CONTACT, holderBox.max.z - 2 * CONTACT]) {
    const solid = sectionAt(kernel, holder, TOP, -level);
    if (!solid.ok) {
      untold = solid;
      continue;
    }
    const met = combine(region, solid.value, "overlap");
    const area = areaOf(met);
    if (area > MET) return ok({ area, below: holderBox.max.z - low, at: startOf(met[0][0]) });
  }
  return untold ?? ok(null);
}
