import { problemsOf } from "@/core/base/result";

/** What can go wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("server", {
  fileIsAnother: (hash: string) => ({
    message: `an enclosed file is not what its name says (${hash.slice(0, 8)}...)`,
    expected: "the file as it was enclosed",
  }),
  fileEmpty: () => ({ message: "the file is empty", expected: "a PNG or JPEG picture, a PDF or a DXF" }),
  fileTooLarge: (megabytes: string) => ({ message: `the file has ${megabytes} MB` }),
  fileOfNoKind: () => ({ message: "this is neither a PNG, a JPEG, a PDF, an ASCII DXF nor a STEP file" }),
  pictureOfTooManyDots: (x: number, y: number, most: number) => ({
    message: `the picture has ${x} x ${y} dots, more than can be drawn`,
    expected: `at most ${most} million dots: scan it at 300 dots an inch or fewer`,
  }),
  pictureTooLarge: (most: number) => ({ message: "this picture is too large to keep", expected: `at most ${most} MB` }),
  shopMovedOn: () => ({
    message: "the shop's figures were changed in another window",
    expected: "the page, loaded anew",
  }),
  noCopy: (name: string) => ({ message: `there is no copy ${name}`, expected: "one of the copies that are kept" }),
  copyBroken: (name: string) => ({
    message: `${name} is no whole copy of a shelf: nothing was put back`,
    expected: "a copy as it was kept; another one",
  }),
  copyIsNewer: (name: string) => ({
    message: `${name} was made by a newer Sgorbia: nothing was put back`,
    expected: "a copy that this one made",
  }),
  jobMovedOn: () => ({ message: "the job has moved on", expected: "its present revision" }),
  jobGone: () => ({ message: "this job is gone", expected: "a job that was not deleted" }),
  editsDoNotFit: () => ({ message: "these edits do not fit the job", expected: "edits made from this revision" }),
  noPart: (part: string) => ({ message: `there is no part "${part}"`, expected: "a part of this job" }),
  noSetup: (op: number) => ({ message: `there is no setup ${op} that stands`, expected: "one of the job's setups" }),
  fileNotMade: (why: string) => ({ message: `the file could not be made: ${why}` }),
});
