export * from "./sizes";
export * from "./thread";
export * from "./designation";
export * from "./limits";
export * from "./said";
export * from "./wires";
export { percentThread, formingHole } from "./tapDrills";
export { parallelPipe, pipeDiameters } from "./parallelPipe";
export { trapezoidal, acme, powerDiameters } from "./trapezoidal";
