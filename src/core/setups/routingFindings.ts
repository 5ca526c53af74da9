import { PARALLEL } from "../geometry/tolerance";
import { dot } from "../geometry/vec";
import type { Fix } from "../findings/finding";
import { showLength } from "../number";
import type { CheckContext, SetupFinding } from "./finding";
import type { Routing, RowAccess } from "./routing";
import type { StandingSetup, Work } from "./setup";

/** What is remarked of a routing: rows it leaves uncut, and what lies across a turn-over. */
export function routingFindings(
  work: Work,
  routing: Routing,
  setups: StandingSetup[],
  c: CheckContext,
): SetupFinding[] {
  // A job that only says how it is held has no routing yet.
  if (!c.setups.some((s) => s.rows)) return [];
  return [...leftOver(routing, setups), ...acrossTurns(work, routing, setups, c)];
}

const leftOver = (routing: Routing, setups: StandingSetup[]): SetupFinding[] =>
  routing.unassigned.map((row): SetupFinding => {
    const a = accessTo(routing, row)!;
    const isIn = setups.some((s) => s.piece.rows.some((r) => r.number === row));
    const from = [...new Set([...a.whole, ...a.some].map((d) => d.name))].slice(0, 4).join(", ") || "nowhere";
    return {
      rule: isIn ? "row-unreachable" : "row-in-no-setup",
      setup: null,
      place: null,
      severity: isIn ? "stop" : "caution",
      row,
      rowId: a.rowId,
      value: 0,
      limit: 0,
      text: isIn
        ? `row ${row} is not reached whole in its setups; it is seen from ${from}`
        : `row ${row} is in no setup; it is seen from ${from}`,
      source: "geometry: from where the row is seen",
    };
  });

const accessTo = (routing: Routing, row: number): RowAccess | undefined => routing.access.find((a) => a.row === row);

/** Balloons between rows of different setups, each with what a turn-over costs, and the setup that would spare it. */
function acrossTurns(work: Work, routing: Routing, setups: StandingSetup[], c: CheckContext): SetupFinding[] {
  return routing.marked.map((m): SetupFinding => {
    const l = work.part.evaluation.ledger.find((e) => e.number === m.number)!;
    const width = l.low !== null && l.high !== null ? l.high - l.low : null;
    const cost = c.limits.turnOver;
    const row = work.rows[m.rows[0] - 1];
    const fix = spared(routing, m.rows, setups, c);
    const wide = width === null ? "" : `, ${showLength(width, c.unit)} wide,`;
    return {
      rule: "turn-over",
      setup: m.setups[m.setups.length - 1],
      row: row.number,
      rowId: row.row.id,
      severity: width !== null && width < 2 * cost.value ? "caution" : "note",
      value: width ?? 0,
      limit: 2 * cost.value,
      place: null,
      text: `balloon ${m.number}${wide} lies between setups ${m.setups.join(" and ")}; a turn-over costs ±${showLength(cost.value, c.unit)} in this shop`,
      source: cost.source,
      ...(fix ? { fix } : {}),
    };
  });
}

/** A setup that sees all of the rows whole: cut there together, nothing lies between them. */
function spared(routing: Routing, rows: number[], setups: StandingSetup[], c: CheckContext): Fix | null {
  const accesses = rows.flatMap((n) => accessTo(routing, n) ?? []);
  const sees = (s: StandingSetup, a: RowAccess) => a.whole.some((d) => dot(d.up, s.frame.normal) > PARALLEL);
  const at = accesses.length === rows.length ? setups.find((s) => accesses.every((a) => sees(s, a))) : undefined;
  if (!at) return null;
  const ids = accesses.map((a) => a.rowId);
  const isHere = (op: number) => op === at.setup.op;
  return {
    label: `rows ${rows.join(", ")} in setup ${at.setup.op}`,
    edits: [
      {
        edit: "setSetups",
        setups: c.setups.map((s) => ({
          ...s,
          rows: isHere(s.op)
            ? [...new Set([...(s.rows ?? []), ...ids])]
            : (s.rows ?? []).filter((id) => !ids.includes(id)),
        })),
      },
    ],
  };
}
