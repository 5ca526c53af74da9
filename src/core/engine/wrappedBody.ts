import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { COINCIDENT } from "../geometry/tolerance";
import { loopBox } from "../outline";
import type { Body } from "../rows";
import type { PlacedBody } from "./kernel";
import { shaftOfRow, type Seat } from "./planes";

/** How far what is cut reaches out of its round, mm, and what is left into it as a share of its radius: clear of it. */
const CLEAR = 1;
const ROOTED = 0.02;

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
