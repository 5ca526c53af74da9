import { boxInFrame, v2, type Box, type Frame } from "../geometry/vec";
import { loopBox, rectangleBetween } from "../outline";
import { fail, ok, type Result } from "../base/result";
import type { Body, Recipe } from "../rows";
import { edgesByMeaning } from "./edgesByMeaning";
import { openPocket, turnedOutlines } from "./openChains";
import type { KernelStep, PlacedBody, SolidKernel } from "./kernel";
import { depthThrough, frameOf, lowered, outlineBox, sideInPlane, type RowPlanes } from "./planes";

/** A row ready for the kernel, with the planes it offers to later rows. */
/** `step` is null where the row takes nothing of the part but stock. */
export interface Placed {
  step: KernelStep | null;
  planes: RowPlanes;
  thru: boolean;
}

/** What a recipe is put on: the state before it, and what the rows before it offer. */
interface Ground {
  row: string;
  kernel: SolidKernel;
  key: string | null;
  earlier: Map<string, RowPlanes>;
  nameOf: (id: string) => string;
}
type Cut<Op extends Recipe["op"]> = Extract<Recipe, { op: Op }>;

/** Puts a recipe on a state: finds its plane, works out how far "through" is, picks the edges it means. */
export function place(
  recipe: Recipe,
  row: string,
  kernel: SolidKernel,
  key: string | null,
  earlier: Map<string, RowPlanes>,
  nameOf: (id: string) => string,
): Result<Placed> {
  const ground = { row, kernel, key, earlier, nameOf };
  if (recipe.op === "leave") return placeLeave(recipe, ground);
  if (key === null) return fail("there is nothing to cut yet", { expected: "a LEAVE row first" });
  const standing = { ...ground, key };
  if (recipe.op === "edges") return placeEdges(recipe, standing);
  const frame = frameOf(recipe.plane, kernel, key, earlier, nameOf);
  if (!frame.ok) return frame;
  switch (recipe.op) {
    case "face":
      return ok(placeFace(recipe, standing, frame.value));
    case "step":
      return ok(placeStep(recipe, standing, frame.value));
    case "cut":
      return placeCut(recipe, standing, frame.value);
  }
}

type Standing = Ground & { key: string };

function placeEdges(recipe: Cut<"edges">, { row, kernel, key, earlier, nameOf }: Standing): Result<Placed> {
  const edges = edgesByMeaning(recipe.edges, kernel, key, earlier, nameOf);
  if (!edges.ok) return edges;
  const { treatment, size, angle } = recipe;
  return ok({
    step: { op: "edges", row, treatment, size, angle, edges: edges.value },
    planes: { start: null, floor: null, top: null },
    thru: false,
  });
}

function placeLeave(recipe: Cut<"leave">, { row, kernel, key, earlier, nameOf }: Ground): Result<Placed> {
  const found = frameOf(recipe.plane, kernel, key, earlier, nameOf);
  if (!found.ok) return found;
  const frame = found.value;
  const made = leftBody(recipe.body, frame);
  if (!made.ok) return made;
  return ok({
    step: { op: "leave", row, frame, body: made.value, places: recipe.places },
    planes: { start: frame, floor: null, top: topOf(made.value, frame) },
    thru: false,
  });
}

/** What is left stands over its plane: a prism counts its height upwards. */
const leftBody = (body: Body, frame: Frame): Result<PlacedBody> =>
  body.body === "prism"
    ? ok({ body: "prism", outline: body.outline, from: 0, to: -(body.depth as number) })
    : placedBody(body, frame, null, 0);

function topOf(body: PlacedBody, frame: Frame): Frame | null {
  if (body.body === "prism") return lowered(frame, body.to);
  return body.body === "turned" ? lowered(frame, -loopBox(body.outlines.flatMap((o) => o.outer)).max.y) : null;
}

/** A facing takes all that stands over its floor. Without a depth it takes nothing of the part but stock. */
function placeFace(recipe: Cut<"face">, { row, kernel, key }: Standing, frame: Frame): Placed {
  if (recipe.depth === 0) return { step: null, planes: { start: frame, floor: frame, top: null }, thru: false };
  const part = boxInFrame(frame, kernel.measure(key).box);
  const outer = rectangleBetween(v2(part.min.x - 1, part.min.y - 1), v2(part.max.x + 1, part.max.y + 1));
  const above = -Math.max(0, part.max.z) - 1;
  return {
    step: cut(row, frame, { body: "prism", outline: { outer, holes: [] }, from: above, to: recipe.depth }),
    planes: { start: frame, floor: lowered(frame, recipe.depth), top: null },
    thru: false,
  };
}

