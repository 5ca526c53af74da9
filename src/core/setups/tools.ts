import type { BodyStep } from "../engine/kernel";
import { levelsOfBody } from "../engine/rowShape";
import { sectionAt } from "../engine/shadow";
import type { SolvedRow } from "../engine/solve";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { movedFrame } from "../geometry/motion";
import { fromFrame, sideFrame, v2, type Vec2 } from "../geometry/vec";
import { circle, moveLoop, startOf, type Loop } from "../outline";
import { combine, joined, oriented, type Region } from "../outline/boolean";
import { pathPractice } from "../tables";
import { areaOf } from "./grip";
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

/** What rows sweep that are cut from above as the piece lies; others do not come down beside it. */
export function sweptOver(lying: Lying, rows: SolvedRow[]): Swept[] {
  return rows.flatMap((row) => {
    const steps = row.placed?.step ? [row.placed.step, ...(row.placed.more ?? [])] : [];
    return steps.flatMap((step): Swept[] => {
      if (step.op !== "cut") return [];
      const frame = movedFrame(step.frame, lying.motion);
      const loops = frame.normal.z > PARALLEL ? footprint(step) : [];
      if (!loops.length) return [];
      const o = fromFrame(frame, v2(0, 0));
      const x = fromFrame(frame, v2(1, 0));
      const seen = loops.map((l) => moveLoop(l, v2(o.x, o.y), Math.atan2(x.y - o.y, x.x - o.x)));
      const isThrough = row.placed!.thru;
      const deepest = o.z + levelsOfBody(step.body).low;
      // A cutter that comes out below goes no further than it has to.
      const low = isThrough ? Math.max(deepest, lying.box.min.z - pathPractice.breakThrough) : deepest;
      return [{ row, region: seen.reduce<Region>((all, l) => joined(all, oriented([l])), []), low, isThrough }];
    });
  });
}

/** Where a cutter would cut into the holder: area met, how far below its top, and a place; null where it passes. */
export function metBy({ region, low }: Swept, lying: Lying): { area: number; below: number; at: Vec2 } | null {
  const { kernel, holder, holderBox } = lying;
  if (low > holderBox.max.z - CONTACT) return null;
  for (const level of [Math.max(low, holderBox.min.z) + 2 * CONTACT, holderBox.max.z - 2 * CONTACT]) {
    const solid = sectionAt(kernel, holder, TOP, -level);
    if (!solid.ok) continue;
    const met = combine(region, solid.value, "overlap");
    const area = areaOf(met);
    if (area > 1e-3) return { area, below: holderBox.max.z - low, at: startOf(met[0][0]) };
  }
  return null;
}
