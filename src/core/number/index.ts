export * from "./evaluate";
export * from "./text";
export * from "./format";
export { readExpression, NumberSyntaxError } from "./syntax";
