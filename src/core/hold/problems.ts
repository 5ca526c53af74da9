import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("hold", {
  nothingGripped: () => ({ message: "the grip is nothing: the piece is not held", expected: "a grip over 0" }),
  gripAsHighAsPiece: () => ({
    message:
      "the grip is as high as the piece, or higher: nothing stands above the jaws, and every cut would go into them",
    expected: "a grip smaller than the height of the piece",
  }),
});
