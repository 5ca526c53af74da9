export * from "./feature";
export * from "./kind";
export * from "./registry";
export * from "./places";
export * from "./planeRef";
export * from "./edges";
export * from "./changedRow";
export * from "./namedPlane";
export { repeated } from "./repeat";
