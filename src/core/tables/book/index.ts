import { clearancePage } from "./clearancePage";
import { figureIn } from "../table";
import { drillPages } from "./drills";
import { fitPages } from "./fits";
import { inchScrewPages } from "./inchScrews";
import { keyPages } from "./keys";
import { metricScrewPages } from "./metricScrews";
import { plainSize, sizeBehind, type TableEntry, type TablePage } from "./page";
import { pinPages } from "./pins";
import { ringPages } from "./rings";
import { sealPage } from "./seals";
import { stockPages } from "./stock";
import { tSlotPage } from "./tSlots";
import { taperPages } from "./tapers";
import { threadPages } from "./threads";
import { runOutPage, undercutPage } from "./undercuts";

export type { TableEntry, TablePage } from "./page";

/** Every table, in the order in which a query is tried: those with a name of their own before bare sizes. */
export const tablePages: readonly TablePage[] = [
  clearancePage,
  ...metricScrewPages,
  ...inchScrewPages,
  ...pinPages,
  ...keyPages,
  tSlotPage,
  ...ringPages,
  sealPage,
  undercutPage,
  runOutPage,
  ...taperPages,
  ...drillPages,
  ...fitPages,
  ...threadPages,
  ...stockPages,
];

/**
 * What a table says of what a query calls: `M10-6g`, `M6 clearance`, `25 H7`, `keyway 28`, `ISO 4762 M6`, `DIN 471 20`,
 * `DRILL #7`. Null where no table knows it.
 */
export function lookUp(query: string): TableEntry | null {
  const asked = query.trim();
  if (!asked) return null;
  for (const page of tablePages) {
    const found = page.find(asked);
    if (found) return found;
  }
  return null;
}

/** An entry with the table it stands in. */
export interface Found {
  page: TablePage;
  entry: TableEntry;
}
let listed: { found: Found; text: string }[] | null = null;
const all = () =>
  (listed ??= tablePages.flatMap((page) =>
    page.entries().map((entry) => ({
      found: { page, entry },
      text: `${entry.what} ${entry.standard} ${page.title} ${Object.values(entry.words ?? {}).join(" ")}`.toUpperCase(),
    })),
  ));

/**
 * Entries that have every word of a query in their name, their standard or their table's title, those whose name begins
 * with it first.
 */
export function searchTables(query: string, most = 40): Found[] {
  const words = query.trim().toUpperCase().split(/\s+/).filter(Boolean);
  if (!words.length) return [];
  const whole = plainSize(query);
  const hits = all().filter(({ text }) => words.every((w) => text.includes(w)));
  const rank = ({ found }: { found: Found }) => (plainSize(found.entry.what).startsWith(whole) ? 0 : 1);
  return hits
    .sort((a, b) => rank(a) - rank(b))
    .slice(0, most)
    .map((h) => h.found);
}

/** Figures of a text in their order, and its words. */
function pieces(text: string): { figures: number[]; words: string[] } {
  const plain = text.toUpperCase();
  const figures = [...plain.matchAll(/\d+-\d+\/\d+|\d+\/\d+|\d*\.?\d+/g)].map(([t]) => figureIn(t));
  return { figures, words: plain.match(/[A-Z]+/g) ?? [] };
}
/** Another word is as far as so many figures that are not the same. */
const OTHER_WORD = 3;
/** What is further than this is no size that was meant. */
const NEAR = 8;

/** The table a query names, with the query as that table's entries are called. */
function tableNamed(query: string): { page: TablePage; asked: string } | null {
  for (const page of tablePages) {
    const size = page.names && sizeBehind(query, page.names);
    if (size) return { page, asked: `${page.names![0]} ${size.replace(/^#/, "No. ")}` };
  }
  return null;
}

/** The sizes whose names are nearest to what no table has, the nearest first. */
export function nearestSizes(query: string, most = 3): TableEntry[] {
  const named = tableNamed(query);
  const asked = pieces(named?.asked ?? query);
  if (!asked.figures.length) return [];
  const off = (name: string): number => {
    const { figures, words } = pieces(name);
    const others = [...words.filter((w) => !asked.words.includes(w)), ...asked.words.filter((w) => !words.includes(w))];
    const count = Math.max(figures.length, asked.figures.length);
    let sum = OTHER_WORD * others.length;
    for (let i = 0; i < count; i++) {
      const [a, b] = [asked.figures[i], figures[i]];
      if (a !== b) sum += a === undefined || b === undefined ? 2 : 1 + Math.abs(a - b) / Math.max(a, b);
    }
    return sum;
  };
  const among = named ? named.page.entries() : all().map(({ found }) => found.entry);
  return among
    .map((entry) => ({ entry, off: off(entry.what) }))
    .filter((x) => named !== null || x.off < NEAR)
    .sort((a, b) => a.off - b.off)
    .slice(0, most)
    .map((x) => x.entry);
}

/** How many figures of the tables agree with a second source that is independent of the first. */
export const figuresSeenTwice = (): number =>
  tablePages.reduce((n, p) => n + (p.second ? p.entries().reduce((m, e) => m + p.second!.figures(e), 0) : 0), 0);

/** How many figures the tables hold. */
export const figuresHeld = (): number =>
  all().reduce(
    (n, { found: { entry } }) => n + Object.keys(entry.values).length + Object.keys(entry.angles ?? {}).length,
    0,
  );
