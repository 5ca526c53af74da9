import { INCH, type LengthUnit } from "../number";
import { table } from "./table";

/** A blank of a soft jaw: length along the vise, height, thickness, and what its two screws are apart. Lengths mm. */
export interface JawBlank {
  unit: LengthUnit;
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

/** What jaws, plates and chuck jaws are proposed with, mm; common practice, no source. */
export const fixturePractice = {
  /** Room a side between piece and nest, the spacer between the jaws, wall behind and floor under a nest. */
  clearance: 0.05,
  spacer: 4,
  wall: 8,
  floor: 10,
  /** Relief of a square corner. */
  relief: 8,
  /** Nest depth as a share of the piece's height, and its least. */
  gripShare: 0.22,
  gripLeast: 3,
  /** Drop holes over the holes above them, on the diameter. */
  dropOver: 2,
  /** What stands round the outermost nests of a plate, and between stations. */
  plateMargin: 25,
  between: 20,
  /** Pitch and screw of the table a plate is mounted on, dowel, clamp screw. */
  tablePitch: 50,
  tableScrew: 13,
  dowel: 10,
  clampScrew: "M8",
  clampScrewInch: "5/16-18 UNC",
  /** Chuck jaws: body over the gripped diameter, gap between jaws, what stays under the bore. */
  chuckOver: 60,
  chuckGap: 4,
  chuckFloor: 15,
  chuckClearance: 0.01,
};
