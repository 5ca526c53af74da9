import { byFigures, unitOf } from "../../number";
import { startingValues } from "../cuttingData";
import { findMaterial, materials, type Material } from "../materials";
import { profiles } from "../profiles";
import { stockSizes } from "../stockSizes";
import { figureIn } from "../table";
import { cleaned, once, plainSize, PRACTICE, type TableEntry, type TablePage } from "./page";

/** What is said of a material: its weight, what it cuts like, and where one starts with it. */
function materialEntry(m: Material): TableEntry {
  const starts = startingValues.rows.filter((v) => v.group === m.group);
  const speed = (cutter: string) => {
    const of = starts.filter((v) => v.cutter === cutter);
    return `${Math.min(...of.map((v) => v.speed[0]))} to ${Math.max(...of.map((v) => v.speed[1]))} m/min`;
  };
  return {
    what: m.name,
    standard: "handbooks",
    source: materials.source,
    values: {},
    words: {
      density: `${m.density} g/cm³`,
      hardness: m.hardness,
      group: `${m.group} of ISO 513`,
      "also called": m.aliases.join(", "),
      "end mill, high speed steel": `${speed("high speed steel")}, a starting value`,
      "end mill, carbide": `${speed("carbide")}, a starting value`,
    },
  };
}
export const materialPage: TablePage = {
  id: "material",
  title: "Materials: density, hardness, what they cut like",
  standard: "handbooks",
  source: materials.source,
  example: "aluminium 7075",
  entries: once(() => materials.rows.map(materialEntry)),
  find(query) {
    const m = findMaterial(query.replace(/^MATERIAL\s+/i, ""));
    return m && materialEntry(m);
  },
};

export const speedPage: TablePage = {
  id: "speeds",
  title: "Surface speeds and feeds a tooth: starting values",
  standard: PRACTICE,
  source: startingValues.source,
  example: "speeds N",
  entries: () =>
    startingValues.rows.map((v) => ({
      what: `speeds ${v.group}: ${v.what}, ${v.cutter}`,
      standard: PRACTICE,
      source: startingValues.source,
      values: {},
      words: {
        "surface speed": `${v.speed[0]} to ${v.speed[1]} m/min`,
        "feed a tooth": `${v.feedShare[0]} to ${v.feedShare[1]} of the cutter's diameter`,
      },
    })),
  find(query) {
    const m = /^SPEEDS?\s+(.+)$/i.exec(query.trim());
    const words = m?.[1].toLowerCase();
    return (
      (words &&
        speedPage
          .entries()
          .find((e) => e.what.toLowerCase().includes(words.length === 1 ? `speeds ${words}` : words))) ||
      null
    );
  },
};

export const stockPage: TablePage = {
  id: "stock",
  title: "Stock: usual bars, plates, tubes and profiles",
  standard: PRACTICE,
  source: profiles.source,
  example: "round bar 20",
  entries: once(() => [
    ...stockSizes.rows.flatMap((r) => {
      const unit = unitOf[r.unit].mm;
      const sign = byFigures(r.unit, { in: " in", mm: "" });
      const of = (form: string, value: string, list: string[]): TableEntry[] =>
        list.map((s) => ({
          what: `${form} ${s}${sign}`,
          standard: PRACTICE,
          source: stockSizes.source,
          values: cleaned({ [value]: figureIn(s) * unit }),
        }));
      return [
        ...of("plate", "thickness", r.plateThickness),
        ...of("flat bar", "width", r.barWidth),
        ...of("round bar", "diameter", r.roundDiameter),
      ];
    }),
    ...profiles.rows.map((p) => ({
      what: p.name,
      standard: PRACTICE,
      source: profiles.source,
      values: cleaned({ width: p.width, wall: p.wall }),
    })),
  ]),
  find: (query) => stockPage.entries().find((e) => plainSize(e.what) === plainSize(query)) ?? null,
};

export const stockPages: readonly TablePage[] = [materialPage, speedPage, stockPage];
