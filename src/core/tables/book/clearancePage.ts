import { clearanceHole, clearanceWords, inchClearance, metricClearance } from "../clearance";
import { cleaned, FROM_MEMORY, type TableEntry, type TablePage } from "./page";

const words = clearanceWords.join("|");
const form = new RegExp(
  String.raw`^(?:CLEARANCE(?: HOLE)?(?: FOR)? )?(.+?)(?: (${words}))?(?: FIT)?(?: CLEARANCE(?: HOLE)?)?(?: (${words}))?(?: FIT)?$`,
  "i",
);
const isAsked = (query: string): boolean =>
  /CLEARANCE|\bFIT\b|\b(?:CLOSE|LOOSE|FREE)$|^ISO 273|^ASME B18\.2\.8/i.test(query);

function entry(screw: string, word = ""): TableEntry | null {
  const hole = clearanceHole(screw, word);
  if (!hole) return null;
  return {
    what: `${hole.screw} clearance ${hole.class}`,
    standard: hole.standard,
    source: FROM_MEMORY,
    values: cleaned({ hole: hole.diameter, ...hole.all }),
  };
}

export const clearancePage: TablePage = {
  id: "clearance",
  title: "Clearance holes for screws",
  standard: "ISO 273, ASME B18.2.8",
  source: FROM_MEMORY,
  example: "M6 clearance",
  entries: () => [...metricClearance.rows, ...inchClearance.rows].flatMap((r) => entry(r.name) ?? []),
  find(query) {
    if (!isAsked(query)) return null;
    const plain = query
      .trim()
      .replace(/\s+/g, " ")
      .replace(/^(?:ISO 273|ASME B18\.2\.8) /i, "");
    const m = form.exec(plain);
    return m && entry(m[1], m[2] ?? m[3]);
  },
};
