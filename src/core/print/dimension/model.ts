import {
  dot,
  fromFrame,
  scale,
  add,
  sideFrame,
  sideNormal,
  v2,
  type Frame,
  type Side,
  type Vec3,
} from "../../geometry/vec";
import type { SolvedRow } from "../../engine/solve";
import type { Element } from "../../engine/element";
import { axisDirections, carried, movedFrame, turnAbout } from "../../geometry/motion";
import { flippedRecipe } from "../../engine/flipped";
import { plainMotions } from "../../engine/motions";
import { levelsOf } from "../../engine/placedBody";
import { isSeated, type Copies, type Recipe, type SeatedRecipe } from "../../rows";
import { surfacesOf, type StepWall, type Surface } from "./surfaces";
import { COINCIDENT, CONTACT, PARALLEL, ROUNDING } from "../../geometry/tolerance";

/**
 * What a frame or a step's edge rests on: nothing that moves, a plane an earlier row offers, or a surface of the
 * part.
 */
type Anchor =
  | { on: "fixed" }
  | { on: "row"; row: string; plane: "floor" | "top" }
  | { on: "surface"; id: string; sign: number; reach: number };

interface RowModel {
  row: SolvedRow;
  recipe: SeatedRecipe;
  frame: Frame;
  anchor: Anchor;
  /** For a step: which way its side looks, where the edge of the part stands that way, and what makes that edge. */
  edge: { normal: Vec3; offset: number; anchor: Anchor } | null;
  /** A copy that a repeat or mirror made of the row: its first place among all of them, and whether it is turned over. */
  copy?: { from: number; mirrored: boolean; moves: NonNullable<Element["moves"]> };
}

/** A repeat as it was when the part was solved, and the axis of the row it goes round. */
interface Repeated {
  copies: Copies;
  axis: Frame | null;
}

/** Every surface the rows make, and how each row stands on those before it: the part as numbers, without its solid. */
export interface PartModel {
  rows: RowModel[];
  surfaces: Map<string, Surface>;
  repeats: Map<string, Repeated>;
}

/**
 * Reads a solved job as a model: where every row stands is taken from the part, what it makes there from its recipe.
 */
export function modelOf(rows: SolvedRow[]): PartModel {
  const model: PartModel = { rows: [], surfaces: new Map(), repeats: new Map() };
  for (const row of rows) {
    model.rows.push(...copiesIn(row, model));
    const frame = row.planes?.start;
    if (row.state === "ok" && isSeated(row.recipe) && frame) {
      const anchor = anchorOfPlane(row.recipe, frame, model);
      const edge = row.recipe.op === "step" ? stepEdge(row, frame, model) : null;
      const made: RowModel = { row, recipe: row.recipe, frame, anchor, edge };
      model.rows.push(made);
      const recipe = ended(row.recipe, made);
      for (const s of surfacesOf(row.row.id, recipe, frame, wallOf(recipe, edge, edge?.offset ?? 0)))
        model.surfaces.set(s.id, s);
    }
  }
  return model;
}

/** Copies of earlier rows that a row of repeats has made, with their surfaces. */
function copiesIn(row: SolvedRow, model: PartModel): RowModel[] {
  if (row.state !== "ok" || row.recipe?.op !== "repeat") return [];
  model.repeats.set(row.row.id, { copies: row.recipe.copies, axis: row.planes?.axis ?? null });
  return (row.planes?.elements ?? []).flatMap((e): RowModel[] => {
    const original = model.rows.find((m) => m.row.row.id === e.row && !m.copy);
    if (!original || !isSeated(e.recipe) || !e.frame || e.from === undefined) return [];
    const copy = { from: e.from, mirrored: Boolean(e.mirrored), moves: e.moves ?? [] };
    const made: RowModel = { ...original, recipe: e.recipe, frame: e.frame, edge: null, copy };
    for (const s of copiedSurfaces(made, original, e.recipe, e.frame)) model.surfaces.set(s.id, s);
    return [made];
  });
}

/** Surfaces of a copy. What looks another way than the original is known by its walls alone: depths are not taken there. */
function copiedSurfaces(m: RowModel, original: RowModel, recipe: SeatedRecipe, frame: Frame): Surface[] {
  const all = surfacesOf(m.row.row.id, recipe, frame, null, m.copy?.from);
  return dot(frame.normal, original.frame.normal) > PARALLEL ? all : all.filter((s) => s.role === "wall");
}

