import { INCH } from "../../number";
import { clearanceHole, screwSize } from "../clearance";
import { cleaned, FROM_MEMORY, sheetPage, type TablePage } from "./page";

const holes = (name: string) => cleaned(clearanceHole(name)?.all ?? {});
/** An inch screw is called by its size, its number, or with its threads: `1/4-20`. */
const calls = (name: string): string[] =>
  name.startsWith("#") && name !== "#1" ? [name.replace("#", "NO."), name.slice(1)] : [name.replace("#", "NO.")];

const socket = sheetPage({
  id: "inchSocketHead",
  title: "Socket head cap screws, inch, and their counterbores",
  standard: "ASME B18.3",
  source: FROM_MEMORY,
  example: "ASME B18.3 1/4",
  names: ["ASME B18.3 SHCS", "ASME B18.3", "INCH SHCS", "SHCS", "SOCKET HEAD CAP SCREW", "SOCKET HEAD"],
  columns: ["headDiameter", "headHeight", "key", "counterbore"],
  unit: INCH,
  text: `#0 .096 .060 .050 1/8
  #1 .118 .073 1/16 5/32
  #2 .140 .086 5/64 3/16
  #3 .161 .099 5/64 7/32
  #4 .183 .112 3/32 7/32
  #5 .205 .125 3/32 1/4
  #6 .226 .138 7/64 9/32
  #8 .270 .164 9/64 5/16
  #10 .312 .190 5/32 3/8
  1/4 .375 .250 3/16 7/16
  5/16 .469 .312 1/4 17/32
  3/8 .562 .375 5/16 5/8
  7/16 .656 .438 3/8 23/32
  1/2 .750 .500 3/8 13/16
  5/8 .938 .625 1/2 1
  3/4 1.125 .750 5/8 1-3/16
  7/8 1.312 .875 3/4 1-3/8
  1 1.500 1.000 3/4 1-5/8
  1-1/4 1.875 1.250 7/8 2
  1-1/2 2.250 1.500 1 2-3/8`,
  calls,
  more: (r) => ({ values: { counterboreDepth: cleaned({ h: r.headHeight }).h, ...holes(r.name) } }),
});

const flatSocket = sheetPage({
  id: "inchFlatSocket",
  title: "Flat countersunk socket head cap screws, inch",
  standard: "ASME B18.3",
  source: FROM_MEMORY,
  example: "ASME B18.3 FHCS 1/4",
  names: ["ASME B18.3 FHCS", "ASME B18.3 FLAT", "FHCS", "FHSCS"],
  columns: ["headTheoretical", "headHeight", "key"],
  unit: INCH,
  text: `#0 .138 .044 .035
  #1 .168 .054 .050
  #2 .197 .064 .050
  #3 .226 .073 1/16
  #4 .255 .083 1/16
  #5 .281 .090 5/64
  #6 .307 .097 5/64
  #8 .359 .112 3/32
  #10 .411 .127 1/8
  1/4 .531 .161 5/32
  5/16 .656 .198 3/16
  3/8 .781 .234 7/32
  7/16 .844 .234 1/4
  1/2 .938 .251 5/16
  5/8 1.188 .324 3/8
  3/4 1.438 .396 1/2
  7/8 1.688 .468 9/16
  1 1.938 .540 5/8`,
  calls,
  more: (r) => ({ angles: { countersinkAngle: 82 }, values: holes(r.name) }),
});

const button = sheetPage({
  id: "inchButton",
  title: "Button head socket cap screws, inch",
  standard: "ASME B18.3",
  source: FROM_MEMORY,
  example: "ASME B18.3 BHCS 1/4",
  names: ["ASME B18.3 BHCS", "ASME B18.3 BUTTON", "BHCS"],
  columns: ["headDiameter", "headHeight"],
  unit: INCH,
  text: `#0 .114 .032
  #1 .139 .039
  #2 .164 .046
  #3 .188 .052
  #4 .213 .059
  #5 .238 .066
  #6 .262 .073
  #8 .312 .087
  #10 .361 .101
  1/4 .437 .132
  5/16 .547 .166
  3/8 .656 .199
  1/2 .875 .265
  5/8 1.000 .331`,
  calls,
  more: (r) => ({ values: holes(r.name) }),
});

const flatMachine = sheetPage({
  id: "inchFlatMachine",
  title: "Flat head machine screws, inch, 82°",
  standard: "ASME B18.6.3",
  source: FROM_MEMORY,
  example: "ASME B18.6.3 8",
  names: ["ASME B18.6.3", "ASME B18.6", "FHMS"],
  columns: ["headTheoretical", "headHeight"],
  unit: INCH,
  text: `#0 .119 .035
  #1 .146 .043
  #2 .172 .051
  #3 .199 .059
  #4 .225 .067
  #5 .252 .075
  #6 .279 .083
  #8 .332 .100
  #10 .385 .116
  #12 .438 .132
  1/4 .507 .153
  5/16 .635 .191
  3/8 .762 .230
  7/16 .812 .223
  1/2 .875 .223
  9/16 1.000 .260
  5/8 1.125 .298
  3/4 1.375 .372`,
  calls,
  more: (r) => ({ angles: { countersinkAngle: 82 }, values: holes(r.name) }),
});

/** A page that also knows a screw by its threads: `SHCS 1/4-20`, `SHCS 10-32`. */
const byThreads = (page: TablePage): TablePage => ({
  ...page,
  find(query) {
    const found = page.find(query);
    const m = found ? null : /^(.*\s)(\S+-\S+(?:\s*UN[A-Z]*)?)$/i.exec(query.trim());
    const size = m && screwSize(m[2]);
    return m && size ? page.find(m[1] + size) : found;
  },
});

export const inchScrewPages: readonly TablePage[] = [socket, flatSocket, button, flatMachine].map(byThreads);
