export * from "./schema";
export * from "./read";
export { migrated } from "./migrate";
export * from "./names";
export * from "./edits";
export * from "./parts";
export type * from "./stored";
export * from "./release";
export * from "./balloon";
