/** A limit a rule holds to: a shop may set its own. Lengths mm. */
interface Limit {
  value: number;
  unit: string;
  source: string;
}

const practice = "common practice";

/** Defaults of every limit, named, with unit and source. */
export const defaultLimits = {
  cornerOverCutter: { value: 1.1, unit: "× cutter radius", source: practice },
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
  heightOverGrip: { value: 4, unit: "× grip", source: practice },
} satisfies Record<string, Limit>;

export type Limits = Record<keyof typeof defaultLimits, Limit>;
