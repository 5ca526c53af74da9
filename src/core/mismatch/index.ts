export * from "./explain";
export * from "./slip";
export { besideWords, isNoSlip, type Beside } from "./besides";
