import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("stock", {
  lengthNotPositive: () => ({ message: "lengths must be positive" }),
});
