export * from "./reckonings";
export { entryResults } from "./lookups";
