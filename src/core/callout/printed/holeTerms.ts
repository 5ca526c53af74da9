export const verbs = [
  "DRILL",
  "DRILLED",
  "DR",
  "BORE",
  "BORED",
  "MILL",
  "MILLED",
  "HOLE",
  "HOLES",
  "TAP",
  "TAPPED",
  "TAPPING",
  "BORING",
  "DRILLING",
  "REAM",
  "REAMED",
  "DOWEL",
] as const;
/** What stands between the phrases of a hole. */
export const between = [
  [","],
  ["/"],
  [":"],
  ["-"],
  ["&"],
  ["AND"],
  ["TO"],
  ["THREAD"],
  ["TYP"],
  ["WITH"],
  ["AS", "SHOWN"],
  ["WHERE", "SHOWN"],
  ["AS", "NOTED"],
  ["DOWEL", "PIN"],
  ["PRESS", "FIT"],
  ["SLIP", "FIT"],
  ["CLOSE", "FIT"],
  ["CLEARANCE"],
];
/** Said of the depth of a thread, which is what it is anyway. */
export const fullThread = [
  ["FULL", "THREAD"],
  ["FULL", "THD"],
  ["FULL", "THDS"],
  ["MIN", "FULL", "THREAD"],
  ["MIN", "FULL", "THD"],
];
/** What a hole is for: said of it, and without any figure of its own. */
export const screws = [
  "SHCS",
  "SHC",
  "FHMS",
  "FHCS",
  "FHSCS",
  "BHCS",
  "FH",
  "SOC",
  "SOCKET",
  "CAP",
  "HD",
  "HEAD",
  "HEX",
  "FLAT",
  "MACHINE",
  "SCREW",
  "SCREWS",
  "BOLT",
  "BOLTS",
  "DOWEL",
  "DOWELS",
  "PIN",
  "PINS",
] as const;
/** Through the wall that is met first: to the void behind it. */
export const oneWall = [
  ["THRU", "ONE", "WALL"],
  ["THRU", "1", "WALL"],
  ["THRU", "FIRST", "WALL"],
  ["THRU", "NEAR", "WALL"],
  ["ONE", "WALL"],
];
export const NEXT = "TO NEXT";
export const through = [["THRU", "ALL"], ["THROUGH", "ALL"], ["THRU"], ["THROUGH"], ["FULL", "DEPTH"]];
