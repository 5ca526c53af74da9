import type { SetupFinding, CheckContext } from "./finding";
import { Checking, refused, type EvaluatedSetup } from "./checking";
import { planPaths } from "../paths/plan";
import { proposeRouting } from "./propose";
import { Reach } from "./reach";
import { accessOf, directionsOf, markedBalloons, saidRowsLeft, unassignedRows, type Routing } from "./routing";
import { cutSomewhere, routingFindings } from "./routingFindings";
import { practiceOf, standingSetups, workOf, type SetupsInput, type StandingSetup, type Work } from "./setup";

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
    limits: input.shop.limits,
    practice: practiceOf(work.value),
    document: input.document,
    setups: work.value.job.setups ?? [],
  };
  const stand = all.value.flatMap((s) => (s.standing.ok ? [s.standing.value] : []));
  const routed = routingOf(work.value, stand);
  const elsewhere = (rowId: string) => {
    const access = routed.routing.access.find((a) => a.rowId === rowId);
    return access ? cutSomewhere(access, stand, c) : null;
  };
  const setups = all.value.map(({ setup, standing }): EvaluatedSetup => {
    if (!standing.ok)
      return {
        setup,
        standing: null,
        problem: standing.problems[0],
        hold: null,
        lying: [],
        beside: [],
        room: null,
        plans: [],
        findings: [refused(setup, standing.problems[0])],
      };
    return new Checking(work.value, input.parts, c, standing.value, routed.reach, elsewhere).evaluated();
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
    unassigned: [...unassignedRows(access, setups, reach), ...saidRowsLeft(work.rows, setups)].sort((a, b) => a - b),
    proposed: proposeRouting({ access, directions, reach, unmarked, rows: work.rows, cuttersOf: cuttersOf(work) }),
    marked: markedBalloons(work.part, setups, work.rows),
  };
  return { reach, routing, findings: (c: CheckContext) => routingFindings({ work, routing, setups, reach }, c) };
}

/** The names of the cutters each row is planned with. */
function cuttersOf({ part, rows }: Work): (row: number) => string[] {
  const plans = planPaths(part.job, rows);
  return (row) =>
    plans.filter((p) => p.row === row).flatMap((p) => [p.cutter?.name, p.drill].filter((c): c is string => Boolean(c)));
}
