import { drawnEdge } from "../../engine/edgeDrawn";
import type { EdgeInfo } from "../../engine/kernel";
import type { SolvedRow } from "../../engine/solve";
import { CONTACT } from "../../geometry/tolerance";
import { distanceToStretch, length, sub, type Vec3 } from "../../geometry/vec";
import type { Rule, RuleContext } from "../rule";

/** Edges that a treatment has left as they were, where its row says that it may: FITTING. */
export const edgesLeft: Rule = {
  id: "edges-left",
  find: (c) =>
    c.rows.flatMap((r, i) => {
      const treated = treatedEdges(c, r, i);
      const left = treated ? leftOf(treated, c.kernel.edges(r.key!)) : [];
      if (!treated || !left.length) return [];
      const many = left.length === 1 ? "is left as it was" : "are left as they were";
      return [
        {
          row: r.number,
          rowId: r.row.id,
          severity: "note",
          value: left.length,
          limit: 0,
          place: left[0].middle,
          lines: left.flatMap(drawnEdge),
          text: `${left.length} of ${treated.length} edges ${many}: this size does not fit there`,
          source: "geometry: each edge tried by itself, and with those beside it",
        },
      ];
    }),
};

/** The edges a FITTING row was to treat, as they were before it; null of any other row. */
function treatedEdges(c: RuleContext, r: SolvedRow, at: number): EdgeInfo[] | null {
  const step = r.state === "ok" ? r.placed?.step : null;
  if (step?.op !== "edges" || !step.fitting) return null;
  const before = c.rows.slice(0, at).findLast((x) => x.state === "ok" && x.key);
  if (!before?.key) return null;
  const edges = c.kernel.edges(before.key);
  return step.edges.map((e) => edges[e.edge]);
}

const leftOf = (treated: EdgeInfo[], now: EdgeInfo[]): EdgeInfo[] =>
  treated.filter((e) => now.some((n) => isOn(e.middle, n)));

/** Whether a place lies on an edge; of a bent one only its middle is asked. */
function isOn(p: Vec3, e: EdgeInfo): boolean {
  const away = e.curve === "line" ? distanceToStretch(p, e.from, e.to) : length(sub(p, e.middle));
  return away < CONTACT;
}
