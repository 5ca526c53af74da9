export * from "./checking";
export * from "./evaluateSetups";
export * from "./finding";
export * from "./report";
export * from "./assembly";
export * from "./derive";
export type { Lying } from "./lying";
export type { StandingSetup } from "./setup";
export type { Routing, ProposedSetup, RowAccess } from "./routing";
