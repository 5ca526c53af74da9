import { shadowOfBand } from "../engine/shadow";
import { PARALLEL } from "../geometry/tolerance";
import { fromFrame, type Vec2 } from "../geometry/vec";
import { circle, moveLoop } from "../outline";
import { combine, oriented, type Region } from "../outline/boolean";
import type { FixturePractice } from "../tables";
import type { EvaluatedPart } from "../evaluate/parts";
import { say, type CheckContext, type Found } from "./finding";
import type { Held } from "./fixtureChecks";
import { switchedOff } from "./fixes/holderFixes";
import { areaOf } from "./grip";
import { onTop, seenFromPiece } from "./lying";

/** A screw that clamps a piece on a plate, by its head: in the plate's coordinates, mm. */
export interface ClampScrew {
  row: number;
  rowId: string;
  at: Vec2;
  radius: number;
  high: number;
}

/** Overlaps under this are none, mm². */
const MET = 1e-3;

/** The clamp screws of a plate: its tapped holes that go down from above, each with a head as it is usual. */
export function clampScrews(holder: EvaluatedPart, practice: FixturePractice): ClampScrew[] {
  if (holder.kind !== "plate") return [];
  const { clampHead, clampHigh } = practice;
  return holder.evaluation.solved.rows.flatMap((row): ClampScrew[] => {
    const step = row.placed?.step;
    const thread = row.feature?.is === "hole" ? row.feature.thread : null;
    if (row.state !== "ok" || !thread || step?.op !== "cut" || step.frame.normal.z < PARALLEL) return [];
    return step.places.map((p) => {
      const at = fromFrame(step.frame, p);
      return {
        row: row.number,
        rowId: row.row.id,
        at,
        radius: (clampHead * thread.major) / 2,
        high: clampHigh * thread.major,
      };
    });
  });
}

/** Whether a screw's head stands where the piece is, above the plate. */
function isUnder({ lying }: Held, screw: ClampScrew, head: Region): boolean {
  const top = lying.holderBox.max.z;
  const piece = shadowOfBand(lying.kernel, lying.piece, lying.frame, -(top + screw.high), -top);
  return piece.ok && areaOf(combine(piece.value, head, "overlap")) > MET;
}

const takenOff = ({ holder }: Held, { row, rowId }: ClampScrew) =>
  switchedOff(holder, rowId, `switch the screws of its row ${row} off`);

/** Clamp screws that stand where a cutter of the setup passes below their heads, and those the piece lies over. */
export function clampFindings(c: CheckContext, held: Held, screws: ClampScrew[]): (Found & { rule: string })[] {
  if (!screws.length) return [];
  const { lying, swept, part } = held;
  const top = lying.holderBox.max.z;
  return screws.flatMap((screw): (Found & { rule: string })[] => {
    const head = oriented([moveLoop(circle(screw.radius), screw.at)]);
    // A footprint is what a cutter leaves; it passes as far beside it as it is wide where it cuts a side.
    const met = swept.find((s) => s.low < top + screw.high && areaOf(combine(s.region, head, "overlap")) > MET);
    if (isUnder(held, screw, head))
      return [
        {
          rule: "clamp-screw",
          severity: "stop",
          value: 0,
          limit: screw.high,
          place: seenFromPiece(lying, onTop(lying, screw.at)),
          part,
          fix: takenOff(held, screw),
          text: `the piece lies over the clamp screw of row ${screw.row} of "${part}"`,
          source: "geometry: piece and clamp screw, its head as it is usual (common practice, from memory)",
        },
      ];
    if (!met) return [];
    return [
      {
        rule: "clamp-screw",
        severity: "stop",
        value: met.low - top,
        limit: screw.high,
        place: seenFromPiece(lying, onTop(lying, screw.at)),
        part,
        fix: takenOff(held, screw),
        row: met.row.number,
        rowId: met.row.row.id,
        text: `row ${met.row.number} passes over the clamp screw of row ${screw.row} of "${part}", ${say(c, Math.max(0, top + screw.high - met.low))} below the top of its head`,
        source: "geometry: cut and clamp screw, its head as it is usual (common practice, from memory)",
      },
    ];
  });
}
