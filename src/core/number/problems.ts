import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("number", {
  noValueYet: () => ({ message: "no value yet", expected: "a number" }),
  notOfTheNumber: (rest: string) => ({
    message: `${rest} does not belong to a number`,
    expected: "an operator or the end",
  }),
  notFinite: () => ({ message: "this has no finite value", expected: "a number" }),
  onlyAnAngle: () => ({ message: "degrees, minutes and seconds make an angle", expected: "a length" }),
  unitOutOfPlace: (unit: string) => ({ message: `${unit} has no place here` }),
  unknownName: (name: string) => ({
    message: `nothing is named ${name}`,
    expected: "a number, a balloon or a named value",
  }),
  nameWithoutValue: (name: string) => ({ message: `${name} has no value here` }),
  divisionByZero: () => ({ message: "division by zero", expected: "a divisor other than zero" }),
  noNumber: () => ({ message: "this comes to no number", expected: "a smaller power, or a base over 0" }),
  emptyNumber: () => ({ message: "no value yet" }),
  mustBePositive: () => ({ message: "must be more than zero", expected: "a positive length" }),
  tooSmall: (least: string) => ({ message: "too small to be made", expected: `at least ${least}` }),
  tooLarge: (most: string) => ({ message: "larger than any machine", expected: `at most ${most}` }),
  tooFar: (most: string) => ({ message: "larger than any machine", expected: `within ${most}` }),
  mustNotBeNegative: () => ({ message: "must not be negative", expected: "zero or a positive length" }),
  includedAngle: () => ({
    message: "an included angle lies between 0 and 180 degrees",
    expected: "an angle such as 90",
  }),
  tooManyTurns: () => ({ message: "more than ten turns", expected: "an angle in degrees" }),
  notACount: () => ({ message: "a count is a whole number from 1", expected: "a whole number" }),
  countTooLarge: (most: number) => ({ message: `more than ${most} places`, expected: `at most ${most}` }),
});