/** The same part with other numbers: recipes as they come out with them, frames moved by what they rest on. */
export function movedModel(model: PartModel, recipes: Map<string, Recipe | null>): Map<string, Surface> {
  const out = new Map<string, Surface>();
  const offered = new Map<string, { floor: Frame | null; top: Frame | null }>();
  const shifts = new Map<string, number>();
  for (const m of model.rows) {
    const recipe = recipes.has(m.row.row.id) ? recipes.get(m.row.row.id)! : m.recipe;
    if (!isSeated(recipe) || recipe.op !== m.recipe.op) continue;
    if (m.copy) {
      const original = model.rows.find((o) => o.row === m.row && !o.copy)!;
      const moved = recipe !== m.recipe && m.copy.mirrored ? flippedRecipe(recipe) : recipe;
      const by = shifts.get(m.row.row.id) ?? 0;
      const again = repeatedFrame(m.copy.moves, m.frame, model.repeats, recipes);
      if (!recipes.has(m.row.row.id) && Math.abs(by) < ROUNDING && again === m.frame) continue;
      const to: Frame = { ...again, origin: add(again.origin, scale(again.normal, by)) };
      for (const s of copiedSurfaces(m, original, moved, to)) out.set(s.id, s);
      continue;
    }
    const shift =
      shiftOf(m.anchor, m.frame.normal, model, out, offered) -
      (startOf(recipe) - startOf(m.recipe)) +
      (heightOf(recipe) - heightOf(m.recipe));
    shifts.set(m.row.row.id, shift);
    const turned = movedPlane(m.recipe.plane, recipe.plane, m.frame, model);
    const frame: Frame = { ...turned, origin: add(turned.origin, scale(m.frame.normal, shift)) };
    offered.set(m.row.row.id, levelsOf(recipe, frame));
    const edge = m.edge ? m.edge.offset + shiftOf(m.edge.anchor, m.edge.normal, model, out, offered) : 0;
    // What neither moves nor is made of other numbers is as it was.
    if (
      recipe === m.recipe &&
      turned === m.frame &&
      Math.abs(shift) < ROUNDING &&
      Math.abs(edge - (m.edge?.offset ?? 0)) < ROUNDING
    )
      continue;
    for (const s of surfacesOf(m.row.row.id, ended(recipe, m), frame, wallOf(recipe, m.edge, edge))) out.set(s.id, s);
  }
  return out;
}

/** Where a copy stands when the repeats that made it have other numbers. */
function repeatedFrame(
  moves: NonNullable<Element["moves"]>,
  frame: Frame,
  repeats: PartModel["repeats"],
  recipes: Map<string, Recipe | null>,
): Frame {
  if (!moves.some((m) => recipes.has(m.by))) return frame;
  let [was, is] = [zero, zero];
  for (const { by, motion } of moves) {
    const repeat = repeats.get(by);
    const now = recipes.get(by) ?? null;
    const [from, to] = [repeat?.copies, now?.op === "repeat" ? now.copies : repeat?.copies].map((copies) =>
      copies && repeat ? plainMotions(copies, repeat.axis)?.[motion] : undefined,
    );
    // A mirror has no numbers of its own, and what it turned over is left as it was.
    if (!from || !to) return frame;
    [was, is] = [movedFrame(was, from), movedFrame(is, to)];
  }
  return carried(frame, was, is);
}
const zero = sideFrame("top", 0);

/** How far below its plane a row begins; a groove of a shaft counts its own from there. */
const startOf = (r: SeatedRecipe): number => ("start" in r.plane ? r.plane.start : 0) + collarStart(r);
const collarStart = (r: SeatedRecipe): number => ("body" in r && r.body.body === "collar" ? r.body.start : 0);
const heightOf = (r: SeatedRecipe): number => (r.plane.on === "origin" ? r.plane.z : 0);

function wallOf(recipe: SeatedRecipe, edge: RowModel["edge"], offset: number): StepWall | null {
  return recipe.op === "step" && edge ? { normal: edge.normal, offset: offset - recipe.width } : null;
}

/** Where a plane of its own name lies when its numbers come out otherwise: shifted along itself, or turned. */
function movedPlane(was: SeatedRecipe["plane"], is: SeatedRecipe["plane"], frame: Frame, model: PartModel): Frame {
  if (was.on !== "named" || is.on !== "named") return frame;
  const [a, b] = [was.made, is.made];
  if (a.is === "offset" && b.is === "offset")
    return { ...frame, origin: add(frame.origin, scale(frame.normal, b.by - a.by)) };
  if (a.is === "tangent" && b.is === "tangent") {
    const round = model.rows.find((m) => m.row.row.id === a.row && !m.copy);
    const place = round && "places" in round.recipe ? round.recipe.places[0] : null;
    if (!place || a.angle === b.angle) return frame;
    return movedFrame(frame, turnAbout(fromFrame(round!.frame, place), round!.frame.normal, b.angle - a.angle));
  }
  const isTurned = (a.is === "tilt" && b.is === "tilt") || (a.is === "index" && b.is === "index");
  if (!isTurned || a.angle === b.angle) return frame;
  const through = a.is === "tilt" ? a.at : zero.origin;
  return movedFrame(frame, turnAbout(through, axisDirections[a.about], b.angle - a.angle));
}

