import { problems } from "./problems";
import { z } from "zod";
import { fail, ok, type Result } from "../base/result";
import type { Clause, Draft, NumberField, RowNames } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import { inCallout, numberText, UNKNOWN, type NumberText } from "../number";
import type { Extent, Field, SeatedPlane } from "./kind";
import { planeRef, readPlane, writePlane, type PlaneRef } from "./planeRef";

/** An end at a plane, and how far past it; a minus stops short. */
const endAtPlane = z.strictObject({ plane: planeRef, past: numberText.optional() });
type EndAtPlane = z.infer<typeof endAtPlane>;

/** How deep a cut goes: through everything in its way, to a depth below its plane, to another plane, or to the next void. */
export const depthFields = {
  depth: z.enum(["thru", "deep", "to", "next"]),
  deep: numberText.optional(),
  to: endAtPlane.optional(),
};
/** How high what is left goes: a number, to another plane, or down until it has met material. */
export const heightFields = {
  height: numberText.optional(),
  to: endAtPlane.optional(),
  next: z.literal(true).optional(),
  way: z.enum(["both", "down"]).optional(),
};
/** What an end at a plane comes to in a resolved row. */
export interface ResolvedEnd {
  plane: PlaneRef & { made?: unknown };
  past?: number;
}

/** `FLOOR OF 3 +.0625`. */
function readEnd(r: Reader, names: RowNames): EndAtPlane {
  const plane = readPlane(r, names, " or NEXT");
  r.skip();
  const sign = r.text[r.pos];
  if (sign !== "+" && sign !== "-") return { plane };
  if (sign === "+") r.pos++;
  return { plane, past: r.number("to.past", "a distance past the plane") };
}
const writeEnd = (end: EndAtPlane, names: RowNames): string =>
  writePlane(end.plane, names) +
  (end.past === undefined ? "" : ` ${end.past.startsWith("-") ? "" : "+"}${inCallout(end.past)}`);
const pastOf = (row: Draft): NumberField[] =>
  row.to?.past === undefined
    ? []
    : [{ path: "to.past", label: "Past the plane", quantity: "coordinate", means: "coordinate", text: row.to.past }];

/** `DEEP d`, `THRU`, `DEEP TO plane`, `DEEP TO NEXT`; DEEP may be left out before TO. */
export const depthClause: Clause = {
  expected: "DEEP or THRU",
  required: true,
  starts: (r) => r.sees("DEEP") || r.sees("THRU") || r.sees("TO"),
  read(r, row, names) {
    if (r.take("THRU")) row.depth = "thru";
    else {
      r.take("DEEP");
      if (!r.take("TO")) {
        row.depth = "deep";
        row.deep = r.number("deep", "depth");
      } else if (r.take("NEXT")) row.depth = "next";
      else {
        row.depth = "to";
        row.to = readEnd(r, names);
      }
    }
  },
  write(row, names) {
    switch (row.depth) {
      case "thru":
        return "THRU";
      case "next":
        return "DEEP TO NEXT";
      case "to":
        return `DEEP TO ${writeEnd(row.to, names)}`;
      default:
        return row.deep === undefined ? "" : `DEEP ${inCallout(row.deep)}`;
    }
  },
  numbers: (row) =>
    row.depth === "deep" && row.deep !== undefined
      ? [{ path: "deep", label: "Depth", quantity: "length", means: "depth", text: row.deep }]
      : pastOf(row),
};

