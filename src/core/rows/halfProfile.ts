import { problems } from "./problems";
import { saidLength } from "../number";
import { fail, ok, type Result } from "../base/result";
import { loopBox } from "../outline";
import type { Body } from "./kind";
import { openChainFor, outlinesFor, type OutlineSource } from "./outlineSource";

/**
 * The half profile of a turned row from an outline: closed loops as they are, or one open chain that is closed to
 * the axis or outwards.
 * x is the radius, so nothing may lie beyond the axis.
 */
export function halfProfile(
  name: string,
  source: OutlineSource | undefined,
  side: "outside" | "bore",
): Result<Extract<Body, { body: "turned" }>> {
  const open = openChainFor(name, source, 0);
  if (!open.ok) return open;
  const closed = open.value ? null : outlinesFor(name, source, 0);
  if (closed && !closed.ok) return closed;
  const all = open.value ? [open.value] : closed!.value.map((o) => o.outer);
  const least = Math.min(...all.map((c) => loopBox(c).min.x));
  if (least < -1e-7) return fail(problems.crossesItsAxis(name, saidLength(least)), { path: "outline" });
  return ok(
    open.value
      ? { body: "turned", outlines: [], chain: { segments: open.value, side }, sweep: 2 * Math.PI }
      : { body: "turned", outlines: closed!.value, sweep: 2 * Math.PI },
  );
}
