import type { SetupFinding, CheckContext } from "./finding";
import { Checking, refused, type EvaluatedSetup } from "./checking";
import { defaultLimits } from "../tables";
import { showLength } from "../number";
import { Reach } from "./reach";
import { accessOf, directionsOf, markedBalloons, proposeRouting, unassignedRows, type Routing } from "./routing";
import { standingSetups, workOf, type SetupsInput, type StandingSetup, type Work } from "./setup";

export interface EvaluatedSetups {
  setups: EvaluatedSetup[];
  routing: Routing | null;
  findings: SetupFinding[];
}

const nothing: EvaluatedSetups = { setups: [], routing: null, findings: [] };

/** Everything that follows from a job's setups: the piece in each, how it is held, what keeps it from being cut so. */
export function evaluateSetups(input: SetupsInput): EvaluatedSetups {
  const work = workOf(input);
  if (!work.ok) return nothing;
  const all = standingSetups(work.value);
  if (!all.ok) return nothing;
  const c: CheckContext = {
    unit: work.value.part.job.unit,
    limits: defaultLimits,
    setups: work.value.job.setups ?? [],
  };
  const routed = routingOf(
    work.value,
    all.value.flatMap((s) => (s.standing.ok ? [s.standing.value] : [])),
  );
  const setups = all.value.map(({ setup, standing }): EvaluatedSetup => {
    if (!standing.ok)
      return {
        setup,
        standing: null,
        problem: standing.problems[0],
        hold: null,
        lying: [],
        room: null,
        plans: [],
        findings: [refused(setup, standing.problems[0])],
      };
    return new Checking(work.value, input.parts, c, standing.value, routed.reach).evaluated();
  });
  return { setups, routing: routed.routing, findings: [...setups.flatMap((s) => s.findings), ...routed.findings(c)] };
}

/** From where each row can be cut, what is proposed, and what of it the setups there leave undone. */
function routingOf(work: Work, setups: StandingSetup[]) {
  const reach = new Reach(work.kernel, work.finalKey);
  const directions = directionsOf(work);
  const access = accessOf(work, reach, directions);
  const unmarked = work.rows.filter((r) => r.state === "ok" && !access.some((a) => a.rowId === r.row.id));
  const routing: Routing = {
    access,
    unassigned: unassignedRows(access, setups, reach),
    proposed: proposeRouting(access, directions, reach, unmarked, work.rows),
    marked: markedBalloons(work.part, setups, work.rows),
  };
  const findings = (c: CheckContext): SetupFinding[] => {
    // A job that only says how it is held has no routing yet.
    if (!c.setups.some((s) => s.rows)) return [];
    const own = { setup: null, place: null, value: 0, limit: 0, source: "geometry: from where the row is seen" };
    return routing.unassigned.map((row): SetupFinding => {
      const a = access.find((x) => x.row === row)!;
      const isIn = setups.some((s) => s.piece.rows.some((r) => r.number === row));
      const from = [...new Set([...a.whole, ...a.some].map((d) => d.name))].slice(0, 4).join(", ") || "nowhere";
      return {
        ...own,
        rule: isIn ? "row-unreachable" : "row-in-no-setup",
        severity: isIn ? "stop" : "caution",
        row,
        rowId: a.rowId,
        text: isIn
          ? `row ${row} is not reached whole in its setups; it is seen from ${from}`
          : `row ${row} is in no setup; it is seen from ${from}`,
      };
    });
  };
  const marks = (c: CheckContext): SetupFinding[] =>
    routing.marked.map((m): SetupFinding => {
      const l = work.part.evaluation.ledger.find((e) => e.number === m.number)!;
      const width = l.low !== null && l.high !== null ? l.high - l.low : null;
      const cost = c.limits.turnOver;
      const isTight = width !== null && width < 2 * cost.value;
      const row = work.rows[m.rows[0] - 1];
      return {
        rule: "turn-over",
        setup: m.setups[m.setups.length - 1],
        row: row.number,
        rowId: row.row.id,
        severity: isTight ? "caution" : "note",
        value: width ?? 0,
        limit: 2 * cost.value,
        place: null,
        text: `balloon ${m.number}${width === null ? "" : `, ${showLength(width, c.unit)} wide,`} lies between setups ${m.setups.join(" and ")}; a turn-over costs ±${showLength(cost.value, c.unit)} in this shop`,
        source: cost.source,
      };
    });
  return { reach, routing, findings: (c: CheckContext) => [...findings(c), ...marks(c)] };
}
