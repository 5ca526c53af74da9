export * from "./finding";
export * from "./limits";
export * from "./registry";
export type { Rule, RuleContext } from "./rule";
