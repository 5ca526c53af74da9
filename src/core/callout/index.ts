export * from './card';
export type { RowNames, NumberField } from './grammar';
export { writeOutlineItem } from './outlineLines';
export { writeBalloonText } from './balloonLine';
export { isFreeName, writeStock } from './headLines';
