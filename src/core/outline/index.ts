export * from "./outline";
export * from "./convex";
