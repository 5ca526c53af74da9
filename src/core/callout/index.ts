export * from './card';
export type { RowNames, NumberField } from './grammar';
export { writeBalloonText } from './balloonLine';
export { isFreeName, writeStock } from './headLines';
