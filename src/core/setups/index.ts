export * from "./evaluateSetups";
export * from "./finding";
export * from "./report";
export type { Lying } from "./lying";
export type { StandingSetup } from "./setup";
export type { Routing, ProposedSetup, RowAccess } from "./routing";
