import { holdingRules } from "../findings/holding";
import { showArea } from "../number";
import { CONTACT } from "../geometry/tolerance";
import type { Vec2, Vec3 } from "../geometry/vec";
import { loopBox } from "../outline";
import { insideRegion, offsetRegion, type Region } from "../outline/boolean";
import type { Cutter } from "../tables";
import { outCorners } from "./corners";
import { say, type CheckContext, type Found } from "./finding";
import { fitOf, onTop, seenFromPiece, type Lying } from "./lying";
import { areaOf } from "./grip";
import type { EvaluatedPart } from "../evaluate/parts";
import type { StandingSetup, Work } from "./setup";
import { dropHole, longer, nestFreed, roomForCutter, roomSet, thicker } from "./fixes/holderFixes";
import { metBy, type Swept } from "./tools";

/** A piece in a part that holds it, and what is cut there. */
export interface Held {
  standing: StandingSetup;
  lying: Lying;
  /** The holder's name. */
  part: string;
  holder: EvaluatedPart;
  work: Work;
  crib: readonly Cutter[];
  /** What the setup's rows sweep over the holder. */
  swept: Swept[];
  /** Where the piece is gone through at any of the holder's stations, in whatever setup. */
  through: Region;
}

/** A place of the holder's top as it is on the piece: where the stage points. */
const onPiece = ({ lying }: Held, p: Vec2): Vec3 => seenFromPiece(lying, onTop(lying, p));

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

/** Room of this much and more is no nest, mm: our own figure, no source. */
const FAR_OFF = 4;

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
      fix: nestFreed(c, held),
    });
  const { nestRoomLeast: least, nestRoomMost: most } = c.limits;
  if (meets === 0 && room < least.value - CONTACT)
    found.push({
      rule: "nest-clearance",
      severity: "caution",
      value: room,
      limit: least.value,
      place: inMiddle(held),
      part: held.part,
      text: `${say(c, room)} of room round the piece: it has to be pressed in`,
      source: least.source,
      fix: nestFreed(c, held),
    });
  // On a plate a piece may lie without a nest; jaws that stand so far off hold nothing.
  const isFarOff = room >= FAR_OFF;
  const isInJaws = held.holder.kind !== "plate";
  if (meets === 0 && room > most.value + CONTACT && (isInJaws || !isFarOff))
    found.push({
      rule: "nest-clearance",
      severity: isFarOff ? "stop" : "caution",
      value: Math.min(room, FAR_OFF),
      limit: most.value,
      place: inMiddle(held),
      part: held.part,
      text: `${say(c, Math.min(room, FAR_OFF))} of room${isFarOff ? " and more" : ""} round the piece: it is not ${isFarOff ? "held" : "located"}`,
      source: most.source,
      fix: roomSet(c, held),
    });
  return [...found, ...cornerFindings(c, held, shadow, mouth)];
}

/** Areas under this are what arithmetic leaves, mm². */
const LOST = 1e-3;

/**
 * Every corner of the piece that is sharp, or rounder than a cutter is, stands where a round cutter has been: the nest as the smallest cutter that reaches
 * can make it is what it looks like after growing what stands by that cutter and shrinking it again.
 */
function cornerFindings(c: CheckContext, held: Held, shadow: Region, solid: Region): (Found & { rule: string })[] {
  const depth = held.lying.holderBox.max.z - held.lying.box.min.z;
  const reaching = held.crib.filter((t) => t.reach >= depth - CONTACT).map((t) => t.diameter / 2);
  if (!shadow.length || !solid.length) return [];
  const r = reaching.length ? Math.min(...reaching) : Infinity;
  const corners = outCorners(shadow, reaching.length ? r - CONTACT : 0);
  if (!corners.length) return [];
  const untold = (why: string, source: string): (Found & { rule: string })[] => [
    {
      rule: "relief-clears-corner",
      severity: "caution",
      value: 0,
      limit: corners.length,
      place: onPiece(held, corners[0]),
      part: held.part,
      text: `${why}: whether the corners clear cannot be told`,
      source,
    },
  ];
  if (!reaching.length)
    return untold(`no cutter of the crib reaches ${say(c, depth)} deep`, "the crib: reach of its cutters");
  const made = offsetRegion(offsetRegion(solid, r), -r);
  // What a cutter leaves is never less than what is to stand.
  if (areaOf(made) < areaOf(solid) - LOST) return untold("the nest's walls cannot be followed", "geometry: the nest");
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
      text: `${met.length} of ${corners.length} corners of the piece meet the round a ⌀${say(c, 2 * r)} leaves in the nest: relieve them`,
      source: "geometry: the nest as the smallest cutter that reaches can make it",
      fix: nestFreed(c, held),
    },
  ];
}

