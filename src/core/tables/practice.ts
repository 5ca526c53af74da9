/** What a figure of the shop's is: it settles how it is read. */
export type FigureKind = "length" | "area" | "share";

/** A figure of practice: what it is called, its value with its unit, and where it is from. Lengths mm. */
export interface PracticeValue {
  title: string;
  is: FigureKind;
  value: number;
  unit: string;
  source: string;
  /** It may be nothing. */
  orNone?: true;
}

const practice = "common practice";
const share = (title: string, value: number, unit: string, source = practice): PracticeValue => ({
  title,
  is: "share",
  value,
  unit,
  source,
});
const length = (title: string, value: number, unit = "", source = practice): PracticeValue => ({
  title,
  is: "length",
  value,
  unit,
  source,
});

/**
 * Limits the rules hold to, by what they are about; a shop may set its own.
 * Values of practice, each with its unit and where it is from. Lengths mm.
 */
export const limitGroups = {
  milling: {
    cornerOverCutter: share("corner that runs smoothly", 1.1, "× cutter radius"),
    cornerRoom: share("room in a pocket for a larger corner", 3, "× corner radius"),
    depthOverCutterCaution: share("depth of a pocket: caution", 3, "× cutter diameter"),
    depthOverCutterLong: share("depth of a pocket: a long cutter", 5, "× cutter diameter"),
    depthOverCutterStop: share("depth of a pocket: stop", 8, "× cutter diameter"),
    sawnAllowance: length("to clean up on a sawn face", 0.5, "a side", `${practice}: a sawn face`),
    thinWall: length("thin wall", 0.8),
    thinFloor: length("thin floor", 1),
  },
  holes: {
    largestDrill: length(
      "largest drill on the shelf",
      38.1,
      "",
      `${practice}: 1 1/2 in; larger holes are milled or bored`,
    ),
    drillPeck: share("drilled depth: peck", 3, "× drill diameter"),
    drillDeep: share("drilled depth: deep pecking", 5, "× drill diameter"),
    drillStop: share("drilled depth: stop", 10, "× drill diameter"),
    tapLeadBottoming: share("lead of a bottoming tap", 1, "pitches", `${practice}: bottoming tap 1 to 2 pitches`),
    tapLeadPlug: share("lead of a plug tap", 3, "pitches", `${practice}: plug tap 3 to 5 pitches`),
    threadPercentMost: share("most of a thread", 80, "% of thread"),
    edgeWallShare: share("wall beside a hole", 0.5, "× hole diameter"),
    edgeWallLeast: length("wall beside a hole, at least", 1),
    edgeWallMost: length(
      "wall beside a hole, enough for any",
      6,
      "",
      `${practice}: beyond this a wall holds whatever the hole`,
    ),
  },
  turning: {
    grooveOverWidth: share("depth of a groove", 3, "× groove width"),
    threadRelief: share("relief of a thread at a shoulder", 2, "pitches", `${practice}: 2 to 3 pitches`),
    overhangTailstock: share("overhang that wants a tailstock", 3, "× diameter"),
    overhangSteady: share("overhang that wants a steady rest", 8, "× diameter"),
    ringWall: share("wall of a ring in a chuck", 0.08, "× gripped diameter"),
    jawStroke: length("stroke of chuck jaws", 3, "on the radius", `${practice}; the chuck's own manual counts`),
  },
  holding: {
    gripLeast: length("grip, at least", 3),
    heightOverGrip: share("height over the jaws", 4, "× grip"),
    gripAreaLeast: {
      title: "area that is gripped",
      is: "area",
      value: 100,
      unit: "on both jaws",
      source: practice,
    },
    nestRoomLeast: { ...length("room in a nest, at least", 0.01, "a side"), orNone: true },
    nestRoomMost: length("room in a nest, at most", 0.2, "a side", `${practice}: more and the piece is not located`),
    nestWall: length("wall behind a nest", 6),
    nestFloor: length("floor under a nest", 6),
    screwWall: { ...length("wall round the screws of jaws and plates", 0.5), orNone: true },
    chipRoom: { ...length("room for chips under a drill that comes through", 3), orNone: true },
    turnOver: { ...length("what a turn-over costs", 0.08, "", "the shop's own figure for a turn-over"), orNone: true },
  },
} satisfies Record<string, Record<string, PracticeValue>>;

type Groups = typeof limitGroups;
export type LimitGroup = keyof Groups;
type LimitsOf<G extends LimitGroup> = Record<keyof Groups[G], PracticeValue>;
export type Limits = LimitsOf<"milling"> & LimitsOf<"holes"> & LimitsOf<"turning"> & LimitsOf<"holding">;

/** All limits as they are where a shop has set none. */
export const defaultLimits: Limits = {
  ...limitGroups.milling,
  ...limitGroups.holes,
  ...limitGroups.turning,
  ...limitGroups.holding,
};

/** Limits that follow one another: the first is never over the second, or one of them never counts. */
export const limitOrder: readonly [keyof Limits, keyof Limits][] = [
  ["depthOverCutterCaution", "depthOverCutterLong"],
  ["depthOverCutterLong", "depthOverCutterStop"],
  ["drillPeck", "drillDeep"],
  ["drillDeep", "drillStop"],
  ["tapLeadBottoming", "tapLeadPlug"],
  ["edgeWallLeast", "edgeWallMost"],
  ["overhangTailstock", "overhangSteady"],
  ["nestRoomLeast", "nestRoomMost"],
];

/** What paths are planned with; common practice, no source. */
export const pathPractice = {
  /** Share of the cutter's diameter taken sideways, and downwards, by one pass. */
  stepOver: 0.5,
  stepDown: 0.5,
  /** Drilling feed and rapid used for the estimate of time, mm a minute. */
  drillFeed: 120,
  rapid: 3000,
  /** Height over whatever stands, at which the cutter moves in rapid, mm. */
  clearance: 3,
  /** Feed downwards as a share of the feed, and the height over all that stands at which tools are changed, mm. */
  plungeShare: 0.3,
  changeHeight: 25,
  /** How far the full diameter of a drill goes beyond the far side of a through hole, mm. */
  breakThrough: 1,
  /** A bore is milled by a cutter of no more than this share of its diameter. */
  boreShare: 0.75,
  /** A sharp pocket is cleared by a cutter that goes in this many times over. */
  roomForCutter: 3,
};

/** Usual jaw of a six-inch vise, mm; common practice, no source. */
export const viseJaw = { width: 152, height: 44, thickness: 19 };

/** Least to clean up when a stock is proposed, and the step stock is sawn to, mm; common practice, no source. */
const sawnTo: ByFigures<number> = { in: 6.35, mm: 5 };
export const stockPractice = { cleanUp: 1, sawnTo };
import type { ByFigures } from "../number";
