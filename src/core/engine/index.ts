export * from "./kernel";
export * from "./prepare";
export * from "./solve";
export type { NumberReport } from "./numbers";
