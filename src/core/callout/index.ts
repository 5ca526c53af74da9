export * from "./card";
export * from "./cardReader";
export { namedIn, readBalloonLine, readLedgerLine, readOutlineLine, readRowLine, type CardError } from "./lines";
export type { RowNames, NumberField } from "../grammar/grammar";
export { writeOutlineItem } from "../outline/items";
export { writeBalloonText } from "./balloonLine";
export { isFreeName, writeStock } from "./headLines";
export { cardDifferences, type CardDifferences } from "./differences";
export * from "./typedLine";
