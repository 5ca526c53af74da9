import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("rows", {
  noOutline: (name: string) => ({ message: `there is no outline "${name}"`, expected: "an outline of this job" }),
  outlineFault: (name: string, message: string) => ({ message: `outline "${name}": ${message}` }),
  outlineIsClosed: (name: string) => ({ message: `outline "${name}" is closed`, expected: "one open chain" }),
  depthMissing: () => ({ message: "the depth is missing", expected: "DEEP and a depth" }),
  heightMissing: () => ({ message: "the height is missing", expected: "X and a height" }),
  tooManyPlaces: (count: number) => ({ message: `${count} places are too many`, expected: "at most 5000" }),
  countAgainstPlaces: (count: number, places: number) => ({
    message: `${count}X does not agree with the ${places} places given`,
    expected: `${places}X`,
  }),
  tooManyPlacesInAll: (total: number) => ({ message: `${total} places are too many`, expected: "at most 5000" }),
  howManyOnCircle: () => ({ message: "how many holes are on the bolt circle?", expected: "a count such as 6X" }),
  sidesOfPolygon: () => ({ message: "a polygon has 3 to 360 sides", expected: "a number of sides" }),
  cornerRadiusTooLarge: () => ({
    message: "the corner radius is larger than the shape allows",
    expected: "a smaller radius",
  }),
  grooveStartMissing: () => ({ message: "where the groove starts is missing", expected: "START and a depth" }),
  lengthMissing: () => ({ message: "the length is missing", expected: "a length" }),
  slotShorterThanWide: () => ({ message: "a slot is longer than it is wide", expected: "a length over the width" }),
  slotWiderThanItsArc: () => ({
    message: "the slot is wider than its arc is round",
    expected: "a width under the arc's diameter",
  }),
  slotEndsMeet: () => ({
    message: "the slot's ends run into one another",
    expected: "a shorter arc, or a ring groove",
  }),
  chamferTooSteep: () => ({ message: "a chamfer leans less than 90 degrees", expected: "an angle such as 45" }),
  chamferSaidTwice: () => ({ message: "an angle and a second leg say the same twice", expected: "one of the two" }),
  counterboreNotWider: () => ({ message: "the counterbore is not wider than the hole", expected: "a larger diameter" }),
  spotfaceNotWider: () => ({ message: "the spotface is not wider than the hole", expected: "a larger diameter" }),
  countersinkNotWider: () => ({ message: "the countersink is not wider than the hole", expected: "a larger diameter" }),
  insideNotSmaller: () => ({
    message: "the inside diameter is not smaller than the outside diameter",
    expected: "an ID under the OD",
  }),
  noThread: (thread: string) => ({ message: `${thread} is no thread`, expected: "a thread such as 8-32 UNC-2B or M5" }),
  noTapDrill: (thread: string) => ({
    message: `no table has a tap drill for ${thread}`,
    expected: "a standard thread, or DRILL and its diameter",
  }),
  tapDrillTooLarge: () => ({ message: "the tap drill is as large as the thread", expected: "a smaller drill" }),
  drilledTooShallow: () => ({
    message: "the drilled hole is shallower than the thread",
    expected: "a drilled depth of at least the thread",
  }),
  drilledNotThrough: () => ({
    message: "the thread goes through and the drilled hole does not",
    expected: "DRILL THRU",
  }),
  wrappedWithoutFigure: () => ({ message: "what is wrapped round a row has a depth or height in figures" }),
  wrappedCutElsewhere: () => ({
    message: "what is wrapped round a row stands on that round alone",
    expected: "ON ROUND OF n AT angle,z and no other AT, ON or START",
  }),
  outlineNotClosed: (outline: string) => ({
    message: `outline "${outline}" is not closed`,
    expected: "CLOSE, OFFSET for a band round it, or LEFT or RIGHT: the side of the walk that is cut to the edge",
  }),
  openChainWithoutDepth: () => ({
    message: "an open chain is cut to a depth or through",
    expected: "DEEP and a depth, or THRU",
  }),
  crossesItsAxis: (name: string, least: string) => ({
    message: `outline "${name}" crosses its axis: x comes to ${least}`,
    expected: "a half profile with x from 0, the radius",
  }),
  turnedTooFar: () => ({
    message: "a part is turned through more than 0 and at most 360 degrees",
    expected: "an angle up to 360",
  }),
  cutterAngle: () => ({
    message: "the cutter’s included angle lies between 0 and 180 degrees",
    expected: "an angle such as 60",
  }),
  tooManyPieces: (pieces: number, most: number) => ({
    message: `the engraving has ${pieces} pieces`,
    expected: `at most ${most}: engrave it row by row`,
  }),
  wayWithoutHeight: (way: string) => ({
    message: `${way} goes with a height`,
    expected: "X and a height, or no BOTH or DOWN",
  }),
  separateLoops: (name: string, count: number) => ({
    message: `outline "${name}" has ${count} separate loops`,
    expected: "one closed loop with its holes; JOIN them, or leave them one by one",
  }),
  draftTooSteep: () => ({ message: "walls lean less than 60 degrees", expected: "a draft such as 3" }),
  draftBothWays: () => ({ message: "DRAFT goes with a height to one side", expected: "X and a height, without BOTH" }),
  wallsMeet: () => ({ message: "its walls meet before the top", expected: "a smaller draft or height" }),
  fullRoundEndNotStraight: () => ({
    message: "an end that is a full round has to be straight for half the strip's width",
    expected: "a straight first and last step of at least half the width",
  }),
  roundedEndsWithoutWidth: () => ({ message: "ROUNDED ends go with a width", expected: "X and a width" }),
  pathHasCorner: (name: string) => ({
    message: `the path "${name}" has a corner`,
    expected: "lines and arcs that run on tangent",
  }),
  pathBendsTooTightly: (step: number) => ({
    message: `step ${step} of the path bends more tightly than the section is thick`,
    expected: "a bend radius over half the diameter",
  }),
  wrappedLeaveElsewhere: () => ({
    message: "what is wrapped round a row stands on that round alone",
    expected: "ON ROUND OF n AT angle,z and no other AT, ON, BOTH or DOWN",
  }),
  grooveAngle: () => ({
    message: "the groove’s included angle lies between 0 and 180 degrees",
    expected: "an angle such as 90",
  }),
  noOutsideThread: (thread: string) => ({
    message: `${thread} is no thread`,
    expected: "a thread such as M6-6g or 1/4-20 UNC-2A",
  }),
  taperThreadAsHelix: () => ({
    message: "a taper thread is not cut as a helix",
    expected: "no HELIX: it is said of the part",
  }),
  diamondKnurlAsSolid: () => ({
    message: "a diamond knurl is not cut into the solid",
    expected: "STRAIGHT, or no SOLID: the knurl is said of the part, and its shaft stays as the blank",
  }),
  tooManyCopies: (count: number, most: number) => ({
    message: `${count} copies are too many`,
    expected: `at most ${most}`,
  }),
  mirrorWithoutPlane: () => ({ message: "the mirror has no plane" }),
  taperDoesNotNarrow: () => ({
    message: "the taper does not narrow",
    expected: "a diameter at the plane over that at the end",
  }),
  taperToAPoint: () => ({
    message: "the taper comes to a point before its depth",
    expected: "a smaller depth or a slimmer taper",
  }),
});
