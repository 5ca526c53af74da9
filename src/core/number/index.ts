export * from "./evaluate";
export * from "./text";
export * from "./figures";
export * from "./format";
export { readExpression, NumberSyntaxError } from "./syntax";
