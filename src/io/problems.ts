import { problemsOf } from "@/core/base/result";

/** What can go wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("io", {
  noWords: (why: string) => ({ message: `no machine words are written: ${why}` }),
  dxfNotShown: (why: string) => ({ message: `the DXF cannot be shown: ${why}`, expected: "an ASCII DXF drawing" }),
  nothingToShow: () => ({
    message: "the drawing has nothing that can be shown",
    expected: "lines, arcs, circles or polylines",
  }),
  noWordsOfSetup: () => ({
    message:
      "machine words are written for the whole piece with its top up and the job's own X0 Y0, not yet for one setup: this file would be wrong at the machine",
    expected: "the DXF of the setup, or the words of the job without --setup",
  }),
  nothingToExport: () => ({
    message: "there is no part to export yet",
    expected: "a job with a LEAVE row that computes",
  }),
  drawingNotRead: (why: string) => ({
    message: `the drawing cannot be read: ${why}`,
    expected: "a DXF or SVG drawing",
  }),
});
