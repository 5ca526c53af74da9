export * from "./schema";
export { checkKindOf, checkKinds, type CheckMeasure, type CheckValue, type PartFigures } from "./checkKinds";
export {
  numbersOfTolerance,
  toleranceKindOf,
  toleranceKinds,
  wholeOf,
  type Limits,
  type Tolerance,
} from "./toleranceKinds";
export {
  holdingKinds,
  holdingKindOf,
  holdingWords,
  partThatHolds,
  readHolding,
  writeHolding,
  type Holding,
} from "./holdings";
export { partKinds, partKindIds, type PartKindId } from "./partKinds";
export * from "./read";
export { copyOf, type ShelfCopy } from "./shelfCopy";
export { enclosedText, filesNamed, readEnclosed, type EnclosedJob } from "./enclosed";
export { migrated } from "./migrate";
export * from "./names";
export { withoutRefused } from "./setAside";
export * from "./users";
export { formOf, stockForms, type UsualSizes } from "./stockForms";
export * from "./edits";
export * from "./groups";
export { ownCopy } from "./ownCopy";
export * from "./parts";
export type * from "./stored";
export * from "./release";
export * from "./balloon";