/** Where the piece stands in what holds it: the middle of its underside. */
const inMiddle = (held: Held): Vec3 => {
  const { min, max } = held.lying.box;
  return onPiece(held, { x: (min.x + max.x) / 2, y: (min.y + max.y) / 2 });
};

/** What stands round and under the nest. */
export function standsFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  return [...floorFindings(c, held), ...wallFindings(c, held)];
}

function floorFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  const { box, holderBox } = held.lying;
  const { nestFloor } = c.limits;
  const floor = box.min.z - holderBox.min.z;
  if (floor >= nestFloor.value - CONTACT) return [];
  const own = { place: inMiddle(held), part: held.part, fix: thicker(c, held, nestFloor.value - floor) };
  if (floor < -CONTACT)
    return [
      {
        ...own,
        rule: "sticks-out-below",
        severity: "stop",
        value: -floor,
        limit: 0,
        text: `the piece sticks out ${say(c, -floor)} below "${held.part}"`,
        source: "geometry: piece and holder",
      },
    ];
  return [
    {
      ...own,
      rule: "nest-floor",
      severity: "caution",
      value: floor,
      limit: nestFloor.value,
      text: `${say(c, floor)} of floor under the nest`,
      source: nestFloor.source,
    },
  ];
}

/** What of a piece stands walls off: on a plate all of it, for nothing may lie over its edge; else what lies in the nest. */
function coveredBy({ lying, holder }: Held): { min: Vec2; max: Vec2 } {
  const fit = holder.kind === "plate" ? null : fitFor(lying);
  return fit?.ok && fit.value.shadow.length ? loopBox(fit.value.shadow.flat()) : lying.box;
}

function wallFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  const { holderBox } = held.lying;
  const { nestWall } = c.limits;
  const box = coveredBy(held);
  const middle = { x: (box.min.x + box.max.x) / 2, y: (box.min.y + box.max.y) / 2 };
  const walls = [
    { axis: "x" as const, wall: box.min.x - holderBox.min.x, at: { x: box.min.x, y: middle.y } },
    { axis: "x" as const, wall: holderBox.max.x - box.max.x, at: { x: box.max.x, y: middle.y } },
    { axis: "y" as const, wall: box.min.y - holderBox.min.y, at: { x: middle.x, y: box.min.y } },
    { axis: "y" as const, wall: holderBox.max.y - box.max.y, at: { x: middle.x, y: box.max.y } },
  ];
  // A piece may stand out of jaws at their ends: there it is gripped on as much as there is of them.
  const isOpen = (end: (typeof walls)[number]) => held.holder.kind === "jaws" && end.axis === "x" && end.wall < 0;
  const thinnest = walls.filter((end) => !isOpen(end)).reduce((a, b) => (b.wall < a.wall ? b : a));
  const { wall, axis, at } = thinnest;
  if (wall >= nestWall.value - CONTACT) return [];
  return [
    {
      rule: "nest-wall",
      severity: wall < 0 ? "stop" : "caution",
      value: wall,
      limit: nestWall.value,
      place: onPiece(held, at),
      part: held.part,
      text:
        wall < 0
          ? `the piece stands ${say(c, -wall)} over the edge of "${held.part}"`
          : `${say(c, wall)} of wall behind the nest`,
      source: nestWall.source,
      fix: longer(c, held, axis, nestWall.value - wall),
    },
  ];
}

/** Cutters that come down into what holds, and holes that have nothing to fall into. */
export function cutterFindings(c: CheckContext, held: Held): (Found & { rule: string })[] {
  return held.swept.flatMap((swept): (Found & { rule: string })[] => {
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
          fix: dropHole(c, held, row.number),
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
        fix: roomForCutter(c, held, met.below),
      },
    ];
  });
}
/** What the piece covers: a cut that is wider than that runs out of it. */
const areaUnder = ({ lying: { box } }: Held): number => (box.max.x - box.min.x) * (box.max.y - box.min.y);
