import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("print", {
  noOutline: (name: string) => ({ message: `there is no outline "${name}"` }),
  oneFlatHasNoSize: () => ({ message: "one flat has no size of its own", expected: "a second face to measure to" }),
  axisAcrossFlat: () => ({ message: "the axis does not run along that flat", expected: "a flat along the axis" }),
  axesNotParallel: () => ({ message: "the two axes are not parallel", expected: "two parallel axes" }),
  noPlainDistance: () => ({
    message: "these two faces have no plain distance",
    expected: "flats, or round faces with an axis",
  }),
  noWholeCount: () => ({ message: "a count is a whole number", expected: "0, 1, 2, ..." }),
  samePlace: () => ({
    message: "a and b are the same place",
    expected: "b at the other end of a dimension that is known",
  }),
});
