export * from "./outline";
