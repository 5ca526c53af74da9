import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("job", {
  notADocument: () => ({ message: "this is no job document", expected: 'an object with "format": "sgorbia.job"' }),
  noRepeat: (row: string) => ({ message: `${row} is no repeat`, expected: "a row that makes copies" }),
  copyLeftOut: (copy: number) => ({
    message: `copy ${copy} is left out already`,
    expected: "a copy that is made; the original is 1",
  }),
  noSuchCopy: (copy: number) => ({ message: `no repeat has a copy ${copy}`, expected: "a copy that is made" }),
  standsOnNoPlane: (row: string) => ({
    message: `${row} stands on no plane of its own`,
    expected: "rows that stand on planes, or on one another",
  }),
  filesNotReadable: () => ({
    message: "the files enclosed in this job cannot be read",
    expected: "each under the hash of its content, in base64",
  }),
  notADocumentOfJobs: () => ({ message: "this is no job document" }),
  newerVersion: (version: number, known: number) => ({
    message: `this document is of version ${version}, newer than this program`,
    expected: `version ${known}`,
  }),
  notJson: (place: string) => ({ message: `the file is no JSON${place}`, expected: "a job document" }),
  limitsTurnedAround: () => ({
    message: "the lower limit is larger than the upper one",
    expected: "the larger limit first",
  }),
  deviationsTurnedAround: () => ({
    message: "the lower limit is larger than the upper one",
    expected: "such as +.003 -.001",
  }),
});
