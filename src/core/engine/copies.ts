import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { MEET, COINCIDENT } from "../geometry/tolerance";
import { axisDirections, mirrorIn, movedFrame, moveBy, turnedFrame, type Motion } from "../geometry/motion";
import { dot, fromFrame, length, sideFrame, sub, v3, type Frame, type Vec3 } from "../geometry/vec";
import { flippedPoint } from "../outline/flip";
import { isSeated, type Copies, type EndPlane, type Recipe, type SeatedRecipe } from "../rows";
import type { Standing } from "./advance";
import { canWait, CopiesTogether, MOST_IN_TURN, needsOf, roomOf, type CopyFault } from "./copiesTogether";
import type { EdgeMark, Element } from "./element";
import type { EdgeInfo, SingleStep } from "./kernel";
import { flippedBody, flippedRecipe } from "./flipped";
import { plainMotions } from "./motions";
import { axisOfRow, frameOf, middleOfRow, type Seat } from "./planes";

/** Puts a seated recipe on a frame that is known; `place` without finding its plane. */
type PlaceOn = (recipe: SeatedRecipe, row: string, frame: Frame, seat: Seat) => Result<PlacedAt>;
export interface PlacedAt {
  steps: SingleStep[];
  thru: boolean;
}

/**
 * Puts the rows of a repeat or mirror again at every other place, one copy after the other on the part as it stands.
 * @param at how far the part has come
 * @returns the part with all copies, what they are, for a repeat of this repeat, and where each went
 */
export function placeCopies(
  recipe: Extract<Recipe, { op: "repeat" }>,
  by: string,
  seat: Seat,
  at: Standing,
  placeOn: PlaceOn,
): Result<{ reached: Standing; elements: Element[]; copies: Frame[]; axis?: Frame }> {
  const axis = axisOf(recipe.copies, seat);
  if (axis && !axis.ok) return axis;
  const motions = motionsOf(recipe.copies, axis?.value ?? null, seat);
  if (!motions.ok) return motions;
  const group = elementsOf(recipe.rows, seat);
  if (!group.ok) return group;
  const places = group.value.reduce((n, e) => n + placesIn(e.recipe), 0) * (motions.value.length - recipe.skip.length);
  if (places > MOST_COPIED) return fail(problems.tooManyCopies(places, MOST_COPIED), { path: "count" });
  const inTurn = group.value.filter((e) => !canWait(e)).length * (motions.value.length - recipe.skip.length);
  if (inTurn > MOST_IN_TURN) return fail(problems.tooManyInTurn(inTurn, MOST_IN_TURN), { path: "count" });
  const used = instancesUsed(seat);
  const elements: Element[] = [];
  const together = new CopiesTogether(seat.kernel, at, roomOf(seat.kernel, at.key, motions.value));
  const failed = ({ copy, row, why }: CopyFault) => {
    const [first] = why.problems;
    return fail(problems.copyFault(copy, seat.nameOf(row), first.message), { expected: first.expected });
  };
  for (const [k, motion] of motions.value.entries()) {
    if (recipe.skip.includes(k + 2)) continue;
    for (const element of group.value) {
      const before = canWait(element) ? null : together.settle();
      if (before) return failed(before);
      const here: Seat = { ...seat, key: together.key, room: together.room ?? undefined };
      const copy = copyOf(element, motion, here, used, placeOn);
      const fault = copy.ok ? together.put(k + 2, copy.value) : { copy: k + 2, row: element.row, why: copy };
      if (fault) return failed(fault);
      if (copy.ok) elements.push({ ...copy.value, moves: [...(element.moves ?? []), { by, motion: k }] });
    }
  }
  const last = together.settle();
  if (last) return failed(last);
  const reached = together.standing;
  // What is mirrored has no plane that a row as it was typed could stand on.
  const copies = motions.value.flatMap((m) => (m.mirrors ? [] : [movedFrame(zero, m)]));
  return ok({ reached, elements, copies, ...(axis ? { axis: axis.value } : {}) });
}

/** The most places a repeat or mirror puts there: some tens of seconds of work. Counted before anything is made. */
const MOST_COPIED = 5000;

