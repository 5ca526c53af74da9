import type { BodyStep } from "../engine/kernel";
import { levelsBetween, sectionAt } from "../engine/shadow";
import type { SolvedRow } from "../engine/solve";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { boxInFrame, fromFrame, type Box, type Vec2, type Vec3 } from "../geometry/vec";
import { circle, moveLoop } from "../outline";
import { combine, oriented, type Region } from "../outline/boolean";
import type { Rectangle } from "../outline/rectangles";
import type { Fix } from "../findings/finding";
import { say, type CheckContext, type Found } from "./finding";
import type { Held } from "./fixtureChecks";
import { placeAlongY, resized } from "./fixes/growing";
import { switchedOff } from "./fixes/holderFixes";
import { areaOf } from "./grip";
import { seenFromPiece } from "./lying";

/** Overlaps under this are none, mm². */
const MET = 1e-3;
/** No more places of one row are looked at than this: what holds has a handful of screws. */
const MOST_LOOKED = 40;

/** A hole of what holds that no cut of the piece drops through: for a screw or a dowel. */
interface ScrewHole {
  row: SolvedRow;
  step: BodyStep;
}

/** The holes of what holds that are for screws and dowels: those under nothing that goes through the piece. */
function screwHoles(held: Held): ScrewHole[] {
  const isDrop = (step: BodyStep): boolean =>
    Math.abs(step.frame.normal.z) > PARALLEL &&
    step.places.some((p) => {
      const at = fromFrame(step.frame, p);
      const hole = oriented([moveLoop(circle(radiusAt(step, 0)), { x: at.x, y: at.y })]);
      return areaOf(combine(held.through, hole, "overlap")) > MET;
    });
  return held.holder.evaluation.solved.rows.flatMap((row): ScrewHole[] => {
    const step = row.placed?.step;
    if (row.state !== "ok" || row.feature?.is !== "hole" || step?.op !== "cut" || step.body.body !== "revolved")
      return [];
    return isDrop(step) ? [] : [{ row, step }];
  });
}

/** The radius of a drilled body so deep below its plane. */
function radiusAt({ body }: BodyStep, depth: number): number {
  if (body.body !== "revolved") return 0;
  const { profile } = body;
  const next = profile.findIndex((p) => p.z > depth + CONTACT);
  if (next <= 0) return profile[next < 0 ? profile.length - 1 : 0].r;
  const [a, b] = [profile[next - 1], profile[next]];
  return a.r + ((b.r - a.r) * (depth - a.z)) / (b.z - a.z);
}

/** How deep a hole's wall goes: to where its drill's point begins, and no farther than the part. */
function wallEnd({ step }: ScrewHole, box: Box): number {
  const { body } = step;
  const far = -boxInFrame(step.frame, box).min.z;
  if (body.body !== "revolved") return 0;
  const { profile } = body;
  const last = profile.length - 1;
  const hasPoint = profile[last].r < CONTACT && last > 0;
  return Math.min(far, profile[hasPoint ? last - 1 : last].z);
}

interface Opened {
  /** How many of the row's holes have no whole wall. */
  count: number;
  place: Vec3;
}

/** Holes of a row that another cut of the holder opens, or comes so near that less than this wall is left. */
function openedBy(held: Held, hole: ScrewHole, wall: number): Opened | null {
  const { kernel, holder, holderBox } = held.lying;
  const { step } = hole;
  const { frame } = step;
  const places = step.places.slice(0, MOST_LOOKED);
  const widest = Math.max(radiusAt(step, 0), radiusAt(step, wallEnd(hole, holderBox)));
  const isNear = ({ min, max }: Rectangle) =>
    places.some(
      (p) =>
        p.x + widest + wall > min.x &&
        p.x - widest - wall < max.x &&
        p.y + widest + wall > min.y &&
        p.y - widest - wall < max.y,
    );
  const levels = levelsBetween(kernel, holder, frame, 0, wallEnd(hole, holderBox), isNear);
  const opened = new Set<Vec2>();
  for (let i = 0; i + 1 < levels.length; i++) {
    const depth = (levels[i] + levels[i + 1]) / 2;
    const solid = sectionAt(kernel, holder, frame, depth);
    if (!solid.ok) continue;
    for (const p of places) if (!hasWhole(solid.value, p, radiusAt(step, depth), wall)) opened.add(p);
  }
  const [first] = opened;
  return first ? { count: opened.size, place: seenFromPiece(held.lying, fromFrame(frame, first)) } : null;
}

/** Whether there is solid all round a circle, so wide. */
function hasWhole(solid: Region, at: Vec2, radius: number, wall: number): boolean {
  // A hair off the wall itself: there both would lie on one circle.
  const inner = radius + HAIR;
  const outer = inner + Math.max(wall, HAIR);
  const ring = combine(oriented([moveLoop(circle(outer), at)]), oriented([moveLoop(circle(inner), at)]), "cutout");
  return areaOf(combine(ring, solid, "cutout")) < MET;
}
const HAIR = 0.01;

/** Screws of jaws, mounting holes, dowels and clamps of a plate that something else of the holder opens. */
export function screwFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  const { screwWall } = c.limits;
  return screwHoles(held).flatMap((hole): (Found & { rule: string })[] => {
    const met = openedBy(held, hole, screwWall.value);
    if (!met) return [];
    const { row } = hole;
    const whose = met.count === 1 ? "a hole" : `${met.count} holes`;
    return [
      {
        rule: "screw-met",
        severity: "stop",
        value: met.count,
        limit: 0,
        place: met.place,
        part: held.part,
        text: `${whose} of row ${row.number} of "${held.part}" ${met.count === 1 ? "has" : "have"} less than ${say(c, screwWall.value)} of wall round it: another cut or an edge comes into it`,
        source: `${screwWall.source}; geometry: sections of "${held.part}" along the hole`,
        fix: clearOf(held, hole, screwWall.value),
      },
    ];
  });
}

/** A hole from the side put lower, under what the piece lies in; one from above is switched off. */
function clearOf(held: Held, { row, step }: ScrewHole, wall: number): Fix | null {
  const { holder, lying } = held;
  const off = switchedOff(holder, row.row.id, `switch row ${row.number} off`);
  if (Math.abs(step.frame.normal.z) > PARALLEL) return off;
  const radius = radiusAt(step, 0);
  const high = fromFrame(step.frame, step.places[0]).z;
  const room = lying.box.min.z - lying.holderBox.min.z - 2 * (radius + wall);
  if (room < 0) return off;
  const to = lying.holderBox.min.z + radius + wall + room / 2;
  const edit = resized(holder, row.row.id, placeAlongY, to - high);
  return edit ? { label: "put them lower", edits: [{ edit: "ofPart", part: holder.id, edits: [edit] }] } : off;
}
