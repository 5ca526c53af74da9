import { holdingRules } from "../findings/holding";
import { showArea } from "../number";
import { CONTACT } from "../geometry/tolerance";
import type { Vec2, Vec3 } from "../geometry/vec";
import { insideRegion, offsetRegion, type Region } from "../outline/boolean";
import type { Cutter } from "../tables";
import type { SolvedRow } from "../engine/solve";
import { squareCorners } from "./corners";
import { say, type CheckContext, type Found } from "./finding";
import { fitOf, onTop, type Lying } from "./lying";
import type { StandingSetup } from "./setup";
import { metBy, sweptOver } from "./tools";

/** A piece in a part that holds it, and what is cut there. */
export interface Held {
  standing: StandingSetup;
  lying: Lying;
  /** The holder's name. */
  part: string;
  rows: SolvedRow[];
  crib: readonly Cutter[];
  /** The finished part, as a state. */
  finished: string;
}

/** A place of the holder as it is on the piece: where the stage points. */
const onPiece = ({ lying }: Held, p: Vec2): Vec3 => {
  const { frame } = lying;
  const q = onTop(lying, p);
  const along = (k: "x" | "y" | "z") => frame.origin[k] + frame.x[k] * q.x + frame.y[k] * q.y + frame.normal[k] * q.z;
  return { x: along("x"), y: along("y"), z: along("z") };
};

/** How a piece lies in a holder is asked for its remarks and for its figures: worked out once. */
const fits = new WeakMap<Lying, ReturnType<typeof fitOf>>();
function fitFor(lying: Lying): ReturnType<typeof fitOf> {
  const known = fits.get(lying) ?? fitOf(lying);
  fits.set(lying, known);
  return known;
}
/** The least room round a piece in its holder, mm: 0 where it does not go in, null where that cannot be told. */
export function roomOf(lying: Lying): number | null {
  const fit = fitFor(lying);
  if (!fit.ok || fit.value.room === Infinity) return null;
  return fit.value.meets === 0 ? fit.value.room : 0;
}

/** Goes in from above, with room all round and corners that clear. */
export function nestFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  const fit = fitFor(held.lying);
  if (!fit.ok)
    return [
      {
        rule: "goes-in-from-above",
        severity: "caution",
        value: 0,
        limit: 0,
        place: null,
        part: held.part,
        text: `whether the piece goes in from above cannot be told: ${fit.problems[0].message}`,
        source: "geometry: sections of piece and holder",
      },
    ];
  const { meets, at, room, shadow, mouth } = fit.value;
  const found: (Found & { rule: string })[] = [];
  if (meets > 0)
    found.push({
      rule: "goes-in-from-above",
      severity: "stop",
      value: meets,
      limit: 0,
      place: at && onPiece(held, at),
      part: held.part,
      text: `the piece does not go in from above: ${showArea(meets, c.unit)} of it stand over "${held.part}"`,
      source: "geometry: shadow of the piece against the mouth",
    });
  const { nestRoomLeast: least, nestRoomMost: most } = c.limits;
  if (meets === 0 && room < least.value - CONTACT)
    found.push({
      rule: "nest-clearance",
      severity: "caution",
      value: room,
      limit: least.value,
      place: null,
      part: held.part,
      text: `${say(c, room)} of room round the piece: it has to be pressed in`,
      source: least.source,
    });
  if (meets === 0 && room < 4 && room > most.value + CONTACT)
    found.push({
      rule: "nest-clearance",
      severity: "caution",
      value: room,
      limit: most.value,
      place: null,
      part: held.part,
      text: `${say(c, room)} of room round the piece: it is not located`,
      source: most.source,
    });
  return [...found, ...cornerFindings(c, held, shadow, mouth)];
}

/**
 * Every square corner of the piece stands where a round cutter has been: the nest as the smallest cutter that reaches
 * can make it is what it looks like after growing what stands by that cutter and shrinking it again.
 */
