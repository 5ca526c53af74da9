import { INCH, type ByFigures, type Figures } from "../number";
import type { FigureKind } from "./practice";
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

/** A figure fixtures are proposed with, in metric shops and in inch ones: mm, mm² or a share. */
interface Proposed {
  title: string;
  is: FigureKind;
  mm: number;
  in: number;
  /** It may be nothing. */
  orNone?: true;
}
const length = (title: string, mm: number, inches: number): Proposed => ({
  title,
  is: "length",
  mm,
  in: inches * INCH,
});
const room = (title: string, mm: number, inches: number): Proposed => ({ ...length(title, mm, inches), orNone: true });
const share = (title: string, both: number): Proposed => ({ title, is: "share", mm: both, in: both });

/** What jaws, plates and chuck jaws are proposed with; common practice, no source. */
export const fixtureFigures = {
  clearance: room("room a side between piece and nest", 0.05, 0.002),
  spacer: length("spacer between the jaws", 4, 0.125),
  wall: length("wall behind a nest", 8, 0.3125),
  floor: length("floor under a nest", 10, 0.375),
  relief: room("relief of a square corner, ⌀", 8, 0.3125),
  gripShare: share("depth of a nest, × height of the piece", 0.22),
  gripLeast: length("depth of a nest, at least", 3, 0.125),
  nestLeast: length("depth under which a nest holds nothing", 0.5, 0.02),
  step: length("depths are rounded to", 0.5, 0.01),
  sizeStep: length("sizes of blanks are rounded to", 5, 0.25),
  dropOver: room("drop holes over the holes above them, on ⌀", 2, 0.0625),
  plateMargin: length("plate round the outermost nests", 25, 1),
  between: room("between stations", 20, 0.75),
  bossLeast: { title: "pocket a boss goes up into, at least", is: "area", mm: 300, in: 0.5 * INCH * INCH },
  bossRoom: room("room a side round a boss", 0.1, 0.004),
  bossUnder: room("a boss ends under the floor by", 1, 0.04),
  roomBelow: room("room for a cutter below the lowest cut", 1, 0.04),
  clampOff: share("clamp screw off the nest, × its ⌀", 1.5),
  clampHead: share("head of a clamp screw across, × its ⌀", 1.5),
  clampHigh: share("head of a clamp screw high, × its ⌀", 1),
  tableScrew: length("mounting holes, ⌀", 13, 0.53125),
  tablePitch: length("pitch of the table's own holes or slots", 50, 2),
  dowel: length("dowels, ⌀", 10, 0.375),
  chuckOver: length("chuck jaws over the gripped ⌀", 60, 2.5),
  chuckGap: length("gap between chuck jaws", 4, 0.125),
  chuckFloor: length("what stays under the bore of chuck jaws", 15, 0.625),
  chuckClearance: room("room a side in bored jaws", 0.02, 0.001),
} satisfies Record<string, Proposed>;

/** What jaws, plates and chuck jaws are proposed with. Lengths mm, areas mm². */
export type FixturePractice = Record<keyof typeof fixtureFigures, number>;

const figuresFor = (figures: Figures): FixturePractice =>
  Object.fromEntries(Object.entries(fixtureFigures).map(([key, f]) => [key, f[figures]])) as FixturePractice;

/** The figures as they are where a shop has set none. */
export const fixturePractice: ByFigures<FixturePractice> = { mm: figuresFor("mm"), in: figuresFor("in") };

/** Where the relief of a square corner may stand: centred on it, shifted along a wall, or along the bisector. */
export const reliefPlacements = ["corner", "wall", "bisector"] as const;
export type ReliefPlacement = (typeof reliefPlacements)[number];

/** Threads that clamp screws of fixture plates usually have; common practice, no source. */
export const clampThreads: ByFigures<string[]> = {
  mm: ["M5", "M6", "M8", "M10"],
  in: ["10-32 UNF-2B", "1/4-20 UNC-2B", "5/16-18 UNC-2B", "3/8-16 UNC-2B"],
};
