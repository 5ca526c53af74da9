import type { BodyStep } from "@/core/engine/kernel";
import type { Library } from "../library";
import { insertGrooves } from "./grooves";
import { insertCut, type Host, type Inserted } from "./insert";

/** Puts a cut in without a boolean; null where only a boolean will do. */
export function insert(library: Library, host: Host, step: BodyStep): Inserted | null {
  if (step.op !== "cut") return null;
  if (step.body.body !== "vee") return insertCut(library, host, step);
  return insertGrooves(library, host, step);
}
