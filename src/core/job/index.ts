export * from "./schema";
export * from "./read";
export * from "./names";
export * from "./edits";
export type * from "./stored";
export * from "./release";
