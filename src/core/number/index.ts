export * from "./evaluate";
export * from "./unit";
export * from "./text";
export * from "./figures";
export * from "./format";
export * from "./said";
export * from "./citations";
export { readExpression, NumberSyntaxError } from "./syntax";
