import type { Draft, RowNames } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import { readHolding, writeHolding } from "../job/holdings";
import { isGone } from "../job/names";
import type { Datum, Setup, Up } from "../job/schema";
import { inCallout } from "../number";
import { readPlane, seesPlane, sideWords, writePlane } from "../rows";
import { rowsPart } from "../rows/rowRange";

const machines = ["MILL", "LATHE", "INDEX"] as const;
const axes = ["X", "Y", "Z"] as const;
const lower = <T extends string>(word: T) => word.toLowerCase() as Lowercase<T>;

/** `SETUP 10 MILL UP TOP DATUM CENTRE HOLD VISE GRIP 3 ACROSS Y ROWS 1 3-6`, after its first word. */
export function readSetup(r: Reader, names: RowNames): Setup {
  r.skip();
  const at = r.pos;
  const op = r.whole("the number of a setup, such as 10");
  if (op < 1 || op > 9999) r.fail("a number from 1 to 9999", "a setup has a number from 1", at);
  const machine = r.takeOne(machines);
  if (!machine) return r.fail("MILL, LATHE or INDEX");
  const setup: Setup = { op, machine: lower(machine), up: "top", hold: null };
  while (!r.done) {
    if (r.take("UP")) setup.up = readUp(r, names);
    else if (r.take("DATUM")) setup.datum = readDatum(r, names);
    else if (r.take("HOLD")) setup.hold = readHolding(r);
    else if (r.take("ROWS") || r.take("ROW")) setup.rows = readRows(r, names);
    else r.fail("UP, DATUM, HOLD or ROWS");
  }
  return setup;
}

function readUp(r: Reader, names: RowNames): Up {
  if (r.take("INDEX")) {
    const index = r.angle("up.index");
    r.want("ABOUT");
    return { index, about: lower(r.takeOne(axes) ?? r.fail("X, Y or Z")) };
  }
  if (!seesPlane(r)) return r.fail("a side, a plane of a row, or INDEX and an angle");
  const plane = readPlane(r, names, " or INDEX");
  const side = sideWords.find(([, s]) => s === plane.on)?.[1];
  return side ?? { plane };
}

function readOf(r: Reader): { of?: "part" | "stock" } {
  if (!r.take("OF")) return {};
  const of = r.takeOne(["STOCK", "PART"] as const) ?? r.fail("STOCK or PART");
  return of === "STOCK" ? { of: "stock" } : {};
}

function readDatum(r: Reader, names: RowNames): Datum {
  if (r.take("CENTRE") || r.take("CENTER")) return { at: "centre", ...readOf(r) };
  if (r.take("AXIS")) {
    r.want("OF");
    return { at: "axis", row: names.idOf(r.whole("the number of a row")) };
  }
  if (r.take("JAW")) return { at: "jaw" };
  if (r.take("CHUCK")) return { at: "chuck" };
  const corner: Partial<Record<"x" | "y", string>> = {};
  for (let word; (word = r.takeOne(["LEFT", "RIGHT", "FRONT", "BACK"] as const));)
    corner[word === "LEFT" || word === "RIGHT" ? "x" : "y"] = word.toLowerCase();
  const { x, y } = corner as Partial<Extract<Datum, { at: "corner" }>>;
  return x && y
    ? { at: "corner", x, y, ...readOf(r) }
    : r.fail("CENTRE, LEFT FRONT (a corner), AXIS OF n, JAW or CHUCK");
}

/** `1 3-6`; commas do no harm. */
function readRows(r: Reader, names: RowNames): string[] {
  if (r.take("NONE")) return [];
  const rows: string[] = [];
  while (rowsPart.starts(r)) {
    const read: Draft = {};
    rowsPart.read(r, read, names);
    rows.push(...(read.rows as string[]));
  }
  if (!rows.length) r.fail("the numbers of rows, such as 1 3-6");
  return [...new Set(rows)];
}

/** Rows that are gone are cut by nobody: they are not written. */
function writeRows(ids: string[], names: RowNames): string {
  const rows = ids.filter((id) => !isGone(id) && names.idOf(Number(names.numberOf(id))) === id);
  return rows.length ? rowsPart.write({ rows }, names).replace(/,/g, "") : "NONE";
}

const writeUp = (up: Up, names: RowNames): string => {
  if (typeof up === "string") return up.toUpperCase();
  return "plane" in up ? writePlane(up.plane, names) : `INDEX ${inCallout(up.index)} ABOUT ${up.about.toUpperCase()}`;
};

function writeDatum(d: Datum, names: RowNames): string {
  const of = "of" in d && d.of === "stock" ? " OF STOCK" : "";
  switch (d.at) {
    case "centre":
      return `CENTRE${of}`;
    case "corner":
      return `${d.x} ${d.y}`.toUpperCase() + of;
    case "axis":
      return `AXIS OF ${names.numberOf(d.row)}`;
    case "jaw":
    case "chuck":
      return d.at.toUpperCase();
  }
}

/** A setup as one line of a card. */
export function writeSetup(s: Setup, names: RowNames): string {
  const rows = s.rows ? ` ROWS ${writeRows(s.rows, names)}` : "";
  const datum = s.datum ? ` DATUM ${writeDatum(s.datum, names)}` : "";
  const hold = s.hold ? ` HOLD ${writeHolding(s.hold)}` : "";
  return `SETUP ${s.op} ${s.machine.toUpperCase()} UP ${writeUp(s.up, names)}${datum}${hold}${rows}`;
}

/** Whether a setup is what the line `HOLD VISE ...` says, and no more. */
export const isPlainHold = (s: Setup): boolean =>
  s.op === 10 &&
  s.machine === "mill" &&
  !s.datum &&
  !s.rows &&
  s.hold?.fixture === "vise" &&
  (s.up === "top" || s.up === "bottom");
