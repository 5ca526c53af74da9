import { INCH } from "../../number";
import { gradeWidth } from "../fits";
import { cleaned, FROM_MEMORY, sheetPage, UNSURE, type TablePage } from "./page";

/** What a groove is wider than its ring, mm, at least: by the ring's thickness. */
const grooveWidth = (ring: number): number => (ring < 0.5 ? 0.5 : ring < 3.5 ? Number((ring + 0.1).toFixed(2)) : 4.15);
const widths: Record<number, number> = { 1.2: 1.3, 1.5: 1.6, 1.75: 1.85, 2: 2.15, 2.5: 2.65, 3: 3.15, 4: 4.15 };
const widthOf = (ring: number): number => widths[ring] ?? grooveWidth(ring);
/** H13 of a groove's width, mm. */
const WIDTH_TOLERANCE = (width: number): number => (width <= 3 ? 0.14 : 0.18);

/** Tolerance of a shaft groove's diameter, mm: h10 up to 10, h11 to 22, h12 over that, as the standard rounds them. */
function shaftTolerance(shaft: number, groove: number): number {
  if (shaft <= 6) return 0.04;
  if (shaft <= 10) return 0.06;
  return gradeWidth(groove, shaft <= 22 ? "11" : "12") ?? NaN;
}
/** Of a bore's groove: H11 up to 22, H12 over that. */
const boreTolerance = (bore: number, groove: number): number => gradeWidth(groove, bore <= 22 ? "11" : "12") ?? NaN;

/** Ring, groove: `20 1.2 19` is a shaft of 20, a ring of 1.2, a groove of 19. */
const shafts = `3 .4 2.8;4 .4 3.8;5 .6 4.8;6 .7 5.7;7 .8 6.7;8 .8 7.6;9 1 8.6;10 1 9.6;11 1 10.5;12 1 11.5;13 1 12.4;14 1 13.4
15 1 14.3;16 1 15.2;17 1 16.2;18 1.2 17;19 1.2 18;20 1.2 19;21 1.2 20;22 1.2 21;24 1.2 22.9;25 1.2 23.9;26 1.2 24.9
28 1.5 26.6;29 1.5 27.6;30 1.5 28.6;32 1.5 30.3;34 1.5 32.3;35 1.5 33;36 1.75 34;38 1.75 36;40 1.75 37.5;42 1.75 39.5
45 1.75 42.5;48 1.75 45.5;50 2 47;52 2 49;55 2 52;56 2 53;58 2 55;60 2 57;62 2 59;63 2 60;65 2.5 62;68 2.5 65;70 2.5 67
72 2.5 69;75 2.5 72;78 2.5 75;80 2.5 76.5;82 2.5 78.5;85 3 81.5;88 3 84.5;90 3 86.5;95 3 91.5;100 3 96.5;105 4 101
110 4 106;115 4 111;120 4 116;125 4 121;130 4 126;135 4 131;140 4 136;145 4 141;150 4 145;155 4 150;160 4 155;165 4 160
170 4 165;175 4 170;180 4 175;185 4 180;190 4 185;195 4 190;200 4 195`;
const bores = `8 .8 8.4;9 .8 9.4;10 1 10.4;11 1 11.4;12 1 12.5;13 1 13.6;14 1 14.6;15 1 15.7;16 1 16.8;17 1 17.8;18 1 19
19 1 20;20 1 21;21 1 22;22 1 23;24 1.2 25.2;25 1.2 26.2;26 1.2 27.2;28 1.2 29.4;30 1.2 31.4;31 1.2 32.7;32 1.2 33.7
34 1.5 35.7;35 1.5 37;36 1.5 38;37 1.5 39;38 1.5 40;40 1.75 42.5;42 1.75 44.5;45 1.75 47.5;47 1.75 49.5;48 1.75 50.5
50 2 53;52 2 55;55 2 58;56 2 59;58 2 61;60 2 63;62 2 65;63 2 66;65 2.5 68;68 2.5 71;70 2.5 73;72 2.5 75;75 2.5 78;78 2.5 81
80 2.5 83.5;82 2.5 85.5;85 3 88.5;88 3 91.5;90 3 93.5;92 3 95.5;95 3 98.5;98 3 101.5;100 3 103.5;102 4 106;105 4 109
108 4 112;110 4 114;112 4 116;115 4 119;120 4 124;125 4 129;130 4 134;135 4 139;140 4 144;145 4 149;150 4 155;155 4 160
160 4 165;165 4 170;170 4 175;175 4 180;180 4 185;185 4 190;190 4 195;195 4 200;200 4 205`;
const lines = (list: string): string =>
  list
    .split(/[;\n]/)
    .map((entry) => {
      const [size] = entry.split(" ");
      return `${size} ${entry}`;
    })
    .join("\n");

