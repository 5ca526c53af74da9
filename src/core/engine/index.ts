export * from "./evaluate";
export * from "./kernel";
export * from "./prepare";
export * from "./solve";
export * from "./report";
export type { NumberReport } from "./numbers";
