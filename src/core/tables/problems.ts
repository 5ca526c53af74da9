import { problemsOf } from "@/core/base/result";

/** What can be wrong here: a code each, what it is about, and its words. */
export const problems = problemsOf("tables", {
  notAZone: (zone: string) => ({ message: `${zone} is no tolerance zone`, expected: "a zone such as H7 or g6" }),
  zoneOfBothKinds: (zone: string) => ({
    message: `${zone} mixes a hole's capital with a shaft's small letter`,
    expected: "H7 or h7",
  }),
  fitSizeOutOfRange: () => ({
    message: "ISO 286-1 covers sizes up to 3150 mm",
    expected: "a size over 0 and up to 3150 mm",
  }),
  gradeNotGiven: (grade: string) => ({
    message: `grade ${grade} is not given for this size`,
    expected: "a grade from 01 to 18",
  }),
  zoneNotGiven: (zone: string, size: number) => ({
    message: `ISO 286-1 gives no ${zone} at ${size} mm`,
    expected: "another letter or grade",
  }),
  belowGeneralTolerances: () => ({
    message: "ISO 2768-1 starts at 0.5 mm: below it the tolerance stands beside the dimension",
    expected: "a tolerance of its own",
  }),
  noGeneralTolerance: (grade: string, size: number) => ({
    message: `ISO 2768-1 gives no class ${grade} for ${size} mm`,
    expected: "a tolerance of its own",
  }),
  noBalloonsOfAShop: () => ({ message: "a shop's figure cites no balloon", expected: "a number" }),
  figureOutOfRange: () => ({ message: "this is out of range", expected: "a number from 0 to 100 000" }),
  figureOfNothing: () => ({ message: "this cannot be nothing", expected: "a number over 0" }),
});
