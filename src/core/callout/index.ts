export * from "./card";
export type { RowNames, NumberField } from "../grammar/grammar";
export { writeOutlineItem } from "../outline/items";
export { writeBalloonText } from "./balloonLine";
export { isFreeName, writeStock } from "./headLines";
export { cardDifferences, type CardDifferences } from "./differences";
