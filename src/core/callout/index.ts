export * from "./card";
export type { RowNames, NumberField } from "./grammar";
export { writeOutlineItem } from "./outlineWriter";
export { writeBalloonText } from "./balloonLine";
export { isFreeName, writeStock } from "./headLines";
export { cardDifferences, type CardDifferences } from "./differences";