function placeStep(recipe: Cut<"step">, { row, kernel, key }: Standing, frame: Frame): Placed {
  const b = outlineBox(kernel, key, frame);
  const { axis, sign } = sideInPlane(frame, recipe.side);
  const edge = sign > 0 ? b.max[axis] : b.min[axis];
  const other = edge - sign * recipe.width;
  const [lo, hi] = [Math.min(edge, other), Math.max(edge, other)];
  const outer =
    axis === "x"
      ? rectangleBetween(v2(lo, b.min.y), v2(hi, b.max.y))
      : rectangleBetween(v2(b.min.x, lo), v2(b.max.x, hi));
  return {
    step: cut(row, frame, { body: "prism", outline: { outer, holes: [] }, from: 0, to: recipe.depth }),
    planes: { start: frame, floor: lowered(frame, recipe.depth), top: null },
    thru: false,
  };
}

function placeCut({ body, places }: Cut<"cut">, { row, kernel, key }: Standing, frame: Frame): Result<Placed> {
  const { box } = kernel.measure(key);
  const far = depthThrough(frame, box);
  const made =
    body.body === "open" ? openPocket(body, kernel, key, frame, places, far) : placedBody(body, frame, box, far);
  if (!made.ok) return made;
  return ok({
    step: { op: "cut", row, frame, body: made.value, places },
    planes: { start: frame, floor: floorOf(body, frame), top: null },
    thru: goesThrough(body),
  });
}

function goesThrough(body: Body): boolean {
  if (body.body === "prism" || body.body === "open") return body.depth === "thru";
  return body.body === "revolved" && body.profile[body.profile.length - 1].z === "thru";
}

function placedBody(body: Body, frame: Frame, box: Box | null, far: number): Result<PlacedBody> {
  switch (body.body) {
    case "prism":
      return ok({
        body: "prism",
        outline: body.outline,
        ...(body.more ? { more: body.more } : {}),
        from: 0,
        to: body.depth === "thru" ? far : body.depth,
      });
    case "revolved":
      return ok(revolved(body, far));
    case "turned": {
      const outlines = turnedOutlines(body, frame, box);
      return outlines.ok ? ok({ body: "turned", outlines: outlines.value, sweep: body.sweep }) : outlines;
    }
    case "vee":
      return ok(body);
    case "open":
      return { ok: false, problems: [{ message: "an open chain can only be cut", expected: "a closed outline" }] };
  }
}

function revolved(body: Extract<Body, { body: "revolved" }>, far: number): PlacedBody {
  const known = Math.max(0, ...body.profile.map((p) => (p.z === "thru" ? 0 : p.z)));
  return {
    body: "revolved",
    profile: body.profile.map((p) => ({ r: p.r, z: p.z === "thru" ? Math.max(far, known + 1e-3) : p.z })),
  };
}

/** A flat floor: of a blind prism, of a flat-bottomed hole, or of the counterbore of a through hole. */
export function levelsOf(
  recipe: Exclude<Recipe, { op: "edges" }>,
  frame: Frame,
): { floor: Frame | null; top: Frame | null } {
  if (recipe.op === "face" || recipe.op === "step") return { floor: lowered(frame, recipe.depth), top: null };
  if (recipe.op === "cut") return { floor: floorOf(recipe.body, frame), top: null };
  if (recipe.body.body === "prism")
    return { floor: null, top: recipe.body.depth === "thru" ? null : lowered(frame, -recipe.body.depth) };
  const heights = recipe.body.body === "turned" ? recipe.body.outlines.flatMap((o) => o.outer) : [];
  return { floor: null, top: heights.length ? lowered(frame, -loopBox(heights).max.y) : null };
}

function floorOf(body: Body, frame: Frame): Frame | null {
  if (body.body === "prism" || body.body === "open") return body.depth === "thru" ? null : lowered(frame, body.depth);
  if (body.body !== "revolved") return null;
  const p = body.profile;
  const last = p[p.length - 1];
  if (last.z !== "thru" && last.r > 0) return lowered(frame, last.z);
  for (let i = 0; i + 1 < p.length; i++)
    if (p[i].z !== "thru" && p[i].z === p[i + 1].z && p[i].r > p[i + 1].r) return lowered(frame, p[i].z as number);
  return null;
}

const cut = (row: string, frame: Frame, body: PlacedBody): KernelStep => ({
  op: "cut",
  row,
  frame,
  body,
  places: [{ x: 0, y: 0 }],
});
