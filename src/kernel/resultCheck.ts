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
  if (step.op === "leave" && grown < -slack)
    return fail(
      "joining this to the part took material away: the two meet along a line or a point, where no solid can be joined",
      {
        expected: "a place where they overlap or share a face",
      },
    );
  if (step.op === "cut" && grown > slack)
    return fail("this cut added material to the part: it meets it along a line or a face in a way that cannot be cut", {
      expected: "another size or place, a little larger or deeper",
    });
  if (Math.abs(grown) > most + slack)
    return fail("more came of this than its own volume: it meets the part in a way the solid kernel cannot follow", {
      expected: "another size or place, a little larger or deeper",
    });
  return null;
}
