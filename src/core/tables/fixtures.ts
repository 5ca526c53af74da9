import { INCH, type ByFigures, type Figures } from "../number";
import { table } from "./table";

/** A blank of a soft jaw: length along the vise, height, thickness, and what its two screws are apart. Lengths mm. */
export interface JawBlank {
  unit: Figures;
  name: string;
  length: number;
  height: number;
  thickness: number;
  screwPitch: number;
  screw: number;
}

const inch = (length: number, height: number, thickness: number, pitch: number, screw: number): JawBlank => ({
  unit: "in",
  name: `${length} x ${height} x ${thickness}`,
  length: length * INCH,
  height: height * INCH,
  thickness: thickness * INCH,
  screwPitch: pitch * INCH,
  screw: screw * INCH,
});
const metric = (length: number, height: number, thickness: number, screwPitch: number, screw: number): JawBlank => ({
  unit: "mm",
  name: `${length} x ${height} x ${thickness}`,
  length,
  height,
  thickness,
  screwPitch,
  screw,
});

/** Usual blanks of soft jaws, the smallest first. */
export const jawBlanks = table<JawBlank>({
  source: "sizes as they are usual for four, six and eight inch vises; common practice, from memory, to be edited",
  checked: "screws lie within the length, in fixtures.test.ts",
  rows: [
    inch(4, 1.5, 0.75, 2.5, 0.406),
    inch(4, 1.5, 1.25, 2.5, 0.406),
    inch(6, 1.75, 0.75, 3.875, 0.531),
    inch(6, 1.75, 1.5, 3.875, 0.531),
    inch(6, 2.5, 2, 3.875, 0.531),
    inch(8, 2, 1.5, 4.75, 0.656),
    inch(8, 2.5, 2.5, 4.75, 0.656),
    metric(100, 40, 20, 63, 11),
    metric(100, 40, 30, 63, 11),
    metric(125, 40, 30, 80, 13),
    metric(150, 45, 20, 98, 13),
    metric(150, 45, 40, 98, 13),
    metric(150, 60, 55, 98, 13),
    metric(200, 50, 40, 120, 17),
    metric(200, 60, 70, 120, 17),
  ],
});

/** What jaws, plates and chuck jaws are proposed with. Lengths mm. */
export interface FixturePractice {
  /** Room a side between piece and nest, the spacer between the jaws, wall behind and floor under a nest. */
  clearance: number;
  spacer: number;
  wall: number;
  floor: number;
  /** Relief of a square corner. */
  relief: number;
  /** Nest depth as a share of the piece's height, its least, and what it and the sizes of blanks are rounded to. */
  gripShare: number;
  gripLeast: number;
  /** A nest less deep than this, or less than this under the part, holds nothing. */
  nestLeast: number;
  step: number;
  sizeStep: number;
  /** Drop holes over the holes above them, on the diameter. */
  dropOver: number;
  /** What stands round the outermost nests of a plate, and between stations. */
  plateMargin: number;
  between: number;
  /** A boss into a pocket of the underside: the least pocket it is for, mm², its room a side, how far under the floor it ends. */
  bossLeast: number;
  bossRoom: number;
  bossUnder: number;
  /** Room for a cutter beside the piece: how far it goes below the lowest cut. */
  roomBelow: number;
  /** From a nest to the middle of a clamp screw beside it, in screw diameters; its head, likewise: across and high. */
  clampOff: number;
  clampHead: number;
  clampHigh: number;
  /** Mounting screw, dowel. */
  tableScrew: number;
  dowel: number;
  /** Chuck jaws: body over the gripped diameter, gap between jaws, what stays under the bore, room a side. */
  chuckOver: number;
  chuckGap: number;
  chuckFloor: number;
  chuckClearance: number;
}

/** Common practice, no source. */
export const fixturePractice: ByFigures<FixturePractice> = {
  mm: {
    clearance: 0.05,
    spacer: 4,
    wall: 8,
    floor: 10,
    relief: 8,
    gripShare: 0.22,
    gripLeast: 3,
    nestLeast: 0.5,
    step: 0.5,
    sizeStep: 5,
    dropOver: 2,
    plateMargin: 25,
    between: 20,
    bossLeast: 300,
    bossRoom: 0.1,
    bossUnder: 1,
    roomBelow: 1,
    clampOff: 1.5,
    clampHead: 1.5,
    clampHigh: 1,
    tableScrew: 13,
    dowel: 10,
    chuckOver: 60,
    chuckGap: 4,
    chuckFloor: 15,
    chuckClearance: 0.02,
  },
  in: {
    clearance: 0.002 * INCH,
    spacer: 0.125 * INCH,
    wall: 0.3125 * INCH,
    floor: 0.375 * INCH,
    relief: 0.3125 * INCH,
    gripShare: 0.22,
    gripLeast: 0.125 * INCH,
    nestLeast: 0.02 * INCH,
    step: 0.01 * INCH,
    sizeStep: 0.25 * INCH,
    dropOver: 0.0625 * INCH,
    plateMargin: INCH,
    between: 0.75 * INCH,
    bossLeast: 0.5 * INCH * INCH,
    bossRoom: 0.004 * INCH,
    bossUnder: 0.04 * INCH,
    roomBelow: 0.04 * INCH,
    clampOff: 1.5,
    clampHead: 1.5,
    clampHigh: 1,
    tableScrew: 0.53125 * INCH,
    dowel: 0.375 * INCH,
    chuckOver: 2.5 * INCH,
    chuckGap: 0.125 * INCH,
    chuckFloor: 0.625 * INCH,
    chuckClearance: 0.001 * INCH,
  },
};

/** Threads that clamp screws of fixture plates usually have; common practice, no source. */
export const clampThreads: ByFigures<string[]> = {
  mm: ["M5", "M6", "M8", "M10"],
  in: ["10-32 UNF-2B", "1/4-20 UNC-2B", "5/16-18 UNC-2B", "3/8-16 UNC-2B"],
};