/** The job's zero, looking up. */
const zero = sideFrame("top", 0);

/** All that the rows of a group put there, those of repeats among them too. */
function elementsOf(rows: string[], seat: Seat): Result<Element[]> {
  const elements: Element[] = [];
  for (const row of rows) {
    const planes = seat.earlier.get(row);
    if (!planes) return fail(problems.notAnEarlierRow(seat.nameOf(row)), { path: "rows" });
    if (!planes.elements) return fail(problems.notRepeatable(seat.nameOf(row)), { path: "rows" });
    elements.push(...planes.elements);
  }
  return ok(elements);
}

/** How many copies each row has so far. */
function instancesUsed(seat: Seat): Map<string, number> {
  const used = new Map<string, number>();
  for (const planes of seat.earlier.values())
    for (const e of planes.elements ?? []) used.set(e.row, (used.get(e.row) ?? 0) + placesIn(e.recipe));
  return used;
}
const placesIn = (recipe: Recipe): number => ("places" in recipe ? recipe.places.length : 1);

function copyOf(e: Element, motion: Motion, seat: Seat, used: Map<string, number>, placeOn: PlaceOn): Result<Element> {
  if (e.marks) return edgesAgain(e, motion, seat);
  if (!isSeated(e.recipe) || !e.frame) return ok({ ...e, steps: [] });
  const from = used.get(e.row) ?? 0;
  used.set(e.row, from + placesIn(e.recipe));
  const numbered = (s: SingleStep, base: number): SingleStep =>
    s.op === "cut" || s.op === "leave"
      ? { ...s, instances: s.places.map((_, i) => from + (s.instances?.[i] ?? base + i) - base) }
      : s;
  const recipe = motion.mirrors ? flippedRecipe(e.recipe) : e.recipe;
  const frame = standsAfter(e.recipe, e.frame, motion);
  const copy = {
    row: e.row,
    frame,
    from,
    ...(motion.mirrors === Boolean(e.mirrored) ? {} : { mirrored: true as const }),
  };
  if (needsOf(e.recipe) === "nothing") {
    const steps = e.steps.map((s) => numbered(movedStep(s, motion), e.from ?? 0));
    return ok({ ...copy, recipe, steps, thru: e.thru });
  }
  const ended = movedEnds(recipe, motion, seat);
  if (!ended.ok) return ended;
  const placed = placeOn(ended.value, e.row, frame, seat);
  if (!placed.ok) return placed;
  const { steps, thru } = placed.value;
  return ok({ ...copy, recipe: ended.value, steps: steps.map((s) => numbered(s, 0)), thru });
}

/** The planes a row ends at stay where they are under a shift, and go along when the row is turned or mirrored. */
function movedEnds(recipe: SeatedRecipe, motion: Motion, seat: Seat): Result<SeatedRecipe> {
  const turns = motion.mirrors || length(sub(motion.direction(v3(1, 2, 3)), v3(1, 2, 3))) > COINCIDENT;
  if (!turns || (recipe.op !== "leave" && recipe.op !== "cut")) return ok(recipe);
  const { body } = recipe;
  const end = body.body === "prism" ? body.depth : body.body === "revolved" ? body.end?.extent : undefined;
  if (typeof end !== "object") return ok(recipe);
  const plane = frameOf(end.to, seat);
  if (!plane.ok) return plane;
  const moved: EndPlane = { ...end, to: { on: "frame", frame: movedFrame(plane.value, motion), start: 0 } };
  if (body.body === "prism") return ok({ ...recipe, body: { ...body, depth: moved } });
  return body.body === "revolved" && body.end
    ? ok({ ...recipe, body: { ...body, end: { ...body.end, extent: moved } } })
    : ok(recipe);
}

/** Where a row stands after a movement. What is turned part of the way round starts from the other side in a mirror. */
function standsAfter(recipe: SeatedRecipe, frame: Frame, motion: Motion): Frame {
  const moved = movedFrame(frame, motion);
  const body = "body" in recipe ? recipe.body : null;
  if (!motion.mirrors || body?.body !== "turned" || body.sweep > 2 * Math.PI - COINCIDENT) return moved;
  return turnedFrame(moved, Math.PI - body.sweep);
}

