export * from "./reckonings";
