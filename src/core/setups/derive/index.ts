import { problems } from "../problems";
import { fail, type Result } from "../../base/result";
import { problemIn } from "../../number";
import type { Setup } from "../../job/schema";
import { evaluateSetups, type EvaluatedSetups } from "../evaluateSetups";
import { standingSetups, workOf, type SetupsInput } from "../setup";
import { deriveChuckJaws } from "./chuckJaws";
import { deriveJaws } from "./jaws";
import { derivePlate } from "./plate";
import type { DerivedFixture, FixtureWishes } from "./common";

export { asPart } from "./asPart";
export { shoulderChoices } from "./common";
export type { DerivedFixture, FixtureWishes, Shoulders } from "./common";
export type FixtureKind = "jaws" | "plate" | "chuck";

const assistants = { jaws: deriveJaws, plate: derivePlate, chuck: deriveChuckJaws };

/** The part that holds a setup's piece, as lines of a card, and the setups that it is held in. */
export function derive(
  input: SetupsInput,
  kind: FixtureKind,
  op: number,
  wishes: FixtureWishes = {},
): Result<DerivedFixture> {
  const work = workOf(input);
  if (!work.ok) return work;
  if (!input.document.setups.length) return fail(problems.noSetupsYet());
  const standing = standingSetups(work.value);
  if (!standing.ok) return standing;
  const there = standing.value.flatMap((s) => (s.standing.ok ? [s.standing.value] : []));
  const { document, parts } = input;
  const made = assistants[kind]({ document, parts, work: work.value, standing: there }, op, wishes);
  return made.ok ? made : { ok: false, problems: made.problems.map((p) => problemIn(p, document.unit)) };
}

/** The setups that are proposed, held by nothing yet. */
export function proposedSetups(input: SetupsInput, evaluated: EvaluatedSetups = evaluateSetups(input)): Setup[] {
  const rows = input.parts[0].evaluation.solved.rows;
  return (evaluated.routing?.proposed ?? []).map((p): Setup => ({
    op: p.op,
    machine: p.machine,
    up: p.up,
    hold: null,
    rows: p.rows.map((n) => rows[n - 1].row.id),
  }));
}
