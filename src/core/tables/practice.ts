/**
 * Values of practice: what rules hold to and paths are planned with, each with its unit and where it is from.
 * A shop may set its own limits. Lengths mm.
 */
interface PracticeValue {
  value: number;
  unit: string;
  source: string;
}

const practice = "common practice";

/** Limits the rules hold to. */
export const defaultLimits = {
  cornerOverCutter: { value: 1.1, unit: "× cutter radius", source: practice },
  cornerRoom: { value: 3, unit: "× corner radius a pocket has room for, before one is proposed", source: practice },
  depthOverCutterCaution: { value: 3, unit: "× cutter diameter", source: practice },
  depthOverCutterLong: { value: 5, unit: "× cutter diameter", source: practice },
  depthOverCutterStop: { value: 8, unit: "× cutter diameter", source: practice },
  drillPeck: { value: 3, unit: "× drill diameter", source: practice },
  drillDeep: { value: 5, unit: "× drill diameter", source: practice },
  drillStop: { value: 10, unit: "× drill diameter", source: practice },
  tapLeadBottoming: { value: 1, unit: "pitches", source: `${practice}: bottoming tap 1 to 2 pitches` },
  tapLeadPlug: { value: 3, unit: "pitches", source: `${practice}: plug tap 3 to 5 pitches` },
  threadPercentMost: { value: 80, unit: "% of thread", source: practice },
  sawnAllowance: { value: 0.5, unit: "mm a side", source: `${practice}: a sawn face` },
  edgeWallShare: { value: 0.5, unit: "× hole diameter", source: practice },
  edgeWallLeast: { value: 1, unit: "mm", source: practice },
  edgeWallMost: { value: 6, unit: "mm", source: `${practice}: beyond this a wall holds whatever the hole` },
  thinWall: { value: 0.8, unit: "mm", source: practice },
  thinFloor: { value: 1, unit: "mm", source: practice },
  gripLeast: { value: 3, unit: "mm", source: practice },
  grooveOverWidth: { value: 3, unit: "× groove width", source: practice },
  threadRelief: { value: 2, unit: "pitches to a shoulder", source: `${practice}: 2 to 3 pitches` },
  heightOverGrip: { value: 4, unit: "× grip", source: practice },
  gripAreaLeast: { value: 100, unit: "mm² on both jaws", source: practice },
  nestRoomLeast: { value: 0.01, unit: "mm a side", source: practice },
  nestRoomMost: { value: 0.2, unit: "mm a side", source: `${practice}: more and the piece is not located` },
  nestWall: { value: 6, unit: "mm", source: practice },
  nestFloor: { value: 6, unit: "mm", source: practice },
  overhangTailstock: { value: 3, unit: "× diameter", source: practice },
  overhangSteady: { value: 8, unit: "× diameter", source: practice },
  ringWall: { value: 0.08, unit: "× gripped diameter", source: practice },
  jawStroke: { value: 3, unit: "mm on the radius", source: `${practice}; the chuck's own manual counts` },
  turnOver: { value: 0.08, unit: "mm", source: "the shop's own figure for a turn-over" },
} satisfies Record<string, PracticeValue>;

export type Limits = Record<keyof typeof defaultLimits, PracticeValue>;

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
