export * from "./explain";
export * from "./slip";
