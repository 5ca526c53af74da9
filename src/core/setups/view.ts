import type { Setup } from "../job/schema";
import type { HoldFigures } from "./checking";
import type { EvaluatedSetups } from "./evaluateSetups";
import type { SetupFinding } from "./finding";

/** A setup as it is shown: plain figures, no solids. Lengths mm, volumes mm³, areas mm². */
export interface SetupView {
  op: number;
  stands: boolean;
  problem: string;
  datumWords: string;
  rows: number[];
  hold: HoldFigures | null;
  height: number | null;
  before: number | null;
  after: number | null;
  minutes: number;
  cutters: string[];
  /** The piece goes in from above with this much room; null where no part holds it. */
  room: number | null;
  findings: SetupFinding[];
}
/** All setups of a job as they are shown, with what is proposed. */
export interface SetupsView {
  setups: SetupView[];
  proposed: { op: number; machine: Setup["machine"]; up: Setup["up"]; name: string; rows: number[]; why: string[] }[];
  unassigned: number[];
  marked: { number: number; setups: number[] }[];
  /** From where each row is reached, and what keeps it from elsewhere. */
  access: { row: number; from: string[]; not: string[] }[];
  findings: SetupFinding[];
}

export function setupsView({ setups, routing, findings }: EvaluatedSetups): SetupsView {
  return {
    setups: setups.map((s) => ({
      op: s.setup.op,
      stands: s.standing !== null,
      problem: s.problem?.message ?? "",
      datumWords: s.standing?.datumWords ?? "",
      rows: s.standing?.piece.rows.map((r) => r.number) ?? [],
      hold: s.hold,
      height: s.standing && s.standing.box.max.z - s.standing.box.min.z,
      before: s.standing?.before ?? null,
      after: s.standing?.after ?? null,
      minutes: s.plans.reduce((sum, p) => sum + p.minutes, 0),
      cutters: [...new Set(s.plans.flatMap((p) => p.cutter?.name ?? p.drill ?? []))],
      room: s.room,
      findings: s.findings,
    })),
    proposed: (routing?.proposed ?? []).map((p) => ({
      op: p.op,
      machine: p.machine,
      up: p.up,
      name: p.direction.name,
      rows: p.rows,
      why: p.why,
    })),
    unassigned: routing?.unassigned ?? [],
    marked: (routing?.marked ?? []).map(({ number, setups: between }) => ({ number, setups: between })),
    access: (routing?.access ?? []).map((a) => ({
      row: a.row,
      from: a.whole.map((d) => d.name),
      not: a.why.map((w) => `${w.direction.name}: ${w.hindrance}`),
    })),
    findings,
  };
}
