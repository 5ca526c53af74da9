import { shadowOfBand } from "../engine/shadow";
import { PARALLEL } from "../geometry/tolerance";
import { fromFrame, type Vec2 } from "../geometry/vec";
import { circle, moveLoop } from "../outline";
import { combine, oriented, type Region } from "../outline/boolean";
import { fixturePractice, type Cutter } from "../tables";
import type { EvaluatedPart } from "../evaluate/parts";
import { type LengthUnit, byFigures } from "../number";
import { say, type CheckContext, type Found } from "./finding";
import type { Held } from "./fixtureChecks";
import { areaOf } from "./grip";
import { holderNamed } from "./lying";
import { sweptOver } from "./tools";

/** A screw that clamps a piece on a plate, by its head: in the plate's coordinates, mm. */
export interface ClampScrew {
  row: number;
  at: Vec2;
  radius: number;
  high: number;
}

/** Overlaps under this are none, mm². */
const MET = 1e-3;

/** The clamp screws of a plate: its tapped holes that go down from above, each with a head as it is usual. */
export function clampScrews(parts: EvaluatedPart[], name: string, unit: LengthUnit): ClampScrew[] {
  const holder = holderNamed(parts, name);
  if (!holder.ok || holder.value.part.kind !== "plate") return [];
  const { clampHead, clampHigh } = byFigures(unit, fixturePractice);
  return holder.value.part.evaluation.solved.rows.flatMap((row): ClampScrew[] => {
    const step = row.placed?.step;
    const thread = row.feature?.is === "hole" ? row.feature.thread : null;
    if (row.state !== "ok" || !thread || step?.op !== "cut" || step.frame.normal.z < PARALLEL) return [];
    return step.places.map((p) => {
      const at = fromFrame(step.frame, p);
      return { row: row.number, at, radius: (clampHead * thread.major) / 2, high: clampHigh * thread.major };
    });
  });
}

/** Whether a screw's head stands where the piece is, above the plate. */
function isUnder({ lying }: Held, screw: ClampScrew, head: Region): boolean {
  const top = lying.holderBox.max.z;
  const piece = shadowOfBand(lying.kernel, lying.piece, lying.frame, -(top + screw.high), -top);
  return piece.ok && areaOf(combine(piece.value, head, "overlap")) > MET;
}

const smallest = (crib: readonly Cutter[]) => Math.min(...crib.map((t) => t.diameter));

/** Clamp screws that stand where a cutter of the setup passes below their heads, and those the piece lies over. */
export function clampFindings(c: CheckContext, held: Held, screws: ClampScrew[]): (Found & { rule: string })[] {
  if (!screws.length) return [];
  const { lying, rows, finished, crib, part } = held;
  const top = lying.holderBox.max.z;
  const swept = sweptOver(lying, rows, finished, smallest(crib));
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
          place: null,
          part,
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
        place: null,
        part,
        row: met.row.number,
        rowId: met.row.row.id,
        text: `row ${met.row.number} passes over the clamp screw of row ${screw.row} of "${part}", ${say(c, Math.max(0, top + screw.high - met.low))} below the top of its head`,
        source: "geometry: cut and clamp screw, its head as it is usual (common practice, from memory)",
      },
    ];
  });
}
