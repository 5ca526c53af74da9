import { problemsOf } from "@/core/base/result";

/** What can go wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("io", {
  noWords: (why: string) => ({ message: `no machine words are written: ${why}` }),
  dxfNotShown: (why: string) => ({ message: `the DXF cannot be shown: ${why}`, expected: "an ASCII DXF drawing" }),
  nothingToShow: () => ({
    message: "the drawing has nothing that can be shown",
    expected: "lines, arcs, circles or polylines",
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
