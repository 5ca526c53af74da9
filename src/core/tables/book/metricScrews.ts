import { clearanceHole } from "../clearance";
import { clean, FROM_MEMORY, PRACTICE, sheetPage, type TablePage } from "./page";

/** Clearance hole of a metric screw by its class, mm. */
const holes = (name: string) => clearanceHole(name)?.all ?? {};

/** What DIN 974-1 adds to a head's height under it, mm, by the thread's diameter. */
const headRoom = (size: number): number =>
  size <= 1.4 ? 0.2 : size <= 6 ? 0.4 : size <= 20 ? 0.6 : size <= 27 ? 0.8 : 1;

export const socketHead = sheetPage({
  id: "socketHead",
  title: "Socket head cap screws, metric, and their counterbores",
  standard: "ISO 4762; counterbore DIN 974-1",
  source: FROM_MEMORY,
  example: "ISO 4762 M6",
  names: ["ISO 4762", "DIN 912", "SHCS", "SOCKET HEAD CAP SCREW", "SOCKET HEAD"],
  columns: ["headDiameter", "headHeight", "key", "counterbore"],
  unit: 1,
  text: `M1.6 3 1.6 1.5 3.5
  M2 3.8 2 1.5 4.4
  M2.5 4.5 2.5 2 5.5
  M3 5.5 3 2.5 6.5
  M4 7 4 3 8
  M5 8.5 5 4 10
  M6 10 6 5 11
  M8 13 8 6 15
  M10 16 10 8 18
  M12 18 12 10 20
  M14 21 14 12 24
  M16 24 16 14 26
  M20 30 20 17 33
  M24 36 24 19 40
  M30 45 30 22 50
  M36 54 36 27 58`,
  unsure: ["M1.6", "M2", "M2.5", "M30", "M36"],
  more: (r) => ({
    values: { counterboreDepth: clean(r.headHeight! + headRoom(Number(r.name.slice(1)))), ...holes(r.name) },
  }),
});

export const socketCountersunk = sheetPage({
  id: "socketCountersunk",
  title: "Socket countersunk head screws, metric, and their countersinks",
  standard: "ISO 10642; countersink DIN 74 form F",
  source: FROM_MEMORY,
  example: "ISO 10642 M6",
  names: ["ISO 10642", "DIN 7991", "FHCS", "FLAT HEAD CAP SCREW"],
  columns: ["headTheoretical", "headLeast", "headHeight", "key", "countersink"],
  unit: 1,
  text: `M3 6.72 5.54 1.86 2 6.94
  M4 8.96 7.53 2.48 2.5 9.18
  M5 11.2 9.43 3.1 3 11.47
  M6 13.44 11.34 3.72 4 13.71
  M8 17.92 15.24 4.96 5 18.25
  M10 22.4 19.22 6.2 6 22.73
  M12 26.88 23.12 7.44 8 27.21
  M14 30.8 26.52 8.4 10 31.19
  M16 33.6 29.01 8.8 10 33.99
  M20 40.32 36.05 10.16 12 40.71`,
  more: (r) => ({ angles: { countersinkAngle: 90 }, values: holes(r.name) }),
});

export const buttonHead = sheetPage({
  id: "buttonHead",
  title: "Button head socket screws, metric",
  standard: "ISO 7380-1",
  source: FROM_MEMORY,
  example: "ISO 7380 M6",
  names: ["ISO 7380-1", "ISO 7380", "BHCS"],
  columns: ["headDiameter", "headHeight", "key"],
  unit: 1,
  text: `M3 5.7 1.65 2
  M4 7.6 2.2 2.5
  M5 9.5 2.75 3
  M6 10.5 3.3 4
  M8 14 4.4 5
  M10 17.5 5.5 6
  M12 21 6.6 8
  M16 28 8.8 10`,
  more: (r) => ({ values: holes(r.name) }),
});

export const slottedCountersunk = sheetPage({
  id: "slottedCountersunk",
  title: "Countersunk screws, slotted or crossed, metric, and their countersinks",
  standard: "ISO 2009, ISO 7721 heads; countersink ISO 15065",
  source: FROM_MEMORY,
  example: "ISO 2009 M5",
  names: ["ISO 2009", "ISO 7046", "DIN 963", "DIN 965"],
  columns: ["headTheoretical", "headDiameter", "headHeight", "countersink"],
  unit: 1,
  text: `M1.6 3.6 3 1 3.6
  M2 4.4 3.8 1.2 4.4
  M2.5 5.5 4.7 1.5 5.5
  M3 6.3 5.5 1.65 6.3
  M3.5 8.2 7.3 2.35 8.2
  M4 9.4 8.4 2.7 9.4
  M5 10.4 9.3 2.7 10.4
  M6 12.6 11.3 3.3 12.6
  M8 17.3 15.8 4.65 17.3
  M10 20 18.3 5 20`,
  more: (r) => ({ angles: { countersinkAngle: 90 }, values: holes(r.name) }),
});

/** Plain washers, and what a spotface has over one: common practice, no source. */
const SPOTFACE_ROOM = 1;
export const hexagon = sheetPage({
  id: "hexagonScrew",
  title: "Hexagon head screws and plain washers, metric",
  standard: "ISO 4017, ISO 4014; washer ISO 7089",
  source: `${FROM_MEMORY}; spotface: the washer and ${SPOTFACE_ROOM} mm, ${PRACTICE}`,
  example: "ISO 4017 M10",
  names: ["ISO 4017", "ISO 4014", "DIN 933", "DIN 931", "HEX HEAD", "HEX BOLT"],
  columns: ["acrossFlats", "headHeight", "washer", "washerThickness"],
  unit: 1,
  text: `M3 5.5 2 7 .5
  M4 7 2.8 9 .8
  M5 8 3.5 10 1
  M6 10 4 12 1.6
  M8 13 5.3 16 1.6
  M10 16 6.4 20 2
  M12 18 7.5 24 2.5
  M14 21 8.8 28 2.5
  M16 24 10 30 3
  M18 27 11.5 34 3
  M20 30 12.5 37 3
  M22 34 14 39 3
  M24 36 15 44 4
  M27 41 17 50 4
  M30 46 18.7 56 4
  M33 50 21 60 5
  M36 55 22.5 66 5
  M42 65 26 - -
  M48 75 30 - -
  M56 85 35 - -
  M64 95 40 - -`,
  more: (r) => ({
    values: { ...(r.washer === null ? {} : { spotface: r.washer + SPOTFACE_ROOM }), ...holes(r.name) },
  }),
});

export const metricScrewPages: readonly TablePage[] = [
  socketHead,
  socketCountersunk,
  buttonHead,
  slottedCountersunk,
  hexagon,
];
