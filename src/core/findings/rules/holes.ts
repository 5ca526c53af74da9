import { boxInFrame } from "../../geometry/vec";
import type { Feature } from "../../rows";
import type { SolvedRow } from "../../engine/solve";
import { byFigures, type NumberText } from "../../number";
import { drillsUpTo, inchDrills, metricDrills, type Drill } from "../../tables";
import type { Fix } from "../finding";
import { facesOfRow, type RuleContext } from "../rule";
import { CONTACT } from "../../geometry/tolerance";

type Hole = Extract<Feature, { is: "hole" }>;
/** The hole a row makes; null for any other row, and for one that could not be made. */
export const holeOf = (r: SolvedRow): Hole | null => (r.state === "ok" && r.feature?.is === "hole" ? r.feature : null);
export const isHole = (r: SolvedRow) => holeOf(r) !== null;
export const isTapped = (r: SolvedRow) => Boolean(holeOf(r)?.thread);

/**
 * Drilled diameter of a hole row and how deep the drill's shoulder goes below its plane, measured where the hole
 * goes through.
 */
export function drilled(c: RuleContext, row: SolvedRow): { diameter: number; depth: number; blind: boolean } | null {
  const hole = holeOf(row);
  if (!hole) return null;
  const { diameter, depth } = hole;
  if (depth !== "thru") return { diameter, depth, blind: true };
  const frame = row.planes!.start!;
  const own = facesOfRow(c, row.row.id).filter(
    ({ face }) => face.surface === "cylinder" && Math.abs(face.radius! - diameter / 2) < CONTACT,
  );
  const deepest = Math.max(0, ...own.map(({ face }) => -boxInFrame(frame, face.box).min.z));
  // A hole that starts in the air over a lower place is as deep as from where it meets the material.
  const entry = own.length
    ? Math.max(0, Math.min(...facesOfRow(c, row.row.id).map(({ face }) => -boxInFrame(frame, face.box).max.z)))
    : 0;
  return { diameter, depth: deepest - entry, blind: false };
}

/** Drills a shop has on its shelf, of the job's figures. */
export const drillsOf = (c: RuleContext): readonly Drill[] =>
  drillsUpTo(byFigures(c.job.unit, { in: inchDrills, mm: metricDrills }).rows, c.limits.largestDrill.value);
/** A number of a row set, as a fix. */
export const setNumber = (row: SolvedRow, path: string, text: NumberText, label: string): Fix => ({
  label,
  edits: [{ edit: "setNumber", id: row.row.id, path, text }],
});
