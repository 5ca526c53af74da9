import { fail, ok, type Result } from "@/core/base/result";
import type { BodyStep } from "@/core/engine/kernel";
import type { Box } from "@/core/geometry/vec";
import { MOST_LAPPING } from "./insertion/joinedCopies";
import { phasesOf, roundsOf } from "./phases";
import { problems } from "./problems";
import type { State } from "./state";

/** The ways a kernel puts bodies into a state. */
interface Ways {
  /** A cut put in by topology; null where only a boolean will do. */
  inserted(at: State, step: BodyStep): State | null;
  /** Steps of one kind by one boolean. */
  joined(at: State, steps: BodyStep[]): Result<State>;
  /** The box a step's tools lie in. */
  boxOf(step: BodyStep): Box;
}

/** Many copies put in: what can be by topology, and the rest by as few booleans as have tools that stand apart. */
export function copied(ways: Ways, from: State, steps: BodyStep[]): Result<State> {
  const boxes = steps.map(ways.boxOf);
  let at = from;
  const reach = (next: State) => {
    if (at !== from) at.free();
    at = next;
  };
  for (const phase of phasesOf(steps.map((s, i) => ({ op: s.op, box: boxes[i] })))) {
    const left = phase.filter((i) => {
      const put = steps[i].op === "cut" ? ways.inserted(at, steps[i]) : null;
      if (put) reach(put);
      return !put;
    });
    const rounds = roundsOf(left.map((i) => boxes[i]));
    const tooMany = rounds.length > MOST_LAPPING;
    for (const round of rounds) {
      const made = tooMany
        ? fail(problems.tooManyLapping(MOST_LAPPING))
        : ways.joined(
            at,
            round.map((k) => steps[left[k]]),
          );
      if (!made.ok) {
        reach(from);
        return made;
      }
      reach(made.value);
    }
  }
  return ok(at);
}
