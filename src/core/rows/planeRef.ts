import { nameText } from "../base/name";
import { z } from "zod";
import type { Clause, RowNames } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import type { Side } from "../geometry/vec";
import { inCallout, numberText } from "../number";

export const rowRef = z.string().min(1).max(64);
export const planeName = nameText.min(1);

const side = z.enum(["top", "bottom", "front", "back", "left", "right"]);
const start = numberText.optional();

/**
 * A plane by its meaning, never by an index: a side of the part, what a row gives (its floor, its top, another of its
 * sides, one of its upright flats), or a plane with a name of its own.
 */
export const planeRef = z.discriminatedUnion("on", [
  z.strictObject({ on: side, start }),
  z.strictObject({ on: z.literal("floorOf"), row: rowRef, start }),
  z.strictObject({ on: z.literal("topOf"), row: rowRef, start }),
  z.strictObject({ on: z.literal("sideOf"), side, row: rowRef, start }),
  /** The k-th upright flat, counted counter-clockwise from the first step of its outline. */
  z.strictObject({ on: z.literal("flatOf"), flat: z.number().int().min(1).max(5000), row: rowRef, start }),
  z.strictObject({ on: z.literal("named"), plane: planeName, start }),
]);
export type PlaneRef = z.infer<typeof planeRef>;

export const sideWords: [string, Side][] = [
  ["TOP", "top"],
  ["BOTTOM", "bottom"],
  ["FRONT", "front"],
  ["BACK", "back"],
  ["LEFT", "left"],
  ["RIGHT", "right"],
];
const PLANES = 'TOP, BOTTOM, FRONT, BACK, LEFT, RIGHT, FLOOR OF n, TOP OF n, SIDE k OF n, PLANE "name"';

const rowAt = (r: Reader, names: RowNames): string => names.idOf(r.whole("the number of a row"));

/** `SIDE 3`: a number has to follow. */
const seesFlat = (r: Reader): boolean => /^SIDE\s*\d/i.test(r.text.slice((r.skip(), r.pos)));

/** Whether a plane stands at the reading point. */
export const seesPlane = (r: Reader): boolean =>
  sideWords.some(([w]) => r.sees(w)) || r.sees("FLOOR", "OF") || seesFlat(r) || r.sees("PLANE");

/** Reads a plane. @param more what else may stand there, for the message */
export function readPlane(r: Reader, names: RowNames, more = ""): PlaneRef {
  if (r.take("FLOOR", "OF")) return { on: "floorOf", row: rowAt(r, names) };
  if (r.take("PLANE")) return { on: "named", plane: r.quoted().trim() };
  if (seesFlat(r)) {
    r.want("SIDE");
    const at = r.pos;
    const flat = r.whole("the number of a flat, counted from the first step");
    if (flat < 1) r.fail("a number from 1", "the flats are counted from 1", at);
    r.want("OF");
    return { on: "flatOf", flat, row: rowAt(r, names) };
  }
  const found = sideWords.find(([w]) => r.take(w));
  if (!found) return r.fail(PLANES + more);
  if (!r.take("OF")) return { on: found[1] };
  const row = rowAt(r, names);
  return found[1] === "top" ? { on: "topOf", row } : { on: "sideOf", side: found[1], row };
}

export function writePlane(p: PlaneRef, names: RowNames): string {
  switch (p.on) {
    case "floorOf":
      return `FLOOR OF ${names.numberOf(p.row)}`;
    case "topOf":
      return `TOP OF ${names.numberOf(p.row)}`;
    case "sideOf":
      return `${p.side.toUpperCase()} OF ${names.numberOf(p.row)}`;
    case "flatOf":
      return `SIDE ${p.flat} OF ${names.numberOf(p.row)}`;
    case "named":
      return `PLANE "${p.plane.replace(/"/g, "”")}"`;
    default:
      return p.on.toUpperCase();
  }
}

/** `ON TOP`, `ON FLOOR OF 3`, ...; on the top when nothing is said. */
export const planeClause: Clause = {
  expected: "ON and a plane",
  starts: (r) => r.sees("ON") && !r.sees("ON", "BC") && !r.sees("ON", "ROUND"),
  read(r, row, names) {
    if (row.round) r.fail("no other plane: the row is wrapped round another");
    r.want("ON");
    const kept = row.plane?.start === undefined ? {} : { start: row.plane.start };
    row.plane = { ...readPlane(r, names, " or BC"), ...kept };
  },
  write: (row, names) => (row.plane.on === "top" ? "" : `ON ${writePlane(row.plane, names)}`),
  numbers: () => [],
};

/** A leave row may stand on a plane of what is there: `ON TOP`, `ON TOP OF 1`, `ON FLOOR OF 2`. Without it, on Z0. */
export const standingClause: Clause = {
  ...planeClause,
  write: (row, names) => (row.plane === undefined ? "" : `ON ${writePlane(row.plane, names)}`),
};

/** `START s`: the cut begins s below its plane. */
export const startClause: Clause = {
  expected: "START",
  starts: (r) => r.sees("START"),
  read(r, row) {
    r.want("START");
    row.plane = { ...(row.plane ?? { on: "top" }), start: r.number("plane.start", "a depth below the plane") };
  },
  write: (row) => (row.plane.start === undefined ? "" : `START ${inCallout(row.plane.start)}`),
  numbers: (row) =>
    row.plane.start === undefined
      ? []
      : [{ path: "plane.start", label: "Start below", quantity: "offset", means: "depth", text: row.plane.start }],
};
