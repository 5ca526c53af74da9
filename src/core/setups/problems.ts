import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("setups", {
  noPartToSetUp: () => ({ message: "there is no part to be set up yet", expected: "LEAVE rows" }),
  noAxisToSetTo: (row: string) => ({
    message: `${row} has no axis to set to`,
    expected: "DATUM AXIS OF a hole or a round",
  }),
  noPart: (name: string) => ({ message: `there is no part "${name}"`, expected: "a part of this job that holds it" }),
  partNotMade: (name: string) => ({ message: `"${name}" cannot be made`, expected: "a part that computes" }),
  noPlaceForPiece: (plate: string, op: number, piece: string, up: string) => ({
    message: `"${plate}" has no place for the piece of setup ${op}`,
    expected: `PLACE "${piece}" IN "${plate}" AT x,y,z with ${up} up`,
  }),
  figureFault: (figure: string, fault: string) => ({ message: `${figure}: ${fault}` }),
  figureIsNothing: (figure: string) => ({
    message: `the ${figure} is nothing: the piece is not held`,
    expected: `a ${figure} over 0`,
  }),
  noSetup: (op: number) => ({ message: `there is no setup ${op} that stands` }),
  setupAtAngle: (op: number) => ({
    message: `setup ${op} is turned to an angle: nothing is written for that`,
    expected: "a setup on one of the six sides",
  }),
  nothingGripped: () => ({ message: "the grip is nothing", expected: "a grip over 0" }),
  gripAsDeepAsPiece: (grip: string, height: string) => ({
    message: `a grip of ${grip} is as deep as the piece is high, ${height}`,
    expected: "a smaller grip",
  }),
  clearanceNegative: () => ({ message: "the clearance is less than nothing", expected: "0 or more" }),
  nothingRoundToGrip: () => ({
    message: "nothing round, and no three flats even about the axis of the piece, stand where the chuck would grip",
    expected: "a piece that is round at its lower end, or a hexagon there",
  }),
  spacerTooWide: () => ({
    message: "the spacer keeps the jaws apart by something under the piece's width",
    expected: "a spacer over 0 and under the width of the piece",
  }),
  noJawBlank: (long: string, wide: string) => ({
    message: `no jaw blank of the shop takes a nest of ${long} x ${wide}`,
  }),
  notAThread: (text: string) => ({ message: `"${text}" is no thread of the table`, expected: "M6, or 1/4-20 UNC-2B" }),
  tooManyStations: (most: number) => ({ message: "that many stations are none", expected: `1x1 to ${most} in all` }),
  pitchUnderNest: (pitch: string, nest: string) => ({
    message: `a pitch of ${pitch} is smaller than the nest, ${nest}`,
    expected: "a pitch over the size of the piece",
  }),
  writtenFault: (name: string, fault: string) => ({
    message: `what was written for "${name}" cannot be read: ${fault}`,
  }),
  notWritten: (name: string) => ({ message: `"${name}" was not written` }),
  noSetupsYet: () => ({
    message: "the job has no setups yet",
    expected: "SETUP lines, or the proposed routing taken first",
  }),
});
