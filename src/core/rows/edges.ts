import { z } from "zod";
import { v3 } from "../geometry/vec";
import { flag, type Clause, type NumberField, type Part, type RowNames } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import { numberText } from "../number";
import { planeOf } from "./extent";
import type { EdgeChoice, Field } from "./kind";
import { writePoint } from "./places";
import { planeRef, readPlane, rowRef, writePlane } from "./planeRef";

const point = z.strictObject({ x: numberText, y: numberText, z: numberText });
/**
 * Edges by meaning: the rim of the top or bottom, upright corners, the mouth or floor of a row, all sharp ones; those
 * along an axis, between two faces, nearest to a place.
 */
const edgeChoice = z.discriminatedUnion("edge", [
  z.strictObject({ edge: z.enum(["outerTop", "outerBottom", "vertical"]), row: rowRef.optional() }),
  z.strictObject({ edge: z.literal("allSharp") }),
  z.strictObject({ edge: z.enum(["mouthOf", "floorOf"]), row: rowRef }),
  z.strictObject({ edge: z.literal("along"), along: z.enum(["x", "y", "z"]), row: rowRef.optional() }),
  z.strictObject({ edge: z.literal("between"), a: planeRef, b: planeRef }),
  z.strictObject({ edge: z.literal("at"), at: point }),
]);
export const edgeList = z.array(edgeChoice).min(1).max(50);
export type EdgeText = z.infer<typeof edgeChoice>;

/** Said of a treatment that leaves the edges it is too large for: `CUT ROUND 3 VERTICAL FITTING`. */
export const fitting = z.literal(true).optional();
export const fittingClause: Clause = flag("FITTING", "fitting");
export const fittingField: Field = {
  field: "choice",
  path: "fitting",
  label: "Where it is too large",
  options: [
    { value: "", label: "the row fails", set: { fitting: undefined } },
    { value: "true", label: "the edge is left", set: { fitting: true } },
  ],
};
export const fittingOf = (row: { fitting?: true }): { fitting?: true } => (row.fitting ? { fitting: true } : {});

const plain: [string[], "outerTop" | "outerBottom" | "vertical" | "allSharp"][] = [
  [["OUTER", "TOP"], "outerTop"],
  [["OUTER", "BOTTOM"], "outerBottom"],
  [["VERTICAL"], "vertical"],
  [["ALL", "SHARP"], "allSharp"],
];
const EXPECTED =
  "OUTER TOP, OUTER BOTTOM, VERTICAL, MOUTH OF n, FLOOR OF n, ALL SHARP, ALONG X, BETWEEN face AND face or EDGE AT x,y,z";

const rowAt = (r: Reader, names: RowNames): string => names.idOf(r.whole("the number of a row"));
const ofRow = (r: Reader, names: RowNames) => (r.take("OF") ? { row: rowAt(r, names) } : {});

/** `x,y,z`. */
function readPlace(r: Reader, path: string) {
  const comma = (between: string) => {
    r.skip();
    if (r.text[r.pos] !== ",") r.fail(`a comma between ${between}`);
    r.pos++;
  };
  const x = r.number(`${path}.x`, "a place x,y,z");
  comma("x and y");
  const y = r.number(`${path}.y`, "a coordinate y");
  comma("y and z");
  return { x, y, z: r.number(`${path}.z`, "a coordinate z") };
}

function readEdge(r: Reader, names: RowNames, index: number): EdgeText {
  const p = plain.find(([w]) => r.take(...w));
  if (p) return p[1] === "allSharp" ? { edge: p[1] } : { edge: p[1], ...ofRow(r, names) };
  if (r.take("MOUTH", "OF")) return { edge: "mouthOf", row: rowAt(r, names) };
  if (r.take("FLOOR", "OF")) return { edge: "floorOf", row: rowAt(r, names) };
  if (r.take("ALONG")) {
    const along = r.takeOne(["X", "Y", "Z"] as const) ?? r.fail("X, Y or Z");
    return { edge: "along", along: along.toLowerCase() as "x", ...ofRow(r, names) };
  }
  if (r.take("BETWEEN")) {
    const a = readPlane(r, names);
    r.want("AND");
    return { edge: "between", a, b: readPlane(r, names) };
  }
  if (r.take("EDGE", "AT")) return { edge: "at", at: readPlace(r, `edges.${index}.at`) };
  if (r.take("OUTER"))
    r.fail(
      "TOP or BOTTOM: the other edges are VERTICAL, MOUTH OF n, FLOOR OF n or ALL SHARP",
      `there are no edges OUTER ${r.here || "…"}`,
    );
  return r.fail(EXPECTED);
}

function writeEdge(e: EdgeText, names: RowNames): string {
  switch (e.edge) {
    case "mouthOf":
      return `MOUTH OF ${names.numberOf(e.row)}`;
    case "floorOf":
      return `FLOOR OF ${names.numberOf(e.row)}`;
    case "along":
      return `ALONG ${e.along.toUpperCase()}${e.row === undefined ? "" : ` OF ${names.numberOf(e.row)}`}`;
    case "between":
      return `BETWEEN ${writePlane(e.a, names)} AND ${writePlane(e.b, names)}`;
    case "at":
      return `EDGE AT ${writePoint(e.at)}`;
    default: {
      const words = plain.find(([, k]) => k === e.edge)![0].join(" ");
      return "row" in e && e.row !== undefined ? `${words} OF ${names.numberOf(e.row)}` : words;
    }
  }
}

/** The list of edges at the end of a chamfer, round or break row. */
export const edgesPart: Part = {
  expected: EXPECTED,
  starts: (r) =>
    ["OUTER", "VERTICAL", "ALL", "MOUTH", "FLOOR", "ALONG", "BETWEEN"].some((w) => r.sees(w)) || r.sees("EDGE", "AT"),
  read(r, row, names) {
    row.edges = [];
    do {
      row.edges.push(readEdge(r, names, row.edges.length));
      r.skip();
    } while (r.text[r.pos] === "," && ++r.pos);
  },
  write: (row, names) => row.edges.map((e: EdgeText) => writeEdge(e, names)).join(", "),
  numbers: (row) =>
    (row.edges as EdgeText[]).flatMap((e, i) =>
      e.edge !== "at"
        ? []
        : (["x", "y", "z"] as const).map((k): NumberField => ({
            path: `edges.${i}.at.${k}`,
            label: k.toUpperCase(),
            quantity: "coordinate",
            means: "coordinate",
            text: e.at[k],
          })),
    ),
};

type ResolvedEdge =
  | Exclude<EdgeText, { edge: "between" | "at" }>
  | { edge: "between"; a: object; b: object }
  | { edge: "at"; at: { x: number; y: number; z: number } };

/** The edges a resolved row means. */
export const edgesOf = (row: { edges: object[] }): EdgeChoice[] =>
  (row.edges as ResolvedEdge[]).map((e): EdgeChoice => {
    if (e.edge === "between") return { edge: "between", a: planeOf(e.a), b: planeOf(e.b) };
    return e.edge === "at" ? { edge: "at", at: v3(e.at.x, e.at.y, e.at.z) } : e;
  });