export const shaftRing = sheetPage({
  id: "shaftRing",
  title: "Retaining rings for shafts: their grooves",
  standard: "DIN 471",
  source: FROM_MEMORY,
  example: "DIN 471 20",
  names: ["DIN 471", "EXTERNAL RETAINING RING", "SHAFT RING"],
  columns: ["shaft", "ringThickness", "grooveDiameter"],
  unit: 1,
  text: lines(shafts),
  more: (r) => {
    const width = widthOf(r.ringThickness!);
    return {
      values: cleaned({
        grooveDiameterMin: r.grooveDiameter! - shaftTolerance(r.shaft!, r.grooveDiameter!),
        grooveDiameterMax: r.grooveDiameter,
        grooveWidth: width,
        grooveWidthMax: width + WIDTH_TOLERANCE(width),
      }),
    };
  },
});

export const boreRing = sheetPage({
  id: "boreRing",
  title: "Retaining rings for bores: their grooves",
  standard: "DIN 472",
  source: FROM_MEMORY,
  example: "DIN 472 32",
  names: ["DIN 472", "INTERNAL RETAINING RING", "BORE RING"],
  columns: ["bore", "ringThickness", "grooveDiameter"],
  unit: 1,
  text: lines(bores),
  more: (r) => {
    const width = widthOf(r.ringThickness!);
    return {
      values: cleaned({
        grooveDiameterMin: r.grooveDiameter,
        grooveDiameterMax: r.grooveDiameter! + boreTolerance(r.bore!, r.grooveDiameter!),
        grooveWidth: width,
        grooveWidthMax: width + WIDTH_TOLERANCE(width),
      }),
    };
  },
});

export const inchShaftRing = sheetPage({
  id: "inchShaftRing",
  title: "Retaining rings for shafts, inch: their grooves",
  standard: "ASME B18.27, basic external series",
  source: UNSURE,
  example: "ASME B18.27 shaft 1",
  names: ["ASME B18.27 SHAFT", "ASME B18.27 EXTERNAL", "ASME B18.27"],
  columns: ["shaft", "grooveDiameter", "grooveWidth"],
  unit: INCH,
  text: `1/4 .250 .230 .029
  5/16 .312 .290 .029
  3/8 .375 .352 .029
  7/16 .438 .412 .029
  1/2 .500 .468 .039
  5/8 .625 .588 .039
  3/4 .750 .704 .046
  7/8 .875 .821 .046
  1 1.000 .940 .046
  1-1/8 1.125 1.059 .056
  1-1/4 1.250 1.176 .056
  1-3/8 1.375 1.291 .056
  1-1/2 1.500 1.406 .056
  1-3/4 1.750 1.650 .068
  2 2.000 1.886 .068`,
});

export const inchBoreRing = sheetPage({
  id: "inchBoreRing",
  title: "Retaining rings for bores, inch: their grooves",
  standard: "ASME B18.27, basic internal series",
  source: UNSURE,
  example: "ASME B18.27 bore 1",
  names: ["ASME B18.27 BORE", "ASME B18.27 INTERNAL"],
  columns: ["bore", "grooveDiameter", "grooveWidth"],
  unit: INCH,
  text: `1/2 .500 .530 .039
  5/8 .625 .665 .039
  3/4 .750 .796 .039
  7/8 .875 .931 .046
  1 1.000 1.066 .046
  1-1/8 1.125 1.197 .056
  1-1/4 1.250 1.330 .056
  1-3/8 1.375 1.461 .056
  1-1/2 1.500 1.594 .056
  1-3/4 1.750 1.858 .068
  2 2.000 2.122 .068`,
});

export const ringPages: readonly TablePage[] = [shaftRing, boreRing, inchBoreRing, inchShaftRing];
