import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { v2, type Box, type Frame, type Vec2 } from "../geometry/vec";
import { loopBox, type Outline } from "../outline";
import type { Body, EndPlane, PrismBody, SeatedRecipe } from "../rows";
import { meetingOf } from "./ends";
import type { PlacedBody, PlacedPrism } from "./kernel";
import { turnedOutlines } from "./openChains";
import { lowered, type Seat } from "./planes";

/** What a prism has besides its levels. */
export const prismOf = ({ outline, more, draft, ends }: PrismBody): Omit<PlacedPrism, "from" | "to"> => ({
  body: "prism",
  outline,
  ...(more ? { more } : {}),
  ...(draft ? { draft } : {}),
  ...(ends ? { ends } : {}),
});

/** A body with every depth known: through everything where it is not said. */
export function placedBody(body: Body, frame: Frame, box: Box | null, far: number): Result<PlacedBody> {
  switch (body.body) {
    case "prism":
      return ok({ ...prismOf(body), from: 0, to: typeof body.depth === "number" ? body.depth : far });
    case "revolved":
      return ok(revolved(body, far));
    case "turned": {
      const outlines = turnedOutlines(body, frame, box);
      return outlines.ok ? ok({ body: "turned", outlines: outlines.value, sweep: body.sweep }) : outlines;
    }
    case "vee":
    case "tube":
      return ok(body);
    case "open":
      return fail(problems.openChainLeft());
    case "rib":
    case "wrapped":
    case "wrappedVee":
    case "helix":
    case "collar":
    case "imported":
      return fail(problems.bodyNeedsPart());
  }
}

function revolved(body: Extract<Body, { body: "revolved" }>, far: number): PlacedBody {
  const known = Math.max(0, ...body.profile.map((p) => (p.z === "thru" ? 0 : p.z)));
  return {
    body: "revolved",
    profile: body.profile.map((p) => ({ r: p.r, z: p.z === "thru" ? Math.max(far, known + 1e-3) : p.z })),
  };
}

/** Whether a body goes through everything. */
export function goesThrough(body: Body): boolean {
  if (body.body === "prism" || body.body === "open") return body.depth === "thru";
  return body.body === "revolved" && body.profile[body.profile.length - 1].z === "thru";
}

/** A flat floor: of a blind prism, of a flat-bottomed hole, or of the counterbore of a through hole. */
export function levelsOf(recipe: SeatedRecipe, frame: Frame): { floor: Frame | null; top: Frame | null } {
  if (recipe.op === "face" || recipe.op === "step") return { floor: lowered(frame, recipe.depth), top: null };
  if (recipe.op === "cut") return { floor: floorOf(recipe.body, frame), top: null };
  const { body } = recipe;
  if (body.body === "prism")
    return { floor: null, top: typeof body.depth === "number" ? lowered(frame, -heightOver(body, body.depth)) : null };
  const heights = body.body === "turned" ? body.outlines.flatMap((o) => o.outer) : [];
  return { floor: null, top: heights.length ? lowered(frame, -loopBox(heights).max.y) : null };
}
const heightOver = ({ way }: PrismBody, height: number): number =>
  way === "down" ? 0 : way === "both" ? height / 2 : height;

/** The flat a cut leaves at its bottom. */
export function floorOf(body: Body, frame: Frame): Frame | null {
  if (body.body === "prism" || body.body === "open")
    return typeof body.depth === "number" ? lowered(frame, body.depth) : null;
  if (body.body !== "revolved") return null;
  const p = body.profile;
  const last = p[p.length - 1];
  if (last.z !== "thru" && last.r > 0) return lowered(frame, last.z);
  for (let i = 0; i + 1 < p.length; i++)
    if (p[i].z !== "thru" && p[i].z === p[i + 1].z && p[i].r > p[i + 1].r) return lowered(frame, p[i].z as number);
  return null;
}
/** Between which depths an outline meets a slanted plane: at the corners of its box. */
export function reachOf(
  outline: Outline,
  frame: Frame,
  at: Vec2,
  end: EndPlane,
  seat: Seat,
): { least: number; most: number } {
  const { min, max } = loopBox(outline.outer);
  const depths = [v2(min.x, min.y), v2(max.x, min.y), v2(max.x, max.y), v2(min.x, max.y)].flatMap((c) => {
    const m = meetingOf(end, frame, v2(c.x + at.x, c.y + at.y), seat);
    return m.ok ? [m.value.depth] : [];
  });
  return { least: Math.min(...depths), most: Math.max(...depths) };
}
