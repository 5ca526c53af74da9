import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { COINCIDENT, MEET } from "../geometry/tolerance";
import { loopBox, type Segment } from "../outline";
import type { Body } from "../rows";
import type { PlacedBody } from "./kernel";
import { saidLength } from "../number";
import { shaftOfRow, type Seat } from "./planes";

/** How far what is cut reaches out of its round, mm, and what is left into it as a share of its radius: clear of it. */
const CLEAR = 1;
const ROOTED = 0.02;

/** How far a pointed cutter is followed over its round, as a share of its depth: clear of the surface. */
const OVER = 0.25;

/** Pieces aslant or in arcs: a second and more each, and a dozen of letters more than the library can join. */
const MOST_RULED = 30;
/** Whether a piece runs along the axis or round it. */
const isSquare = (s: Segment): boolean =>
  s.kind === "line" && (Math.abs(s.from.x - s.to.x) < MEET || Math.abs(s.from.y - s.to.y) < MEET);

/** Chains of a pointed cutter laid round the round of a row. */
export function wrappedVee(
  { row, chains, halfAngle, depth }: Extract<Body, { body: "wrappedVee" }>,
  seat: Seat,
): Result<PlacedBody> {
  const shaft = shaftOfRow(row, seat);
  if (!shaft.ok) return shaft;
  const { radius } = shaft.value;
  if (depth >= radius - COINCIDENT) return fail(problems.deepAsTheAxis(), { path: "deep" });
  const ruled = chains.flat().filter((s) => !isSquare(s)).length;
  if (ruled > MOST_RULED) return fail(problems.tooManyAslant(ruled, MOST_RULED), { path: "outline" });
  const over = depth * OVER;
  const tightest = Math.min(...chains.flat().map((s) => (s.kind === "arc" ? s.radius : Infinity)));
  const half = (depth + over) * Math.tan(halfAngle);
  if (tightest < half + MEET)
    return fail(problems.tighterThanGroove(saidLength(tightest), saidLength(half)), { path: "outline" });
  const { min, max } = loopBox(chains.flat());
  if (max.x - min.x > 2 * Math.PI * radius + COINCIDENT) return fail(problems.longerThanGirth(), { path: "outline" });
  return ok({ body: "wrappedVee", chains, radius, halfAngle, depth, over });
}

/** An outline laid round the round of a row, which has to have room for it. */
export function wrappedBody(
  { row, outlines, height }: Extract<Body, { body: "wrapped" }>,
  op: "leave" | "cut",
  seat: Seat,
): Result<PlacedBody> {
  const shaft = shaftOfRow(row, seat);
  if (!shaft.ok) return shaft;
  const { radius } = shaft.value;
  const { min, max } = loopBox(outlines.flatMap((o) => o.outer));
  if (max.x - min.x > 2 * Math.PI * radius - COINCIDENT) return fail(problems.longerThanGirth(), { path: "outline" });
  if (op === "leave") return ok({ body: "wrapped", outlines, radius, from: radius * ROOTED, to: -height });
  if (height >= radius - COINCIDENT) return fail(problems.deepAsTheAxis(), { path: "deep" });
  return ok({ body: "wrapped", outlines, radius, from: -CLEAR, to: height });
}