/**
 * A recipe whose body ends at a plane, with the depth it came to; with other numbers as much deeper as they make the
 * plane lie.
 */
function ended(recipe: SeatedRecipe, m: RowModel): SeatedRecipe {
  const step = m.row.placed?.step;
  if (!("body" in recipe) || recipe.body.body !== "prism" || typeof recipe.body.depth !== "object") return recipe;
  const was = "body" in m.recipe && m.recipe.body.body === "prism" ? m.recipe.body.depth : null;
  if (step?.op !== "cut" || step.body.body !== "prism" || step.body.limit || typeof was !== "object" || !was)
    return recipe;
  const is = recipe.body.depth;
  const deeper = is.past - was.past + lowered(was.to, is.to, m.frame);
  return { ...recipe, body: { ...recipe.body, depth: step.body.to + deeper } };
}

/** How much farther down a named plane lies with other numbers. */
function lowered(was: SeatedRecipe["plane"], is: SeatedRecipe["plane"], frame: Frame): number {
  if (was.on !== "named" || is.on !== "named" || was.made.is !== "offset" || is.made.is !== "offset") return 0;
  const { on } = was.made.from;
  const out = on in sides ? dot(sideNormal(on as Side), frame.normal) : 1;
  return -(is.made.by - was.made.by) * out;
}
const sides = { top: 1, bottom: 1, front: 1, back: 1, left: 1, right: 1 };

function anchorOfPlane(recipe: SeatedRecipe, frame: Frame, model: PartModel): Anchor {
  const { plane } = recipe;
  switch (plane.on) {
    case "origin":
      return { on: "fixed" };
    case "floorOf":
      return { on: "row", row: plane.row, plane: "floor" };
    case "topOf":
      return { on: "row", row: plane.row, plane: "top" };
    case "frame":
    case "axis":
    case "roundOf":
      return { on: "fixed" };
    default:
      return anchorAt(frame.normal, dot(frame.origin, frame.normal) + startOf(recipe), model);
  }
}

/** The surface that reaches just so far in a direction: a flat across it, or the round of a wall. */
function anchorAt(normal: Vec3, offset: number, model: PartModel): Anchor {
  for (const s of model.surfaces.values()) {
    if (s.shape.is === "plane" && s.role !== "middle") {
      const c = dot(s.shape.normal, normal);
      if (Math.abs(c) > PARALLEL && Math.abs(c * s.shape.offset - offset) < CONTACT)
        return { on: "surface", id: s.id, sign: Math.sign(c), reach: 0 };
    } else if (
      s.shape.is === "cylinder" &&
      Math.abs(dot(s.shape.direction, normal)) < COINCIDENT &&
      Math.abs(dot(s.shape.origin, normal) + s.shape.radius - offset) < CONTACT
    ) {
      return { on: "surface", id: s.id, sign: 1, reach: 1 };
    }
  }
  return { on: "fixed" };
}

function stepEdge(row: SolvedRow, frame: Frame, model: PartModel): RowModel["edge"] {
  const step = row.placed?.step;
  if (row.recipe?.op !== "step" || step?.op !== "cut" || step.body.body !== "prism") return null;
  const normal = sideNormal(row.recipe.side);
  // The strip's own box tells where the edge of the plane's outline stands that way; the part may reach farther
  // elsewhere.
  const corners = step.body.outline.outer.map((s) =>
    s.kind === "line" ? fromFrame(frame, v2(s.from.x, s.from.y)) : frame.origin,
  );
  const offset = Math.max(...corners.map((p) => dot(p, normal)));
  return { normal, offset, anchor: anchorAt(normal, offset, model) };
}

/** How far a plane moves along its direction when what it rests on has moved. */
function shiftOf(
  anchor: Anchor,
  normal: Vec3,
  model: PartModel,
  moved: Map<string, Surface>,
  offered: Map<string, { floor: Frame | null; top: Frame | null }>,
): number {
  if (anchor.on === "fixed") return 0;
  if (anchor.on === "row") {
    const was = model.rows.find((m) => m.row.row.id === anchor.row)?.row.planes?.[anchor.plane];
    const is = offered.get(anchor.row)?.[anchor.plane];
    return was && is ? dot(is.origin, normal) - dot(was.origin, normal) : 0;
  }
  const was = model.surfaces.get(anchor.id)?.shape;
  const is = (moved.get(anchor.id) ?? model.surfaces.get(anchor.id))?.shape;
  if (was?.is === "plane" && is?.is === "plane") return anchor.sign * (is.offset - was.offset);
  if (was?.is === "cylinder" && is?.is === "cylinder")
    return dot(is.origin, normal) + is.radius - dot(was.origin, normal) - was.radius;
  return 0;
}
