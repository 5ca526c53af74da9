import { slipsBetween } from "../base/slips";
import { table } from "./table";

/** What cuts alike, by the letters of ISO 513: steel, stainless, cast iron, soft metals, heat-resistant, and plastics. */
export type MaterialGroup = "P" | "M" | "K" | "N" | "S" | "O";

/** A material a shop buys: density in g/cm³, what it cuts like, and its hardness as it is usually delivered. */
export interface Material {
  name: string;
  density: number;
  aliases: string[];
  family:
    "aluminium" | "steel" | "copper alloy" | "titanium" | "iron" | "plastic" | "magnesium" | "nickel alloy" | "zinc";
  group: MaterialGroup;
  hardness: string;
}

/** Name, density, family, group, hardness as delivered, other names: tempers and numbers of the same metal among them. */
const listed = `
aluminium 6061 | 2.70 | aluminium | N | 95 HB (T6) | aluminum 6061, 6061, 6061-t6, 6061-t651, en aw-6061, 3.3211, aluminium
aluminium 6063 | 2.70 | aluminium | N | 73 HB (T6) | aluminum 6063, 6063, 6063-t6, 6063-t5, 6060, 6060-t6, en aw-6063
aluminium 6082 | 2.70 | aluminium | N | 94 HB (T6) | aluminum 6082, 6082, 6082-t6, 6082-t651, en aw-6082, 3.2315
aluminium 7075 | 2.81 | aluminium | N | 150 HB (T6) | aluminum 7075, 7075, 7075-t6, 7075-t651, 7075-t73, en aw-7075, 3.4365
aluminium 2024 | 2.78 | aluminium | N | 120 HB (T3) | aluminum 2024, 2024, 2024-t3, 2024-t351, 2024-t4, en aw-2024, 3.1355
aluminium 2011 | 2.83 | aluminium | N | 95 HB (T3) | aluminum 2011, 2011, 2011-t3, en aw-2011
aluminium 2017 | 2.79 | aluminium | N | 105 HB (T4) | aluminum 2017, 2017, 2017-t4, en aw-2017, 3.1325
aluminium 5052 | 2.68 | aluminium | N | 60 HB (H32) | aluminum 5052, 5052, 5052-h32, en aw-5052
aluminium 5083 | 2.66 | aluminium | N | 75 HB (H111) | aluminum 5083, 5083, 5083-h111, en aw-5083, 3.3547
aluminium 3003 | 2.73 | aluminium | N | 40 HB (H14) | aluminum 3003, 3003, 3003-h14
aluminium cast a356 | 2.68 | aluminium | N | 80 HB (T6) | a356, 356, a356-t6, cast aluminium
steel 1018 | 7.87 | steel | P | 126 HB cold drawn | 1018, a36, mild steel, steel
steel 1020 | 7.87 | steel | P | 121 HB cold drawn | 1020, c22, 1.0402
steel 1045 | 7.85 | steel | P | 179 HB cold drawn | 1045, c45, c45e, 1.0503, 1.1191
steel 1095 | 7.85 | steel | P | 197 HB annealed | 1095
steel 1215 | 7.87 | steel | P | 167 HB cold drawn | 1215
steel 12l14 | 7.87 | steel | P | 163 HB cold drawn | 12l14, 11smnpb30, 1.0718, free cutting steel
steel 1144 | 7.85 | steel | P | 217 HB cold drawn | 1144
steel s235 | 7.85 | steel | P | 120 HB as rolled | s235, s235jr, st37, 1.0038
steel s355 | 7.85 | steel | P | 160 HB as rolled | s355, s355jr, st52, 1.0045, 1.0577
steel 4130 | 7.85 | steel | P | 197 HB annealed | 4130, 25crmo4, 1.7218
steel 4140 | 7.85 | steel | P | 197 HB annealed, 280 to 320 HB prehardened | 4140, 4140 ph, 42crmo4, 1.7225
steel 4340 | 7.85 | steel | P | 217 HB annealed | 4340, 34crnimo6, 1.6582
steel 8620 | 7.85 | steel | P | 149 HB annealed | 8620, 21nicrmo2, 1.6523
steel 16mncr5 | 7.85 | steel | P | 170 HB annealed | 16mncr5, 1.7131
steel 52100 | 7.81 | steel | P | 200 HB annealed | 52100, 100cr6, 1.3505, bearing steel
tool steel o1 | 7.83 | steel | P | 200 HB annealed | o1, 1.2510, 100mncrw4
tool steel a2 | 7.86 | steel | P | 210 HB annealed | a2, 1.2363
tool steel d2 | 7.70 | steel | P | 217 HB annealed | d2, 1.2379, tool steel
tool steel h13 | 7.80 | steel | P | 200 HB annealed | h13, 1.2344
tool steel s7 | 7.83 | steel | P | 197 HB annealed | s7
tool steel p20 | 7.85 | steel | P | 300 HB prehardened | p20, 1.2311
tool steel m2 | 8.16 | steel | P | 230 HB annealed | m2, 1.3343, high speed steel
stainless 303 | 8.00 | steel | M | 160 HB annealed | 303, 1.4305
stainless 304 | 8.00 | steel | M | 150 HB annealed | 304, 304l, 1.4301, 1.4307, stainless
stainless 316 | 8.00 | steel | M | 150 HB annealed | 316, 316l, 1.4401, 1.4404, a4
stainless 321 | 7.92 | steel | M | 150 HB annealed | 321, 1.4541
stainless 410 | 7.74 | steel | M | 155 HB annealed | 410, 1.4006, chromium stainless
stainless 416 | 7.74 | steel | M | 155 HB annealed | 416, 1.4005
stainless 420 | 7.74 | steel | M | 195 HB annealed | 420, 1.4021, 1.4034
stainless 430 | 7.74 | steel | M | 155 HB annealed | 430, 1.4016
stainless 440c | 7.65 | steel | M | 230 HB annealed | 440c, 1.4125
stainless 17-4 | 7.78 | steel | M | 330 HB solution treated | 17-4 ph, 17-4, 17-4ph, 630, 1.4542
stainless 15-5 | 7.78 | steel | M | 330 HB solution treated | 15-5 ph, 15-5, 15-5ph, 1.4545
duplex 2205 | 7.80 | steel | M | 250 HB annealed | 2205, 1.4462, duplex
cast iron | 7.20 | iron | K | 200 HB as cast | grey iron, gray iron, gg25, en-gjl-250
ductile iron | 7.10 | iron | K | 180 HB as cast | nodular iron, ggg40, en-gjs-400, 65-45-12
brass | 8.50 | copper alloy | N | 100 HB half hard | brass 360, c360, c36000, cuzn39pb3, cw614n, ms58
naval brass | 8.41 | copper alloy | N | 100 HB half hard | c464, c46400
bronze | 8.80 | copper alloy | N | 75 HB as cast | tin bronze
bearing bronze | 8.93 | copper alloy | N | 65 HB as cast | c932, c93200, sae 660
aluminium bronze | 7.45 | copper alloy | N | 170 HB as cast | c954, c95400
phosphor bronze | 8.86 | copper alloy | N | 110 HB half hard | c510, c51000
copper | 8.94 | copper alloy | N | 50 HB soft, 90 HB hard | c110, c11000, c101, cu-etp, e-cu
tellurium copper | 8.94 | copper alloy | N | 90 HB half hard | c145, c14500, cutep
titanium 6al-4v | 4.43 | titanium | S | 334 HB annealed | titanium, ti-6al-4v, ti6al4v, grade 5, ti grade 5, 3.7165
titanium grade 2 | 4.51 | titanium | S | 160 HB annealed | ti grade 2, grade 2, cp titanium, 3.7035
nickel alloy 625 | 8.44 | nickel alloy | S | 190 HB annealed | 625, n06625, 2.4856
nickel alloy 718 | 8.19 | nickel alloy | S | 340 HB aged | 718, n07718, 2.4668
nickel copper alloy 400 | 8.80 | nickel alloy | S | 140 HB annealed | alloy 400, n04400, 2.4360
magnesium az31b | 1.77 | magnesium | N | 73 HB | az31, az31b, magnesium
zinc alloy za-12 | 6.03 | zinc | N | 100 HB as cast | za-12, zinc
acetal | 1.41 | plastic | O | 85 shore D | pom, pom-c, acetal copolymer
acetal homopolymer | 1.42 | plastic | O | 86 shore D | pom-h
nylon | 1.14 | plastic | O | 80 shore D | pa6, pa66, nylon 6/6, nylon 6
ptfe | 2.17 | plastic | O | 55 shore D | polytetrafluoroethylene
peek | 1.31 | plastic | O | 86 shore D | polyetheretherketone
acrylic | 1.18 | plastic | O | 90 shore D | pmma
polycarbonate | 1.20 | plastic | O | 80 shore D | pc
abs | 1.05 | plastic | O | 78 shore D | acrylonitrile butadiene styrene
pvc | 1.40 | plastic | O | 80 shore D | pvc-u, polyvinyl chloride
polyethylene | 0.95 | plastic | O | 65 shore D | hdpe, pe-hd, pe
uhmw polyethylene | 0.93 | plastic | O | 63 shore D | uhmw, uhmwpe, pe-uhmw, pe 1000
polypropylene | 0.91 | plastic | O | 70 shore D | pp, pp-h
pet | 1.38 | plastic | O | 87 shore D | pet-p, petp
polyetherimide | 1.27 | plastic | O | 109 rockwell M | pei
pvdf | 1.78 | plastic | O | 78 shore D | polyvinylidene fluoride
phenolic | 1.36 | plastic | O | 110 rockwell M | phenolic canvas, g-3, hgw
glass epoxy | 1.85 | plastic | O | 110 rockwell M | g10, g-10, fr4, fr-4`;

export const materials = table<Material>({
  source: "handbook densities and hardnesses as usually delivered; from memory: the maker's certificate counts",
  checked: "ranges by family, and every name one material's, in tables.test.ts",
  rows: listed
    .trim()
    .split("\n")
    .map((line) => line.split("|").map((part) => part.trim()))
    .map(([name, density, family, group, hardness, aliases]) => ({
      name,
      density: Number(density),
      family: family as Material["family"],
      group: group as MaterialGroup,
      hardness,
      aliases: aliases.split(",").map((a) => a.trim()),
    })),
});

/** A name as it is compared: `Ti 6Al-4V`, `TI-6AL-4V`, `17-4PH` and `17-4 PH` are one. */
const plainName = (name: string): string => name.toLowerCase().replace(/[\s-]+/g, "");

/** The table's row for a name, whatever its case, blanks and dashes; null when no row has it. */
export function findMaterial(name: string): Material | null {
  const n = plainName(name);
  return materials.rows.find((m) => [m.name, ...m.aliases].some((a) => plainName(a) === n)) ?? null;
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
