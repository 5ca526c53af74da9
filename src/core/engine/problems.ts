import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("engine", {
  unknownName: (name: string) => ({ message: `nothing is named ${name}` }),
  noPlane: (name: string) => ({ message: `there is no plane "${name}"` }),
  planeMadeOfItself: (name: string) => ({ message: `plane "${name}" is made from itself`, expected: "another plane" }),
  planeFault: (name: string, number: string, fault: string) => ({ message: `plane "${name}", ${number}: ${fault}` }),
  numberOfItself: (name: string, way: string) => ({
    message: `${name} refers to itself in a circle (${way})`,
    expected: "a number",
  }),
  noBalloon: (n: number) => ({ message: `there is no balloon #${n}` }),
  referenceDrives: (n: number) => ({
    message: `#${n} is a reference dimension; it can be proved and never drives`,
    expected: "the dimension it comes from",
  }),
  balloonWithoutLength: (number: number, kind: string) => ({
    message: `#${number} is ${kind} and has no length`,
    expected: "a balloon with a number",
  }),
  copiedLineFault: (line: number, column: number, fault: string) => ({
    message: `line ${line}, column ${column}: ${fault}`,
  }),
  notAnEarlierRow: (row: string) => ({
    message: `${row} is no row before this one`,
    expected: "the number of an earlier row that is on",
  }),
  rowLacks: (row: string, what: string) => ({ message: `${row} has no ${what}` }),
  copyFault: (copy: number, row: string, fault: string) => ({ message: `copy ${copy} of ${row}: ${fault}` }),
  tooManyCopies: (copies: number, most: number) => ({
    message: `these are ${copies} places, and a repeat makes ${most} at most`,
    expected: "fewer copies, or one row with a pattern of its own",
  }),
  tooManyInTurn: (count: number, most: number) => ({
    message: `${count} copies that each go by what they meet: the solid kernel would take many minutes`,
    expected: `at most ${most} of them`,
  }),
  notRepeatable: (row: string) => ({
    message: `${row} is of the whole part and cannot be repeated`,
    expected: "rows that leave or cut something in a place",
  }),
  noEdgesToRepeat: () => ({
    message: "none of its edges is there",
    expected: "the rows that make the edges repeated with it",
  }),
  edgesMissing: (missing: number, wanted: number, verb: string) => ({
    message: `${missing} of its ${wanted} edges ${verb} not there`,
    expected: "the rows that make the edges repeated with it",
  }),
  rowWithoutPlaces: (row: string) => ({ message: `${row} has no places`, expected: "an earlier row with a pattern" }),
  partWithoutEdge: () => ({ message: "the part has no edge" }),
  noFlatOnSide: (side: string) => ({ message: `no flat looks to the ${side}`, expected: "a part with such a flat" }),
  bodyLacksSide: (row: string, side: string) => ({ message: `${row} has no ${side}`, expected: "a leave row" }),
  runsAlongItsEnd: () => ({
    message: "the row runs along the plane it is to end at",
    expected: "a plane across its way",
  }),
  openChainMeetsNothing: () => ({
    message: "nothing of the part lies to that side of the chain",
    expected: "a chain that crosses the part, or its other side",
  }),
  profileEnclosesNothing: () => ({
    message: "the profile encloses nothing",
    expected: "a half profile beside its axis",
  }),
  openChainLeft: () => ({ message: "an open chain can only be cut", expected: "a closed outline" }),
  bodyNeedsPart: () => ({ message: "this body needs a part to stand on", expected: "LEAVE rows before it" }),
  longerThanGirth: () => ({
    message: "the outline is longer than the girth of its round",
    expected: "a shorter outline, or a larger round",
  }),
  tooManyAslant: (count: number, most: number) => ({
    message: `${count} pieces of a pointed groove that run aslant or in arcs round a row: too many to be cut`,
    expected: `at most ${most}; letters with a flat floor: CUT POCKET "outline" DEEP d ON ROUND OF n`,
  }),
  tighterThanGroove: (radius: string, half: string) => ({
    message: `an arc of radius ${radius} is tighter than half the groove's width: round a row its inner wall cannot be made`,
    expected: `arcs over ${half}, or a shallower groove`,
  }),
  deepAsTheAxis: () => ({
    message: "it would go as deep as the axis of its round",
    expected: "a depth under the round's radius",
  }),
  endOverItsStart: () => ({
    message: "the plane it is to end at lies over where it starts",
    expected: "a plane below its own",
  }),
  beyondItsShaft: () => ({ message: "it lies beyond the end of its shaft", expected: "a START within the shaft" }),
  longerThanItsShaft: () => ({
    message: "it is longer than its shaft",
    expected: "a length and START within the shaft",
  }),
  shaftDoesNotCarryThread: (shaft: string, needed: string) => ({
    message: `a shaft of ⌀${shaft} does not carry this thread`,
    expected: `a shaft of ⌀${needed}`,
  }),
  shaftGrooveNotSmaller: () => ({
    message: "the groove is not smaller than its shaft",
    expected: "a diameter under the shaft's",
  }),
  teethOfKnurl: (teeth: number, most: number) => ({
    message: `a pitch that puts ${teeth} teeth round the shaft`,
    expected: `a pitch that puts 6 to ${most}`,
  }),
  noShaft: () => ({ message: "there is no shaft yet" }),
  whichShaft: (rows: string) => ({ message: `which shaft: ${rows}` }),
  ribWithoutWalls: () => ({ message: "a rib needs walls to stand between", expected: "LEAVE rows before it" }),
  leaveWithoutHeight: () => ({ message: "what is left has a height", expected: "X and a height" }),
  noMaterialYet: () => ({ message: "there is no material to go to yet", expected: "a LEAVE row first" }),
  noMaterialOnThatSide: () => ({
    message: "there is no material on that side of its plane",
    expected: "a plane over material",
  }),
  noHeightToItsEnd: () => ({
    message: "it would have no height: its own plane is where it ends",
    expected: "another plane",
  }),
  endCutsThroughStart: () => ({
    message: "the plane it is to end at cuts through where it starts",
    expected: "a plane clear of it",
  }),
  tooLow: (height: string) => ({ message: `it would be ${height} high`, expected: "a plane farther away" }),
  nothingToCut: () => ({ message: "there is nothing to cut yet", expected: "a LEAVE row first" }),
  noFlatToOpen: () => ({
    message: "there is no flat where the shell is to be open",
    expected: "a plane the part has a flat in",
  }),
  stockWithoutMaterial: () => ({ message: "the stock has no material", expected: "a bore under the outside diameter" }),
  noPartToCut: () => ({ message: "there is no part to be cut yet", expected: "a LEAVE row" }),
  bandWithoutPart: () => ({
    message: "there is nothing of the part in this band",
    expected: "a band that meets the part",
  }),
  partHasNoSetup: (name: string, setup: number) => ({
    message: `"${name}" has no setup ${setup}`,
    expected: "the number of one of its setups",
  }),
  linesStandUpright: () => ({
    message: "these lines stand upright where the part lies",
    expected: "a section or face that lies level there",
  }),
  notARowBeforeOutline: (row: string) => ({
    message: `${row} is no row before the one made from this outline`,
    expected: "the number of an earlier row",
  }),
  rowNotThere: (row: string) => ({ message: `${row} is not there`, expected: "a row that is on and can be made" }),
  noPlaneThere: () => ({ message: "there is no plane there", expected: "a row with a flat mouth or floor" }),
  noFlatAfter: (face: string, row: string) => ({
    message: `there is no flat ${face} after ${row}`,
    expected: "a flat face",
  }),
  shadowOfSlants: () => ({
    message: "the shadow of a part with slanted or lying rounds is not taken",
    expected: "SECTION, or a part of level flats and upright walls",
  }),
  placeFault: (part: string, fault: string) => ({ message: `the place of "${part}": ${fault}` }),
  noOutline: (name: string) => ({ message: `there is no outline "${name}"` }),
  partNotMade: (name: string) => ({ message: `"${name}" cannot be made`, expected: "a part that computes" }),
  noPartToTakeFrom: (part: string) => ({
    message: `there is no part "${part}" to take lines from, or it takes its own from this one`,
    expected: "another part of this job",
  }),
  meetsNoMaterial: (what: string) => ({ message: `${what} meets no material`, expected: "a place over material" }),
  noSharpEdge: () => ({ message: "there is no sharp outside edge" }),
  noUprightCorner: () => ({ message: "there is no upright outside corner" }),
  noEdgeAlong: (axis: string) => ({ message: `there is no edge along ${axis}` }),
  nothingLeftOfEdge: (edge: string, row: string) => ({ message: `nothing is left of the ${edge} of ${row}` }),
  noOuterRim: (side: string) => ({ message: `the ${side} has no outer rim` }),
  facesDoNotMeet: () => ({ message: "the two faces do not meet in an edge", expected: "two faces that share an edge" }),
  noSolidFile: (file: string) => ({
    message: `there is no file "${file}"`,
    expected: "the name of a STEP file that the job keeps; on a card its path beside the card",
  }),
});
