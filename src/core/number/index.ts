export * from './evaluate';
export * from './text';
export { readExpression, NumberSyntaxError } from './syntax';
