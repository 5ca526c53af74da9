import { showVolume, type LengthUnit } from "../number";
import type { Vec3 } from "../geometry/vec";
import { cutterReport } from "./operations";
import type { EvaluatedSetup } from "./checking";
import type { EvaluatedSetups } from "./evaluateSetups";
import type { SetupFinding } from "./finding";

const list = (p: Vec3): [number, number, number] =>
  [p.x, p.y, p.z].map((v) => (Object.is(v, -0) ? 0 : v)) as [number, number, number];

/**
 * Setups and routing of the headless report, as the contract names them. mm, mm², mm³, minutes.
 * @param gougeOf how much of the finished part is missing from a piece
 */
export function setupsReport({ setups, routing }: EvaluatedSetups, gougeOf: (piece: string) => number | null) {
  return {
    setups: setups.map((s) => ({ ...setupReport(s), gouge: s.standing && gougeOf(s.standing.piece.after) })),
    routing: routing && {
      unassigned: routing.unassigned,
      proposed: routing.proposed.map((p) => ({
        op: p.op,
        up: list(p.direction.up),
        side: p.direction.name,
        rows: p.rows,
        why: p.why,
      })),
      marked: routing.marked.map((m) => m.number),
    },
  };
}

/** Under this a missing volume is what booleans leave of walls that touch, mm³. */
const GOUGED = 0.01;

/**
 * What setups cut away of the finished part, each as a remark.
 * @param gougeOf how much of the finished part is missing from a piece; null where it was not examined
 */
export function gougeFindings(
  { setups }: EvaluatedSetups,
  unit: LengthUnit,
  gougeOf: (piece: string) => number | null,
) {
  const before = new Map<number, number>();
  return setups.flatMap(({ setup, standing }): SetupFinding[] => {
    const gouge = standing ? gougeOf(standing.piece.after) : null;
    if (gouge === null) return [];
    // What an earlier setup has taken is missing in every later one.
    const own = gouge - Math.max(0, ...before.values());
    before.set(setup.op, gouge);
    if (own < GOUGED) return [];
    return [
      {
        rule: "gouge",
        setup: setup.op,
        row: null,
        rowId: null,
        severity: "stop",
        value: own,
        limit: 0,
        place: null,
        text: `setup ${setup.op} cuts ${showVolume(own, unit)} of the finished part away`,
        source: "geometry: the finished part less the piece after the setup",
      },
    ];
  });
}

function setupReport({ setup, standing, problem, hold, plans, findings }: EvaluatedSetup) {
  const operations = plans.map(cutterReport);
  return {
    op: setup.op,
    machine: setup.machine.toUpperCase(),
    up: standing ? list(standing.frame.normal) : null,
    datum: standing ? list(standing.frame.origin) : null,
    datumWords: standing?.datumWords ?? "",
    rows: standing?.piece.rows.map((r) => r.number) ?? [],
    hold: hold && {
      kind: hold.kind,
      ...(hold.part ? { part: hold.part } : {}),
      grip: hold.grip,
      gripArea: hold.gripArea,
      above: hold.above,
      ...(hold.diameter === null ? {} : { diameter: hold.diameter }),
    },
    before: standing?.before ?? null,
    after: standing?.after ?? null,
    operations,
    minutes: operations.reduce((sum, o) => sum + o.minutes, 0),
    rest: operations.reduce((sum, o) => sum + o.rest, 0),
    findings: findings.map(setupFindingReport),
    ...(problem ? { problem: problem.message } : {}),
  };
}

/** A remark on a setup, with the fields every remark has. */
export const setupFindingReport = (f: SetupFinding) => ({
  rule: f.rule,
  severity: f.severity,
  row: f.row,
  setup: f.setup,
  ...(f.part ? { part: f.part } : {}),
  value: f.value,
  limit: f.limit,
  text: f.text,
  source: f.source,
  ...(f.place ? { place: list(f.place) } : {}),
  ...(f.places && f.places.length > 1 ? { places: f.places.map(list) } : {}),
  ...(f.fix ? { fix: f.fix.label } : {}),
});
