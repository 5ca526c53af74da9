import { boxInFrame, type Box, type Frame, type Vec2 } from "../geometry/vec";
import { loopBox, roundedLoop, type Loop } from "../outline";
import { ok, type Result } from "../base/result";
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

/** Puts a recipe on a state: finds its plane, works out how far "through" is, picks the edges it means. */
export function place(
  recipe: Recipe,
  row: string,
  kernel: SolidKernel,
  key: string | null,
  earlier: Map<string, RowPlanes>,
  nameOf: (id: string) => string,
): Result<Placed> {
  if (recipe.op === "edges") {
    if (key === null)
      return { ok: false, problems: [{ message: "there is nothing to cut yet", expected: "a LEAVE row first" }] };
    const edges = edgesByMeaning(recipe.edges, kernel, key, earlier, nameOf);
    if (!edges.ok) return edges;
    return ok({
      step: {
        op: "edges",
        row,
        treatment: recipe.treatment,
        size: recipe.size,
        angle: recipe.angle,
        edges: edges.value,
      },
      planes: { start: null, floor: null, top: null },
      thru: false,
    });
  }
  const found = frameOf(recipe.plane, kernel, key, earlier, nameOf);
  if (!found.ok) return found;
  const frame = found.value;
  if (recipe.op === "leave") {
    const made =
      recipe.body.body === "prism"
        ? ok({ body: "prism" as const, outline: recipe.body.outline, from: 0, to: -(recipe.body.depth as number) })
        : placedBody(recipe.body, frame, null, 0);
    if (!made.ok) return made;
    const body: PlacedBody = made.value;
    const top =
      recipe.body.body === "prism"
        ? lowered(frame, -(recipe.body.depth as number))
        : body.body === "turned"
          ? lowered(frame, -loopBox(body.outlines.flatMap((o) => o.outer)).max.y)
          : null;
    return ok({
      step: { op: "leave", row, frame, body, places: recipe.places },
      planes: { start: frame, floor: null, top },
      thru: false,
    });
  }
  if (key === null)
    return { ok: false, problems: [{ message: "there is nothing to cut yet", expected: "a LEAVE row first" }] };
  const box = kernel.measure(key).box;
  const far = depthThrough(frame, box);
  if (recipe.op === "face") {
    if (recipe.depth === 0) return ok({ step: null, planes: { start: frame, floor: frame, top: null }, thru: false });
    const part = boxInFrame(frame, box);
    const loop = rectangle(part.min.x - 1, part.min.y - 1, part.max.x + 1, part.max.y + 1);
    const above = -Math.max(0, part.max.z) - 1;
    return ok({
      step: cut(row, frame, { body: "prism", outline: { outer: loop, holes: [] }, from: above, to: recipe.depth }),
      planes: { start: frame, floor: lowered(frame, recipe.depth), top: null },
      thru: false,
    });
  }
  if (recipe.op === "step") {
    const b = outlineBox(kernel, key, frame);
    const { axis, sign } = sideInPlane(frame, recipe.side);
    const edge = sign > 0 ? b.max[axis] : b.min[axis];
    const other = edge - sign * recipe.width;
    const [lo, hi] = [Math.min(edge, other), Math.max(edge, other)];
    const loop = axis === "x" ? rectangle(lo, b.min.y, hi, b.max.y) : rectangle(b.min.x, lo, b.max.x, hi);
    return ok({
      step: cut(row, frame, { body: "prism", outline: { outer: loop, holes: [] }, from: 0, to: recipe.depth }),
      planes: { start: frame, floor: lowered(frame, recipe.depth), top: null },
      thru: false,
    });
  }
  const { body, places } = recipe;
  const thru =
    body.body === "prism" || body.body === "open"
      ? body.depth === "thru"
      : body.body === "revolved" && body.profile[body.profile.length - 1].z === "thru";
  const made =
    body.body === "open" ? openPocket(body, kernel, key, frame, places, far) : placedBody(body, frame, box, far);
  if (!made.ok) return made;
  const placed = made.value;
  return ok({
    step: { op: "cut", row, frame, body: placed, places },
    planes: { start: frame, floor: floorOf(body, frame), top: null },
    thru,
  });
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
const rectangle = (x0: number, y0: number, x1: number, y1: number): Loop => {
  const corners: Vec2[] = [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ];
  return roundedLoop(corners, 0)!;
};
