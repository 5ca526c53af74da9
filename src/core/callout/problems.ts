import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("callout", {
  balloonNotLookedUp: (n: number) => ({ message: `#${n} is not looked up here` }),
});
