import { slipsBetween } from "../base/slips";
import { table } from "./table";

/** A material a shop buys, with its density in g/cm³. */
export interface Material {
  name: string;
  density: number;
  aliases: string[];
  family: "aluminium" | "steel" | "copper alloy" | "titanium" | "iron" | "plastic";
}

export const materials = table<Material>({
  source: "handbook densities; from memory",
  checked: "ranges by family in tables.test.ts",
  rows: [
    {
      name: "aluminium 6061",
      density: 2.7,
      aliases: ["aluminum 6061", "6061", "6061-t6", "aluminium"],
      family: "aluminium",
    },
    { name: "aluminium 7075", density: 2.81, aliases: ["aluminum 7075", "7075"], family: "aluminium" },
    { name: "aluminium 2024", density: 2.78, aliases: ["aluminum 2024", "2024"], family: "aluminium" },
    { name: "steel 1018", density: 7.87, aliases: ["1018", "mild steel", "steel"], family: "steel" },
    { name: "steel 1045", density: 7.85, aliases: ["1045"], family: "steel" },
    { name: "steel 4140", density: 7.85, aliases: ["4140"], family: "steel" },
    { name: "steel 1020", density: 7.87, aliases: ["1020"], family: "steel" },
    { name: "steel 1095", density: 7.85, aliases: ["1095"], family: "steel" },
    { name: "steel 12l14", density: 7.87, aliases: ["12l14"], family: "steel" },
    { name: "steel 8620", density: 7.85, aliases: ["8620"], family: "steel" },
    { name: "tool steel o1", density: 7.83, aliases: ["o1"], family: "steel" },
    { name: "tool steel a2", density: 7.86, aliases: ["a2"], family: "steel" },
    { name: "tool steel d2", density: 7.7, aliases: ["d2", "tool steel"], family: "steel" },
    { name: "tool steel h13", density: 7.8, aliases: ["h13"], family: "steel" },
    { name: "stainless 303", density: 8.0, aliases: ["303"], family: "steel" },
    { name: "stainless 304", density: 8.0, aliases: ["304", "stainless"], family: "steel" },
    { name: "stainless 316", density: 8.0, aliases: ["316"], family: "steel" },
    { name: "stainless 410", density: 7.74, aliases: ["410", "chromium stainless"], family: "steel" },
    { name: "stainless 420", density: 7.74, aliases: ["420"], family: "steel" },
    { name: "stainless 430", density: 7.74, aliases: ["430"], family: "steel" },
    { name: "stainless 17-4", density: 7.75, aliases: ["17-4 ph", "17-4"], family: "steel" },
    { name: "brass", density: 8.5, aliases: ["brass 360", "c360"], family: "copper alloy" },
    { name: "bronze", density: 8.8, aliases: [], family: "copper alloy" },
    { name: "copper", density: 8.94, aliases: [], family: "copper alloy" },
    { name: "titanium 6al-4v", density: 4.43, aliases: ["titanium"], family: "titanium" },
    { name: "cast iron", density: 7.2, aliases: ["grey iron"], family: "iron" },
    { name: "titanium grade 2", density: 4.51, aliases: ["ti grade 2"], family: "titanium" },
    { name: "ductile iron", density: 7.1, aliases: [], family: "iron" },
    { name: "peek", density: 1.31, aliases: [], family: "plastic" },
    { name: "ptfe", density: 2.17, aliases: [], family: "plastic" },
    { name: "acrylic", density: 1.18, aliases: ["pmma"], family: "plastic" },
    { name: "polycarbonate", density: 1.2, aliases: ["pc"], family: "plastic" },
    { name: "abs", density: 1.05, aliases: [], family: "plastic" },
    { name: "phenolic", density: 1.36, aliases: [], family: "plastic" },
    { name: "acetal", density: 1.41, aliases: ["pom"], family: "plastic" },
    { name: "nylon", density: 1.14, aliases: [], family: "plastic" },
    { name: "pvc", density: 1.4, aliases: [], family: "plastic" },
    { name: "polyethylene", density: 0.95, aliases: ["hdpe"], family: "plastic" },
  ],
});

/** The table's row for a name, whatever its case; null when no row has it. */
export function findMaterial(name: string): Material | null {
  const n = name.trim().toLowerCase();
  return materials.rows.find((m) => m.name === n || m.aliases.includes(n)) ?? null;
}

/** Slips beyond which two words have nothing to do with each other. */
const MOST_SLIPS = 2;

/** How far a word typed is from a word of the table: 0 the same or its beginning, then slips; null too far. */
function apart(typed: string, word: string): number | null {
  if (word.startsWith(typed)) return 0;
  if (typed.length > 2 && word.includes(typed)) return 0.5;
  // A figure names a grade: another figure is another grade, not a slip.
  if (/\d/.test(typed + word) || typed.length < 4) return null;
  const slips = slipsBetween(typed, word);
  return slips <= MOST_SLIPS ? slips : null;
}

/**
 * The rows of the table whose name, or another name of theirs, is nearest to what was typed, the nearest first; none
 * where nothing is near.
 */
export function nearestMaterials(typed: string, most = 3): Material[] {
  const words = wordsOf(typed);
  if (!words.length) return [];
  const scored = materials.rows.flatMap((material) => {
    const scores = [material.name, ...material.aliases].map((name) => {
      const near = words.map((w) => Math.min(...wordsOf(name).map((x) => apart(w, x) ?? MOST_SLIPS + 1)));
      // Every word that is like none of this name counts against it; with none like it, it is not near at all.
      return near.every((n) => n > MOST_SLIPS) ? Infinity : near.reduce((sum, n) => sum + n, 0);
    });
    const score = Math.min(...scores);
    return Number.isFinite(score) ? [{ material, score }] : [];
  });
  return scored
    .sort((a, b) => a.score - b.score)
    .slice(0, most)
    .map((s) => s.material);
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[\s,-]+/)
    .filter(Boolean);
