export * from "./finding";
export * from "./registry";
export type { Rule, RuleContext } from "./rule";