/** `X h`, `X TO plane`, `X TO NEXT` at the head of a leave row, with `BOTH` or `DOWN` behind it. */
export const heightPart = {
  expected: "X and a height",
  starts: (r: Reader) => r.sees("X"),
  read(r: Reader, row: Draft, names: RowNames) {
    r.want("X");
    if (!r.take("TO")) row.height = r.number("height", "height");
    else if (r.take("NEXT")) row.next = true;
    else row.to = readEnd(r, names);
  },
  write(row: Draft, names: RowNames) {
    if (row.next) return "X TO NEXT";
    return row.to ? `X TO ${writeEnd(row.to, names)}` : `X ${inCallout(row.height)}`;
  },
  numbers: (row: Draft): NumberField[] =>
    row.height === undefined
      ? pastOf(row)
      : [{ path: "height", label: "Height", quantity: "length", means: "length", text: row.height }],
};
/** `BOTH`: half to each side of the plane; `DOWN`: into the material side. */
export const wayClause: Clause = {
  expected: "BOTH or DOWN",
  starts: (r) => r.sees("BOTH") || r.sees("DOWN"),
  read(r, row) {
    row.way = r.takeOne(["BOTH", "DOWN"] as const)!.toLowerCase();
  },
  write: (row) => (row.way ? row.way.toUpperCase() : ""),
  numbers: () => [],
};

/** A plane of a resolved row, with where below it a cut starts. Named planes come with what they are made of. */
export const planeOf = (plane: object & { start?: number }): SeatedPlane =>
  ({ ...plane, start: plane.start ?? 0 }) as SeatedPlane;

const endOf = (to: object): Extent => {
  const end = to as ResolvedEnd;
  return { to: planeOf(end.plane as object), past: end.past ?? 0 };
};

export function depthOf(row: { depth: string; deep?: number; to?: object }): Result<Extent> {
  if (row.depth === "thru" || row.depth === "next") return ok(row.depth);
  if (row.depth === "to" && row.to) return ok(endOf(row.to));
  return row.deep === undefined ? fail(problems.depthMissing(), { path: "deep" }) : ok(row.deep);
}
/** The depth where it is a number before anything is placed. */
export const plainDepth = (row: { depth: string; deep?: number }): number | null =>
  row.depth === "deep" && row.deep !== undefined ? row.deep : null;

export function heightOf(row: { height?: number; to?: object; next?: true }): Result<Extent> {
  if (row.next) return ok("next");
  if (row.to) return ok(endOf(row.to));
  return row.height === undefined ? fail(problems.heightMissing(), { path: "height" }) : ok(row.height);
}

const asked = UNKNOWN as NumberText;
const topEnd = { plane: { on: "bottom" as const } };
/** Where a cut ends, in the editor. */
export const depthField: Field = {
  field: "choice",
  path: "depth",
  label: "Depth",
  options: [
    { value: "deep", label: "to a depth", set: { depth: "deep", deep: asked, to: undefined } },
    { value: "thru", label: "through", set: { depth: "thru", deep: undefined, to: undefined } },
    { value: "next", label: "up to the next void", set: { depth: "next", deep: undefined, to: undefined } },
    { value: "to", label: "up to a plane", set: { depth: "to", deep: undefined, to: topEnd } },
  ],
};
export const depthEditor: Field[] = [
  depthField,
  { field: "number", path: "deep", label: "Depth" },
  { field: "plane", path: "to.plane", label: "Up to" },
  { field: "number", path: "to.past", label: "Past it", optional: true },
];
/** How high what is left goes, in the editor. */
export const heightEditor: Field[] = [
  {
    field: "choice",
    path: "end",
    label: "Ends",
    chosen: (body) => ("next" in body ? "next" : "to" in body ? "to" : ""),
    options: [
      { value: "", label: "at a height", set: { height: asked, to: undefined, next: undefined } },
      { value: "next", label: "where it meets material", set: { height: undefined, to: undefined, next: true } },
      { value: "to", label: "at a plane", set: { height: undefined, next: undefined, to: topEnd } },
    ],
  },
  { field: "number", path: "height", label: "Height" },
  { field: "plane", path: "to.plane", label: "Up to" },
  { field: "number", path: "to.past", label: "Past it", optional: true },
  {
    field: "choice",
    path: "way",
    label: "Goes",
    options: [
      { value: "", label: "off its plane", set: { way: undefined } },
      { value: "both", label: "half to each side", set: { way: "both" } },
      { value: "down", label: "into the material side", set: { way: "down" } },
    ],
  },
];
