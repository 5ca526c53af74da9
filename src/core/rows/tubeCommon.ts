import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { isSmooth } from "../outline/thicken";
import type { Body } from "./kind";
import { onlyChain, type OutlineSource } from "./outlineSource";

/** A round or ring section along an open chain without corners. */
export function tubeBody(
  name: string,
  source: OutlineSource | undefined,
  turn: number,
  { outer, inner }: { outer: number; inner: number },
): Result<Body> {
  const chain = onlyChain(name, source, turn);
  if (!chain.ok) return chain;
  if (!isSmooth(chain.value)) return fail(problems.pathHasCorner(name), { path: "outline" });
  const tight = chain.value.findIndex((s) => s.kind === "arc" && s.radius <= outer);
  if (tight >= 0) return fail(problems.pathBendsTooTightly(tight + 1), { path: "outline" });
  return ok({ body: "tube", chain: chain.value, outer, inner });
}
