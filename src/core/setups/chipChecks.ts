import { levelsBetween, sectionAt } from "../engine/shadow";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { fromFrame, sideFrame, v2 } from "../geometry/vec";
import { startOf } from "../outline";
import { combine, insideRegion } from "../outline/boolean";
import type { Fix } from "../findings/finding";
import { say, type CheckContext, type Found } from "./finding";
import type { Held } from "./fixtureChecks";
import { heightOf, resized } from "./fixes/growing";
import { areaOf } from "./grip";
import { onTop, seenFromPiece } from "./lying";
import type { Swept } from "./tools";

const TOP = sideFrame("top", 0);
/** Overlaps under this are none, mm². */
const MET = 1e-3;

/**
 * How far below a cutter that has come through the piece the holder is open; null where it is wide enough for chips, or
 * open below.
 */
function roomBelow({ lying }: Held, { region, low }: Swept, wanted: number): number | null {
  const { kernel, holder, holderBox } = lying;
  if (low <= holderBox.min.z + CONTACT || low >= holderBox.max.z - CONTACT) return null;
  const bottom = Math.max(low - wanted, holderBox.min.z);
  const levels = levelsBetween(kernel, holder, TOP, -low, -bottom);
  for (let i = 0; i + 1 < levels.length; i++) {
    const solid = sectionAt(kernel, holder, TOP, (levels[i] + levels[i + 1]) / 2);
    if (solid.ok && areaOf(combine(region, solid.value, "overlap")) > MET) return low + levels[i];
  }
  return null;
}

/** Cutters that come through the piece over a hole that has no room for what they cut off. */
export function chipFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  const { lying } = held;
  const { chipRoom } = c.limits;
  return held.swept.flatMap((swept): (Found & { rule: string })[] => {
    const room = swept.isThrough && chipRoom.value > 0 ? roomBelow(held, swept, chipRoom.value) : null;
    if (room === null) return [];
    const { row, region } = swept;
    return [
      {
        rule: "chip-room",
        severity: "caution",
        value: room,
        limit: chipRoom.value,
        row: row.number,
        rowId: row.row.id,
        place: seenFromPiece(lying, onTop(lying, startOf(region[0][0]))),
        part: held.part,
        text: `${say(c, room)} of room for chips under row ${row.number}, where it comes through into "${held.part}"`,
        source: chipRoom.source,
        fix: deeper(held, swept, chipRoom.value - room),
      },
    ];
  });
}

/** The hole under a cutter made deeper, by the number that says how deep it is. */
function deeper({ holder }: Held, { region }: Swept, by: number): Fix | null {
  const under = holder.evaluation.solved.rows.find((r) => {
    const step = r.placed?.step;
    if (r.feature?.is !== "hole" || step?.op !== "cut" || step.frame.normal.z < PARALLEL) return false;
    return step.places.some((p) => {
      const at = fromFrame(step.frame, p);
      return insideRegion(region, v2(at.x, at.y));
    });
  });
  const edit = under && resized(holder, under.row.id, heightOf, by);
  const label = "make the hole deeper";
  return edit ? { label, edits: [{ edit: "ofPart", part: holder.id, edits: [edit] }] } : null;
}
