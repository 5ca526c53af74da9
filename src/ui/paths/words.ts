import { showLength, type LengthUnit } from "@/core/number";
import type { PathPlan } from "@/core/paths/plan";

/** A path in a line: what is cut, how deep, in how many levels. */
export function pathWords(p: PathPlan, unit: LengthUnit): string {
  const deep = showLength(p.depth, unit);
  const levels = `${p.levels.length} level${p.levels.length === 1 ? "" : "s"}`;
  if (p.kind === "drill") return `drill ${p.points.length} × ${deep} deep`;
  if (p.kind !== "face") return `${p.kind}, ${deep} deep, ${levels}`;
  return `face, ${p.depth === 0 ? "the stock over its plane" : `${deep} below its plane`}, ${levels}`;
}
