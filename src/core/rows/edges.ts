import { z } from "zod";
import type { Part } from "../grammar/grammar";
import { rowRef } from "./places";

/** Edges by meaning: the rim of the top or bottom, upright corners, the mouth or floor of a row, all sharp ones. */
const edgeChoice = z.discriminatedUnion("edge", [
  z.strictObject({ edge: z.enum(["outerTop", "outerBottom", "vertical", "allSharp"]) }),
  z.strictObject({ edge: z.enum(["mouthOf", "floorOf"]), row: rowRef }),
]);
export const edgeList = z.array(edgeChoice).min(1).max(50);
type EdgeText = z.infer<typeof edgeChoice>;

const plain: [string[], "outerTop" | "outerBottom" | "vertical" | "allSharp"][] = [
  [["OUTER", "TOP"], "outerTop"],
  [["OUTER", "BOTTOM"], "outerBottom"],
  [["VERTICAL"], "vertical"],
  [["ALL", "SHARP"], "allSharp"],
];

/** The list of edges at the end of a chamfer, round or break row. */
export const edgesPart: Part = {
  expected: "OUTER TOP, OUTER BOTTOM, VERTICAL, MOUTH OF n, FLOOR OF n or ALL SHARP",
  starts: (r) =>
    plain.some(([w]) => r.sees(...w)) ||
    r.sees("MOUTH", "OF") ||
    r.sees("FLOOR", "OF") ||
    r.sees("OUTER") ||
    r.sees("ALL") ||
    r.sees("MOUTH") ||
    r.sees("FLOOR"),
  read(r, row, names) {
    row.edges = [];
    do {
      const p = plain.find(([w]) => r.take(...w));
      if (p) row.edges.push({ edge: p[1] });
      else if (r.take("MOUTH", "OF"))
        row.edges.push({ edge: "mouthOf", row: names.idOf(r.whole("the number of a row")) });
      else if (r.take("FLOOR", "OF"))
        row.edges.push({ edge: "floorOf", row: names.idOf(r.whole("the number of a row")) });
      else if (r.take("OUTER"))
        r.fail(
          "TOP or BOTTOM: the other edges are VERTICAL, MOUTH OF n, FLOOR OF n or ALL SHARP",
          `there are no edges OUTER ${r.here || "…"}`,
        );
      else r.fail(this.expected);
      r.skip();
    } while (r.text[r.pos] === "," && ++r.pos);
  },
  write: (row, names) =>
    row.edges
      .map((e: EdgeText) => {
        if (e.edge === "mouthOf") return `MOUTH OF ${names.numberOf(e.row)}`;
        if (e.edge === "floorOf") return `FLOOR OF ${names.numberOf(e.row)}`;
        return plain.find(([, k]) => k === e.edge)![0].join(" ");
      })
      .join(", "),
  numbers: () => [],
};
