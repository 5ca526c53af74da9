import { problems } from "./problems";
import type { KernelStep, StateMeasure } from "@/core/engine/kernel";
import { fail, type Result } from "@/core/base/result";
import { CONTACT } from "@/core/geometry/tolerance";

type Volume = Pick<StateMeasure, "volume"> & {
  /** How near the volume was asked for, relative; where it is an exact sum, nothing. */
  precision?: number;
};

/** Slack of a volume against arithmetic, relative. */
const VOLUME_SLACK = 1e-7;

/**
 * Why the result of a step cannot be right: a cut only takes, a leave only adds, and none more than its tools have.
 * Null when it can.
 */
export function cannotBe(
  step: Pick<KernelStep, "op">,
  before: Volume,
  after: Volume,
  most = Infinity,
): Result<never> | null {
  const loose = [before, after].reduce((sum, v) => sum + 2 * (v.precision ?? 0) * v.volume, 0);
  const slack = VOLUME_SLACK * (before.volume + (most === Infinity ? 0 : most)) + CONTACT + loose;
  const grown = after.volume - before.volume;
  if (step.op === "leave" && grown < -slack) return fail(problems.joinTookMaterial());
  if (step.op === "cut" && grown > slack) return fail(problems.cutAddedMaterial());
  if (Math.abs(grown) > most + slack) return fail(problems.moreThanItsVolume());
  return null;
}
