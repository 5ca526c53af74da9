import { problemsOf } from "@/core/base/result";

/** What can go wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("kernel", {
  tooThick: () => ({
    message: "the wall is too thick for this part, or its faces cannot be moved inwards",
    expected: "a thinner wall",
  }),
  nothingLeft: () => ({ message: "nothing is left of the part", expected: "a cut that leaves material" }),
  cannotDo: (why: string) => ({ message: `the solid kernel could not do this (${why})` }),
  cannotTakeOff: (why: string) => ({ message: `the solid kernel could not take one from the other (${why})` }),
  noPartYet: () => ({ message: "there is no part yet" }),
  nothingToCut: () => ({ message: "there is nothing to cut yet", expected: "a LEAVE row first" }),
  joinTookMaterial: () => ({
    message:
      "joining this to the part took material away: the two meet along a line or a point, where no solid can be joined",
    expected: "a place where they overlap or share a face",
  }),
  cutAddedMaterial: () => ({
    message: "this cut added material to the part: it meets it along a line or a face in a way that cannot be cut",
    expected: "another size or place, a little larger or deeper",
  }),
  moreThanItsVolume: () => ({
    message: "more came of this than its own volume: it meets the part in a way the solid kernel cannot follow",
    expected: "another size or place, a little larger or deeper",
  }),
  edgesDoNotFit: (treatment: string) => ({
    message: `a ${treatment} of this size does not fit on all of these edges together`,
    expected: "a smaller size or fewer edges",
  }),
  edgeDoesNotFit: (treatment: string, where: string) => ({
    message: `a ${treatment} of this size does not fit on every edge: not on the one${where}`,
  }),
  cannotJoin: () => ({
    message: "the solid kernel could not join these shapes",
    expected: "other sizes or another place",
  }),
  notClosed: () => ({
    message: "what the solid kernel made of this is no closed solid",
    expected: "another size or place, a little larger or deeper",
  }),
  noRoom: () => ({
    message: "there is no room for it: its plane lies inside the material",
    expected: "a plane that is clear of the material",
  }),
  ribRunsOut: () => ({
    message: "the rib runs out past the material: there is no wall at an end, or no floor under it",
    expected: "a chain between walls, and a plane no higher than they are",
  }),
  meetsNotAllOver: () => ({
    message: "its outline does not meet material all over",
    expected: "a plane with material under the whole outline",
  }),
  fileNotHere: (file: string) => ({
    message: `the file "${file}" could not be read`,
    expected: "a STEP file that can be reached",
  }),
  noNumbersInFile: (file: string) => ({
    message: `${file} has places that are no numbers (NaN)`,
    expected: "the file, written anew by the program it came from",
  }),
  noSolidInFile: (file: string) => ({ message: `"${file}" has no solid`, expected: "a STEP file with a closed solid" }),
  solidNotClosed: (file: string) => ({
    message: `the solid of "${file}" is not closed`,
    expected: "a STEP file with a closed solid",
  }),
  tooManyLapping: (most: number) => ({
    message: `more than ${most} copies lap over one another in one chain: the solid kernel would take many minutes`,
    expected: `at most ${most} that lap, or a pocket or groove along their way`,
  }),
  tooManyFaces: (count: number, most: number) => ({
    message: `the solid has ${count} faces`,
    expected: `at most ${most}`,
  }),
});
