import { shadowOfBand } from "../../engine/shadow";
import { toNumberText } from "../../number";
import { combine, offsetRegion } from "../../outline/boolean";
import { cribFor } from "../../tables";
import { areaOf } from "../grip";
import { lay } from "../lying";
import { practiceOf, type Work } from "../setup";
import { sweptOver } from "../tools";
import type { Base } from "./common";

/** What is taken away round a nest so that a cutter passes beside the piece. Lengths mm. */
export interface CutterRoom {
  /** Down from the plate's top. */
  depth: number;
  /** Out from what the piece covers. */
  wide: number;
}

/** Less than this over a nest's edge is no cut beside the piece, mm². */
const BESIDE = 0.05;

/**
 * How low a setup's rows go beside the piece, over its underside: the lowest of those that reach out of a nest of that
 * depth. Infinity where none does.
 */
export function lowestBeside(base: Base, work: Work, grip: number, clearance: number, cutter: number): number {
  const { kernel, part, scope } = work;
  const zero = toNumberText("0");
  const placement = { part: part.name, at: { x: zero, y: zero, z: zero }, up: base.up, middle: true as const };
  // Nothing of a holder is asked: the piece stands for it. Its underside lies at height 0.
  const lying = lay(kernel, placement, base.piece, base.piece, scope);
  if (!lying.ok) return Infinity;
  const nest = shadowOfBand(kernel, base.piece, lying.value.frame, -grip, 0);
  if (!nest.ok) return Infinity;
  const inside = offsetRegion(nest.value, clearance);
  const rows = base.standing.piece.rows.filter((r) => r.state === "ok");
  const beside = sweptOver(lying.value, rows, work.finalKey, cutter).filter(
    (s) => !s.isThrough && areaOf(combine(s.region, inside, "cutout")) > BESIDE,
  );
  return Math.min(...beside.map((s) => s.low));
}

/**
 * Where a setup's rows machine sides of the piece lower than the plate's top: room for the largest cutter all round the
 * nest, and a little below the lowest cut. Null where nothing is cut there, or so deep that no nest would be left.
 */
export function cutterRoom(base: Base, work: Work, grip: number, clearance: number): CutterRoom | null {
  const { job } = work.part;
  const cutter = Math.max(...(job.crib ?? cribFor(job.unit)).map((c) => c.diameter));
  const low = lowestBeside(base, work, grip, clearance, cutter);
  if (!(low < grip)) return null;
  const { nestLeast, roomBelow } = practiceOf(work);
  const depth = grip - low + roomBelow;
  return grip - depth >= nestLeast ? { depth, wide: clearance + cutter } : null;
}
