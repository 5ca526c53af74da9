export const verbs = [
  "DRILL",
  "DRILLED",
  "BORE",
  "BORED",
  "MILL",
  "MILLED",
  "HOLE",
  "HOLES",
  "TAP",
  "TAPPED",
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
  ["DOWEL", "PIN"],
];
/** Said of the depth of a thread, which is what it is anyway. */
export const fullThread = [
  ["FULL", "THREAD"],
  ["FULL", "THD"],
  ["FULL", "THDS"],
  ["MIN", "FULL", "THREAD"],
  ["MIN", "FULL", "THD"],
];
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