function movedStep(step: SingleStep, motion: Motion): SingleStep {
  if (step.op !== "cut" && step.op !== "leave") return step;
  const moved = movedFrame(step.frame, motion);
  if (!motion.mirrors) return { ...step, frame: moved };
  const partial = step.body.body === "turned" && step.body.sweep < 2 * Math.PI - COINCIDENT ? step.body.sweep : null;
  return {
    ...step,
    frame: partial === null ? moved : turnedFrame(moved, Math.PI - partial),
    body: flippedBody(step.body),
    places: step.places.map(flippedPoint),
  };
}

/** The same edges of the copies: found by where they lie after the movement. */
function edgesAgain(e: Element, motion: Motion, seat: Seat): Result<Element> {
  const [step] = e.steps;
  if (step?.op !== "edges" || seat.key === null) return ok({ ...e, steps: [] });
  const edges = seat.kernel.edges(seat.key);
  const faces = seat.kernel.faces(seat.key);
  const marks: EdgeMark[] = [];
  const wanted = e.marks ?? [];
  let missing = 0;
  const found = wanted.flatMap((mark) => {
    const edge = edges.findIndex((x) => isMoved(mark.edge, x, motion));
    if (edge < 0) {
      // An edge that comes to lie on one of the row's own is treated already.
      if (!wanted.some((own) => isMoved(mark.edge, own.edge, motion))) missing++;
      return [];
    }
    const looks = motion.direction(mark.face);
    const [a, b] = edges[edge].faces;
    const face = dot(faces[a].normal, looks) >= dot(faces[b].normal, looks) ? a : b;
    marks.push({ edge: edges[edge], face: faces[face].normal });
    return [{ edge, face }];
  });
  if (!found.length) return fail(problems.noEdgesToRepeat());
  if (missing) return fail(problems.edgesMissing(missing, wanted.length, missing === 1 ? "is" : "are"));
  return ok({ ...e, marks, steps: [{ ...step, edges: found }] });
}

const near = (a: Vec3, b: Vec3): boolean => length(sub(a, b)) < MEET;
function isMoved(was: EdgeInfo, is: EdgeInfo, motion: Motion): boolean {
  if (was.curve !== is.curve || Math.abs(was.length - is.length) > MEET) return false;
  if (was.curve === "circle" && was.centre && is.centre && Math.abs(was.length - 2 * Math.PI * was.radius!) < MEET)
    return near(motion.point(was.centre), is.centre) && Math.abs(was.radius! - is.radius!) < MEET;
  return near(motion.point(was.middle), is.middle);
}

/** The axis of a row that copies go round; null where they go round none. */
const axisOf = (copies: Copies, seat: Seat): Result<Frame> | null =>
  copies.by === "around" && "row" in copies.axis ? axisOfRow(copies.axis.row, seat) : null;

/** Where the copies go, without the original. */
function motionsOf(copies: Copies, axis: Frame | null, seat: Seat): Result<Motion[]> {
  const plain = plainMotions(copies, axis);
  if (plain) return ok(plain);
  switch (copies.by) {
    case "like":
      return likeRow(copies.row, seat);
    case "mirror":
      return mirrorOf(copies.about, seat);
    default:
      return ok([]);
  }
}

function likeRow(row: string, seat: Seat): Result<Motion[]> {
  const shape = seat.earlier.get(row)?.shape;
  if (!shape) return fail(problems.rowWithoutPlaces(seat.nameOf(row)));
  const [first, ...rest] = shape.places.map((p) => fromFrame(shape.frame, p));
  return ok(rest.map((p) => moveBy(sub(p, first))));
}

function mirrorOf(about: Extract<Copies, { by: "mirror" }>["about"], seat: Seat): Result<Motion[]> {
  if ("along" in about) return ok([mirrorIn(v3(0, 0, 0), axisDirections[about.along])]);
  const frame = "middleOf" in about ? middleOfRow(about.middleOf, seat) : frameOf(about.plane, seat);
  return frame.ok ? ok([mirrorIn(frame.value.origin, frame.value.normal)]) : frame;
}
