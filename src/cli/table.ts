import { lookUp, nearestSizes, type TableEntry } from "@/core/tables";
import type { Arguments } from "./arguments";
import type { Say } from "./say";

const lines = ({ what, standard, source, values, angles, words }: TableEntry): string[] => [
  `${what}: ${standard} (${source})`,
  ...Object.entries(values).map(([name, mm]) => `  ${name} ${mm} mm`),
  ...Object.entries(angles ?? {}).map(([name, degrees]) => `  ${name} ${degrees}°`),
  ...Object.entries(words ?? {}).map(([name, text]) => `  ${name}: ${text}`),
];

/** Says what the tables know of a size, or which sizes are nearest. @returns 0, or 1 where none knows it */
export function tableOf({ said, has }: Arguments, say: Say): number {
  const entry = lookUp(said);
  const near = entry ? [] : nearestSizes(said).map((e) => e.what);
  if (has("json")) say.line(JSON.stringify(entry ?? { what: null, near }));
  else if (entry) say.line(lines(entry).join("\n"));
  else say.error(`no table has ${said}${near.length ? `; nearest: ${near.join(", ")}` : ""}`);
  return entry ? 0 : 1;
}
