export * from "./explain";
export * from "./slip";
export { besideWords } from "./besides";
