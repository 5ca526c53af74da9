import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("outline", {
  nothingToBreak: () => ({ message: "there is nothing to break yet", expected: "a walk or a shape first" }),
  nothingThere: (place: string, distance: string) => ({
    message: `nothing passes through ${place}: the nearest element is ${distance} away`,
    expected: "a place on the outline",
  }),
  nothingToTrim: () => ({ message: "there is nothing to trim yet", expected: "a walk or a shape first" }),
  nothingCrosses: (place: string) => ({
    message: `nothing crosses the element at ${place}: all of it would go`,
    expected: "a place between crossings, or the line taken out",
  }),
  endWithoutLength: () => ({
    message: "the element at that end has no length",
    expected: "MEND first, or a step that goes somewhere",
  }),
  chainMeetsNothing: () => ({ message: "the chain meets nothing there", expected: "an outline in its way" }),
  arcRunsIntoItself: () => ({ message: "the arc would run into itself", expected: "a shorter length" }),
  edgeNeitherLineNorArc: (what: string, from: string, to: string) => ({
    message: `an edge there is ${what} (${from === to ? `through ${from}` : `from ${from} to ${to}`}), and an outline holds lines and arcs`,
    expected: "a face bounded by lines and arcs, or another section",
  }),
  edgesDoNotClose: () => ({ message: "the edges there do not close", expected: "a whole face" }),
  nothingOfThePart: () => ({ message: "there is nothing of the part", expected: "a plane that meets the part" }),
  noOutline: (name: string) => ({ message: `there is no outline "${name}"` }),
  madeOfItself: (name: string, way: string) => ({
    message: `"${name}" is made of itself in a circle (${way})`,
    expected: "another outline",
  }),
  partNotThereYet: () => ({ message: "the part is not there yet", expected: "the row it is taken from, computed" }),
  outlineNotRight: (name: string, message: string) => ({ message: `"${name}" is not right itself: ${message}` }),
  outlineContradicts: (name: string, clash: string) => ({
    message: `"${name}" contradicts itself: ${clash}`,
    expected: "one of its dimensions dropped",
  }),
  outlineTooLarge: (count: number, of: string, most: number) => ({
    message: `the outline has ${count} ${of} here, and at most ${most} are followed`,
    expected: "fewer copies, shorter text or a simpler drawing; a repeat of the row for what is there often",
  }),
  tooManyCrossings: () => ({
    message: "too many elements run into one another to be followed",
    expected: "fewer copies, or a simpler outline",
  }),
  roundsDoNotFit: (most: string) => ({
    message: `the rounds do not fit: at most ${most}`,
    expected: "a smaller radius",
  }),
  slotShorterThanWide: (width: string) => ({
    message: "the slot is shorter than it is wide",
    expected: `at least ${width}`,
  }),
  sidesOfPolygon: () => ({ message: "a polygon has 3 to 360 sides", expected: "a number of sides" }),
  pointsOfStar: () => ({ message: "a star has 2 to 720 points", expected: "a number of points" }),
  starInnerNotSmaller: () => ({
    message: "the inner circle is not smaller than the outer one",
    expected: "an ID under the OD",
  }),
  insideNotSmaller: () => ({
    message: "the inside diameter is not smaller than the outside diameter",
    expected: "an ID under the OD",
  }),
  circleInsideOther: (apart: string) => ({
    message: "one circle lies inside the other: they have no outer tangents",
    expected: `centres more than ${apart} apart`,
  }),
  segmentAsHighAsCircle: (diameter: string) => ({
    message: "the segment is as high as its circle",
    expected: `less than ${diameter}`,
  }),
  chordTooLong: (diameter: string) => ({
    message: "the chord is longer than the diameter",
    expected: `at most ${diameter}`,
  }),
  noCornerOfSort: (sort: string) => ({
    message: `the outline has no ${sort}corner`,
    expected: "an outline with such corners, or this line left out",
  }),
  reliefOfOpenChain: () => ({
    message: "an open chain has no inside whose corners could be relieved",
    expected: "a closed outline",
  }),
  noCorner: (place: string) => ({
    message: `there is no corner at ${place}`,
    expected: "a corner of the outline as it stands",
  }),
  cornerDoesNotFit: (treatment: string, size: string, largest: string) => ({
    message: `${treatment} of ${size} does not fit${largest}`,
  }),
  fullRoundNeedsThreeLines: () => ({
    message: "a full round runs through three lines",
    expected: "two corners with a line between them and on either side",
  }),
  cornersTurnApart: () => ({ message: "the two corners turn different ways", expected: "an end that turns one way" }),
  fullRoundTooLong: (radius: string) => ({
    message: `the full round of ${radius} is longer than the lines beside it`,
    expected: "longer lines on either side",
  }),
  noLineBetweenCorners: () => ({
    message: "no line runs between these two corners",
    expected: "two neighbouring corners of the outline",
  }),
  noPoint: (point: string) => ({ message: `there is no point ${point}`, expected: "a point of the walk such as P2" }),
  howFar: () => ({ message: "how far?" }),
  noPointOfTwo: (point: string) => ({
    message: `there is no point ${point}`,
    expected: "two neighbouring points of the walk such as P2 P3",
  }),
  nothingLeftByOffset: () => ({
    message: "nothing is left of the outline at this distance",
    expected: "a smaller distance inwards",
  }),
  tooManyPlaces: (count: number, most: number) => ({
    message: `${count} places are too many`,
    expected: `at most ${most}`,
  }),
  tooManyElements: (count: number, most: number) => ({
    message: `${count} elements are too many`,
    expected: `at most ${most}: fewer copies, or the row repeated`,
  }),
  copiesRunTogether: () => ({
    message: "the copies run into one another in too many places to be joined",
    expected: "another count, or copies that stand apart",
  }),
  noStar: (every: number, points: number) => ({
    message: `every ${every}. of ${points} points makes no star`,
    expected: "a step from 2 to less than half the points",
  }),
  letterMissing: (letter: string) => ({
    message: `the font has no letter ${letter}`,
    expected: "letters, figures and signs of western Europe",
  }),
  noLetters: () => ({ message: "the text has no letters", expected: "at least one letter" }),
  thicknessOverRadius: (step: number) => ({
    message: `the thickness is more than the radius of step ${step}`,
    expected: "a thinner strip, or a larger radius",
  }),
  stepsDoNotMeet: (step: number, next: number) => ({
    message: `steps ${step} and ${next} do not meet at this thickness`,
    expected: "a thinner strip",
  }),
  stepTooShort: (step: number) => ({
    message: `step ${step} is too short for this thickness`,
    expected: "a thinner strip, or a longer step",
  }),
  manyOpenChains: (count: number) => ({ message: `there are ${count} open chains`, expected: "one open chain" }),
  noOpenChain: () => ({ message: "there is no open chain to extend", expected: "one open chain" }),
});
