import { problemsOf } from "@/core/base/result";

/** What can go wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("drawing", {
  readingTooLong: (seconds: number) => ({
    message: `reading the drawing took more than ${seconds} s and was given up`,
  }),
  readingTooMuch: () => ({
    message: "the drawing cannot be read: it was too much for this page",
    expected: "a smaller drawing",
  }),
  readingStopped: () => ({ message: "reading the drawing was stopped" }),
});
