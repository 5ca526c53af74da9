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
  const { swept, part } = held;
  const top = held.lying.holderBox.max.z;
  const heads = screws.map((screw) => ({ screw, head: oriented([moveLoop(circle(screw.radius), screw.at)]) }));
  const under = heads.filter(({ screw, head }) => isUnder(held, screw, head));
  const passed = heads.flatMap(({ screw, head }) => {
    if (under.some((u) => u.screw === screw)) return [];
    // A footprint is what a cutter leaves; it passes as far beside it as it is wide where it cuts a side.
    const met = swept.find((s) => s.low < top + screw.high && areaOf(combine(s.region, head, "overlap")) > MET);
    return met ? [{ screw, met }] : [];
  });
  const lies = byKey(under, ({ screw }) => screw.rowId).map((all) => ({
    ...metScrews(
      held,
      all.map((u) => u.screw),
    ),
    value: 0,
    text: `the piece lies over ${screwsOf(all.map((u) => u.screw))} of "${part}"`,
    source: "geometry: piece and clamp screw, its head as it is usual (common practice, from memory)",
  }));
  const goesOver = byKey(passed, ({ screw, met }) => `${screw.rowId} ${met.row.row.id}`).map((all) => {
    const { met, screw } = all.reduce((a, b) => (b.met.low < a.met.low ? b : a));
    return {
      ...metScrews(
        held,
        all.map((p) => p.screw),
      ),
      value: met.low - top,
      row: met.row.number,
      rowId: met.row.row.id,
      text: `row ${met.row.number} passes over ${screwsOf(all.map((p) => p.screw))} of "${part}", ${say(c, Math.max(0, top + screw.high - met.low))} below the top of ${all.length === 1 ? "its head" : "their heads"}`,
      source: "geometry: cut and clamp screw, its head as it is usual (common practice, from memory)",
    };
  });
  return [...lies, ...goesOver];
}

const screwsOf = (screws: ClampScrew[]): string =>
  screws.length === 1
    ? `the clamp screw of row ${screws[0].row}`
    : `${screws.length} of the clamp screws of row ${screws[0].row}`;

/** What is the same of every remark on screws of one row: each place, and the row switched off. */
function metScrews(held: Held, screws: ClampScrew[]) {
  const places = screws.map((s) => seenFromPiece(held.lying, onTop(held.lying, s.at)));
  const [first] = screws;
  return {
    rule: "clamp-screw",
    severity: "stop" as const,
    limit: first.high,
    place: places[0],
    places,
    part: held.part,
    fix: takenOff(held, first),
  };
}

/** A list in lists of one key each, in the order in which the keys come. */
function byKey<T>(list: T[], keyOf: (t: T) => string): T[][] {
  const groups = new Map<string, T[]>();
  for (const t of list) groups.set(keyOf(t), [...(groups.get(keyOf(t)) ?? []), t]);
  return [...groups.values()];
}