function cornerFindings(c: CheckContext, held: Held, shadow: Region, solid: Region): (Found & { rule: string })[] {
  const depth = held.lying.holderBox.max.z - held.lying.box.min.z;
  const reaching = held.crib.filter((t) => t.reach >= depth - CONTACT).map((t) => t.diameter / 2);
  if (!shadow.length || !solid.length) return [];
  const corners = squareCorners(shadow);
  if (!reaching.length)
    return corners.length
      ? [
          {
            rule: "relief-clears-corner",
            severity: "caution",
            value: 0,
            limit: corners.length,
            place: null,
            part: held.part,
            text: `no cutter of the crib reaches ${say(c, depth)} deep: whether the corners clear cannot be told`,
            source: "the crib: reach of its cutters",
          },
        ]
      : [];
  const r = Math.min(...reaching);
  const made = offsetRegion(offsetRegion(solid, r), -r);
  const met = corners.filter((p) => insideRegion(made, p));
  if (!met.length) return [];
  return [
    {
      rule: "relief-clears-corner",
      severity: "stop",
      value: corners.length - met.length,
      limit: corners.length,
      place: onPiece(held, met[0]),
      part: held.part,
      text: `${met.length} of ${corners.length} square corners of the piece meet the round a ⌀${say(c, 2 * r)} leaves in the nest: relieve them`,
      source: "geometry: the nest as the smallest cutter that reaches can make it",
    },
  ];
}

/** What stands round and under the nest. */
export function standsFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  const { box, holderBox } = held.lying;
  const floor = box.min.z - holderBox.min.z;
  const walls = [
    box.min.x - holderBox.min.x,
    holderBox.max.x - box.max.x,
    box.min.y - holderBox.min.y,
    holderBox.max.y - box.max.y,
  ];
  const wall = Math.min(...walls);
  const found: (Found & { rule: string })[] = [];
  const own = { place: null, part: held.part };
  if (floor < -CONTACT)
    found.push({
      ...own,
      rule: "sticks-out-below",
      severity: "stop",
      value: -floor,
      limit: 0,
      text: `the piece sticks out ${say(c, -floor)} below "${held.part}"`,
      source: "geometry: piece and holder",
    });
  else if (floor < c.limits.nestFloor.value - CONTACT)
    found.push({
      ...own,
      rule: "nest-floor",
      severity: "caution",
      value: floor,
      limit: c.limits.nestFloor.value,
      text: `${say(c, floor)} of floor under the nest`,
      source: c.limits.nestFloor.source,
    });
  if (wall < c.limits.nestWall.value - CONTACT)
    found.push({
      ...own,
      rule: "nest-wall",
      severity: wall < 0 ? "stop" : "caution",
      value: wall,
      limit: c.limits.nestWall.value,
      text:
        wall < 0
          ? `the piece stands ${say(c, -wall)} over the edge of "${held.part}"`
          : `${say(c, wall)} of wall behind the nest`,
      source: c.limits.nestWall.source,
    });
  return found;
}

/** Cutters that come down into what holds, and holes that have nothing to fall into. */
export function cutterFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  // Only one row of what is left stands for the stock round the part.
  const leave = held.rows.find((r) => r.placed?.step?.op === "leave");
  const rows = held.rows.filter((r) => r.placed?.step?.op !== "leave" || r === leave);
  const cutter = Math.min(...held.crib.map((t) => t.diameter));
  return sweptOver(held.lying, rows, held.finished, cutter).flatMap((swept): (Found & { rule: string })[] => {
    const told = metBy(swept, held.lying);
    const { row } = swept;
    const own = { row: row.number, rowId: row.row.id, part: held.part };
    if (!told.ok)
      return [
        {
          ...own,
          rule: holdingRules.intoJaw,
          severity: "caution",
          value: 0,
          limit: 0,
          place: null,
          text: `whether row ${row.number} goes into "${held.part}" cannot be told: ${told.problems[0].message}`,
          source: "geometry: sections of the holder",
        },
      ];
    const met = told.value;
    if (!met) return [];
    const whose = { ...own, place: onPiece(held, met.at) };
    if (swept.isThrough && met.area < areaUnder(held))
      return [
        {
          ...whose,
          rule: "drop-hole",
          severity: "stop",
          value: met.area,
          limit: 0,
          text: `row ${row.number} goes through the piece into "${held.part}": a hole larger than it has to be open below`,
          source: "geometry: cut and holder",
        },
      ];
    return [
      {
        ...whose,
        rule: holdingRules.intoJaw,
        severity: "stop",
        value: met.below,
        limit: 0,
        text: `row ${row.number} goes ${say(c, met.below)} below the top of "${held.part}", into it`,
        source: "geometry: cut and holder",
      },
    ];
  });
}
/** What the piece covers: a cut that is wider than that runs out of it. */
const areaUnder = ({ lying: { box } }: Held): number => (box.max.x - box.min.x) * (box.max.y - box.min.y);
