export * from "./evaluate";
export * from "./report";
