import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("reckon", {
  noThread: (thread: string) => ({ message: `${thread} is no thread`, expected: "a thread such as 1/4-20 UNC or M6" }),
});
