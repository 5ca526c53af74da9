import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("balloons", {
  noBalloon: (cited: number) => ({
    message: `there is no balloon #${cited}`,
    expected: "a thread such as 8-32 UNC-2B or M5",
  }),
  balloonIsNoThread: (cited: number) => ({ message: `#${cited} is no thread`, expected: "a balloon with a thread" }),
});
