import { fail, ok, type Result } from "../base/result";
import { COINCIDENT } from "../geometry/tolerance";
import { boxInFrame, fromFrame, scale, v2, type Box, type Frame, type Vec2 } from "../geometry/vec";
import { loopBox, rectangleBetween, type Outline } from "../outline";
import { saidLength } from "../number";
import type { Body, EndPlane, PlanePlace, PrismBody, SeatedRecipe } from "../rows";
import { byDepth, depthsToVoid, limitOf, meetingOf } from "./ends";
import type { BodyStep, PlacedBody, PlacedPrism } from "./kernel";
import { openPocket, turnedOutlines } from "./openChains";
import { depthThrough, lowered, outlineBox, shaftOfRow, sideInPlane, type RowPlanes, type Seat } from "./planes";

/** A row put on its plane: one step, and more where its places do not all go equally deep. */
export interface PlacedRow {
  step: BodyStep;
  more?: BodyStep[];
  planes: RowPlanes;
  thru: boolean;
  depth?: number;
}
type RevolvedBody = Extract<Body, { body: "revolved" }>;
/** Above the plane of a round, mm, where the way down to its face begins. */
const CLEAR = 1;
type Of<Op extends SeatedRecipe["op"]> = Extract<SeatedRecipe, { op: Op }>;
/** A seat with a part on it. */
type OnPart = Seat & { key: string };

/** Puts a recipe on a plane that is known. */
export function placeSeated(recipe: SeatedRecipe, row: string, frame: Frame, seat: Seat): Result<PlacedRow> {
  if (recipe.op === "leave") return placeLeave(recipe, row, frame, seat);
  const { key } = seat;
  if (key === null) return fail("there is nothing to cut yet", { expected: "a LEAVE row first" });
  const on: OnPart = { ...seat, key };
  switch (recipe.op) {
    case "face":
      return ok(placeFace(recipe, row, frame, on));
    case "step":
      return ok(placeStep(recipe, row, frame, on));
    case "cut":
      return placeCut(recipe, row, frame, on);
  }
}

/** A facing takes all that stands over its floor. */
function placeFace(recipe: Of<"face">, row: string, frame: Frame, { kernel, key }: OnPart): PlacedRow {
  const part = boxInFrame(frame, kernel.measure(key).box);
  const outer = rectangleBetween(v2(part.min.x - 1, part.min.y - 1), v2(part.max.x + 1, part.max.y + 1));
  const above = -Math.max(0, part.max.z) - 1;
  return {
    step: cut(row, frame, { body: "prism", outline: { outer, holes: [] }, from: above, to: recipe.depth }),
    planes: { start: frame, floor: lowered(frame, recipe.depth), top: null },
    thru: false,
  };
}

function placeStep(recipe: Of<"step">, row: string, frame: Frame, { kernel, key }: OnPart): PlacedRow {
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

const cut = (row: string, frame: Frame, body: PlacedBody): BodyStep => ({
  op: "cut",
  row,
  frame,
  body,
  places: [{ x: 0, y: 0 }],
});

function placeLeave(recipe: Of<"leave">, row: string, frame: Frame, seat: Seat): Result<PlacedRow> {
  const made = leftBody(recipe.body, frame, recipe.places[0], seat);
  if (!made.ok) return made;
  const step: BodyStep = { op: "leave", row, frame, body: made.value, places: recipe.places };
  const top = topOf(made.value, frame);
  const shape = { op: step.op, frame, body: step.body, places: step.places };
  return ok({ step, planes: { start: frame, floor: null, top, shape }, thru: false });
}

function leftBody(body: Body, frame: Frame, at: Vec2, seat: Seat): Result<PlacedBody> {
  if (body.body === "rib") {
    if (seat.key === null) return fail("a rib needs walls to stand between", { expected: "LEAVE rows before it" });
    const part = boxInFrame(frame, seat.kernel.measure(seat.key).box);
    const reach = Math.hypot(part.max.x - part.min.x, part.max.y - part.min.y) + 1;
    return ok({ ...body, reach });
  }
  return body.body === "prism" ? leftPrism(body, frame, at, seat) : placedBody(body, frame, null, 0);
}

const prismOf = ({ outline, more, draft, ends }: PrismBody): Omit<PlacedPrism, "from" | "to"> => ({
  body: "prism",
  outline,
  ...(more ? { more } : {}),
  ...(draft ? { draft } : {}),
  ...(ends ? { ends } : {}),
});

/** What is left stands over its plane, its height counted upwards; or goes on into the material side. */
function leftPrism(body: PrismBody, frame: Frame, at: Vec2, seat: Seat): Result<PlacedBody> {
  const { depth: height } = body;
  const prism = prismOf(body);
  if (typeof height === "number") {
    const [from, to] = { up: [0, -height], both: [height / 2, -height / 2], down: [height, 0] }[body.way ?? "up"];
    return ok({ ...prism, from, to });
  }
  if (height === "thru") return fail("what is left has a height", { path: "height", expected: "X and a height" });
  if (height === "next") {
    if (seat.key === null) return fail("there is no material to go to yet", { expected: "a LEAVE row first" });
    const far = depthThrough(frame, seat.kernel.measure(seat.key).box);
    if (far <= 1 + COINCIDENT)
      return fail("there is no material on that side of its plane", {
        path: "next",
        expected: "a plane over material",
      });
    return ok({ ...prism, from: 0, to: far, until: "material" });
  }
  return toPlane(height, body.outline, prism, frame, at, seat);
}

/** Up to a plane, over its own or below it. */
function toPlane(
  end: EndPlane,
  outline: Outline,
  prism: Omit<PlacedPrism, "from" | "to">,
  frame: Frame,
  at: Vec2,
  seat: Seat,
): Result<PlacedBody> {
  const meeting = meetingOf(end, frame, at, seat);
  if (!meeting.ok) return meeting;
  const { depth, isSquare } = meeting.value;
  const down = depth > 0;
  const far = isSquare ? { least: depth, most: depth } : reachOf(outline, frame, at, end, seat);
  if (isSquare && Math.abs(depth) + end.past < COINCIDENT)
    return fail("it would have no height: its own plane is where it ends", { path: "to", expected: "another plane" });
  if (!isSquare && far.least < 0 !== far.most < 0)
    return fail("the plane it is to end at cuts through where it starts", {
      path: "to",
      expected: "a plane clear of it",
    });
  const way = down ? far.most + end.past : -far.least + end.past;
  if (way <= COINCIDENT)
    return fail(`it would be ${saidLength(way)} high`, { path: "to", expected: "a plane farther away" });
  const limit = isSquare ? {} : { limit: limitOf(meeting.value, scale(frame.normal, down ? -1 : 1), end.past) };
  return ok(down ? { ...prism, from: way, to: 0, ...limit } : { ...prism, from: 0, to: -way, ...limit });
}

/** Between which depths an outline meets a slanted plane: at the corners of its box. */
function reachOf(outline: Outline, frame: Frame, at: Vec2, end: EndPlane, seat: Seat): { least: number; most: number } {
  const { min, max } = loopBox(outline.outer);
  const depths = [v2(min.x, min.y), v2(max.x, min.y), v2(max.x, max.y), v2(min.x, max.y)].flatMap((c) => {
    const m = meetingOf(end, frame, v2(c.x + at.x, c.y + at.y), seat);
    return m.ok ? [m.value.depth] : [];
  });
  return { least: Math.min(...depths), most: Math.max(...depths) };
}

function topOf(body: PlacedBody, frame: Frame): Frame | null {
  if (body.body === "prism") return body.until || body.limit ? (body.to > 0 ? frame : null) : lowered(frame, body.to);
  return body.body === "turned" ? lowered(frame, -loopBox(body.outlines.flatMap((o) => o.outer)).max.y) : null;
}

function placeCut(recipe: Of<"cut">, row: string, frame: Frame, seat: OnPart): Result<PlacedRow> {
  const { body } = recipe;
  if (body.body === "collar") return collar(body, row, seat);
  const cutting = new Cutting(recipe, row, frame, seat);
  const end = endOf(body);
  if (end !== null) return cutting.toEnd(end);
  return isRound(recipe.plane) && body.body === "revolved" ? cutting.fromRound(body) : cutting.asSaid();
}

/** Whether a plane touches a round: depths on it count from where the axis meets the face. */
const isRound = (plane: PlanePlace): boolean =>
  plane.on === "roundOf" || (plane.on === "named" && plane.made.is === "tangent");

/** A cut on its plane, and the ways to say how deep it goes. */
class Cutting {
  private readonly box: Box;
  private readonly far: number;
  private readonly body: Body;
  private readonly places: Vec2[];

  constructor(
    recipe: Of<"cut">,
    private readonly row: string,
    private readonly frame: Frame,
    private readonly seat: OnPart,
  ) {
    this.body = recipe.body;
    this.places = recipe.places;
    this.box = seat.kernel.measure(seat.key).box;
    this.far = depthThrough(frame, this.box);
  }

  /** To a depth, or through everything. */
  asSaid(): Result<PlacedRow> {
    const { body, frame, seat, places, far } = this;
    const made = body.body === "open" ? openPocket(body, seat.kernel, seat.key, frame, places, far) : this.placed(body);
    return made.ok ? this.done(made.value, floorOf(body, frame), goesThrough(body)) : made;
  }

  /** To the next void, or to a plane. */
  toEnd(end: "next" | EndPlane): Result<PlacedRow> {
    const { body, frame, seat, places } = this;
    const through = this.placed(withDepth(body, "thru"));
    if (!through.ok) return through;
    if (end !== "next" && body.body === "prism") {
      const slanted = cutToSlant(body, end, frame, places, seat);
      if (!slanted.ok) return slanted;
      if (slanted.value) return this.done(slanted.value, null, false);
    }
    const depths =
      end === "next"
        ? depthsToVoid(this.stepOf(through.value), seat.kernel, seat.key)
        : depthsToPlane(end, frame, places, seat);
    if (!depths.ok) return depths;
    const floor = end === "next" ? null : floorOf(withDepth(body, depths.value[0]), frame);
    return this.byPlaces(depths.value, (depth) => withDepth(body, depth), floor, Math.max(...depths.value));
  }

  /** A hole in a round face: its depths count from where its axis meets the face. */
  fromRound(body: RevolvedBody): Result<PlacedRow> {
    const { frame, places, seat } = this;
    const down = scale(frame.normal, -1);
    const below = places.map((p) => {
      const [first] = seat.kernel.stretches(seat.key, fromFrame(frame, p, -CLEAR), down);
      return first ? Math.max(0, first.from - CLEAR) : 0;
    });
    const floor = floorOf(body, lowered(frame, below[0]));
    return this.byPlaces(below, (by) => sunk(body, by), floor);
  }

  private placed(body: Body): Result<PlacedBody> {
    return placedBody(body, this.frame, this.box, this.far);
  }
  private stepOf(placed: PlacedBody, at = this.places.map((_, i) => i)): BodyStep {
    const { places, row, frame } = this;
    const instances = at.length === places.length ? {} : { instances: at };
    return { op: "cut", row, frame, body: placed, places: at.map((i) => places[i]), ...instances };
  }
  private done(made: PlacedBody, floor: Frame | null, thru: boolean): Result<PlacedRow> {
    const step = this.stepOf(made);
    return ok({ step, planes: { start: this.frame, floor, top: null, shape: { ...step } }, thru });
  }

  /** One step for all places that are alike in a figure. */
  private byPlaces(
    figures: number[],
    bodyAt: (figure: number) => Body,
    floor: Frame | null,
    depth?: number,
  ): Result<PlacedRow> {
    const steps: BodyStep[] = [];
    for (const group of byDepth(figures)) {
      const made = this.placed(bodyAt(group.depth));
      if (!made.ok) return made;
      steps.push(this.stepOf(made.value, group.at));
    }
    const [step, ...more] = steps;
    return ok({
      step,
      ...(more.length ? { more } : {}),
      planes: { start: this.frame, floor, top: null, shape: { ...step, places: this.places } },
      thru: goesThrough(bodyAt(figures[0])),
      ...(depth === undefined ? {} : { depth }),
    });
  }
}

/** A hole that begins so far below its plane, and is open up to it. */
function sunk(body: RevolvedBody, by: number): Body {
  if (by < COINCIDENT) return body;
  const [first] = body.profile;
  const lower = body.profile.map((p) => ({ r: p.r, z: p.z === "thru" ? p.z : p.z + by }));
  return { body: "revolved", profile: [{ r: first.r, z: 0 }, ...lower.slice(1)] };
}

/** Where a cut ends that does not say so in a number; null where it does. */
function endOf(body: Body): "next" | EndPlane | null {
  const extent = body.body === "prism" ? body.depth : body.body === "revolved" ? body.end?.extent : null;
  return extent === "next" || typeof extent === "object" ? extent : null;
}

function withDepth(body: Body, depth: number | "thru"): Body {
  if (body.body === "prism") return { ...body, depth };
  if (body.body !== "revolved" || !body.end) return body;
  const { profile, end } = body;
  if (depth === "thru") return { body: "revolved", profile };
  const last = profile[profile.length - 1];
  const down = [...profile.slice(0, -1), { r: last.r, z: depth }];
  return { body: "revolved", profile: end.tip > 0 ? [...down, { r: 0, z: depth + end.tip }] : down };
}

function depthsToPlane(end: EndPlane, frame: Frame, places: Vec2[], seat: Seat): Result<number[]> {
  const depths: number[] = [];
  for (const p of places) {
    const m = meetingOf(end, frame, p, seat);
    if (!m.ok) return m;
    const depth = m.value.depth + end.past;
    if (depth <= COINCIDENT)
      return fail("the plane it is to end at lies over where it starts", {
        path: "to",
        expected: "a plane below its own",
      });
    depths.push(depth);
  }
  return ok(depths);
}

/** A pocket down to a slanted plane; null where the plane is square to its way, and a depth says all. */
function cutToSlant(
  body: PrismBody,
  end: EndPlane,
  frame: Frame,
  places: Vec2[],
  seat: Seat,
): Result<PlacedBody | null> {
  const meeting = meetingOf(end, frame, places[0], seat);
  if (!meeting.ok) return meeting;
  if (meeting.value.isSquare) return ok(null);
  const most = Math.max(
    ...places.flatMap((p) => [body.outline, ...(body.more ?? [])].map((o) => reachOf(o, frame, p, end, seat).most)),
  );
  if (most + end.past <= COINCIDENT)
    return fail("the plane it is to end at lies over where it starts", {
      path: "to",
      expected: "a plane below its own",
    });
  const limit = limitOf(meeting.value, scale(frame.normal, -1), end.past);
  return ok({ ...prismOf(body), from: 0, to: most + end.past, limit });
}

/** A ring round a shaft, so far below its top. */
function collar(body: Extract<Body, { body: "collar" }>, row: string, seat: OnPart): Result<PlacedRow> {
  const shaft = body.row === null ? onlyShaft(seat) : shaftOfRow(body.row, seat);
  if (!shaft.ok) return shaft;
  const { radius, high, low, frame: axis } = shaft.value;
  if (body.inner >= radius)
    return fail("the groove is not smaller than its shaft", {
      path: "diameter",
      expected: "a diameter under the shaft's",
    });
  const down = body.start;
  if (down + body.width > high - low + COINCIDENT)
    return fail("the groove lies beyond the end of its shaft", { path: "start", expected: "a START within the shaft" });
  const on: Frame = { ...axis, origin: fromFrame(axis, v2(0, 0), down - high) };
  const ring: Outline = {
    outer: [{ kind: "arc", centre: v2(0, 0), radius: radius + 1, start: 0, sweep: 2 * Math.PI }],
    holes: [[{ kind: "arc", centre: v2(0, 0), radius: body.inner, start: 0, sweep: 2 * Math.PI }]],
  };
  const step = cut(row, on, { body: "prism", outline: ring, from: 0, to: body.width });
  return ok({
    step,
    planes: { start: on, floor: lowered(on, body.width), top: null, shape: { ...step } },
    thru: false,
  });
}

/** The first round that is left, where a row does not say which. */
function onlyShaft(seat: Seat) {
  for (const [row, planes] of seat.earlier)
    if (planes.shape?.op === "leave") {
      const shaft = shaftOfRow(row, seat);
      if (shaft.ok) return shaft;
    }
  return fail("there is no shaft yet", { path: "shaft", expected: "OF and the number of a round, ring or turned row" });
}

function goesThrough(body: Body): boolean {
  if (body.body === "prism" || body.body === "open") return body.depth === "thru";
  return body.body === "revolved" && body.profile[body.profile.length - 1].z === "thru";
}

function placedBody(body: Body, frame: Frame, box: Box | null, far: number): Result<PlacedBody> {
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
      return fail("an open chain can only be cut", { expected: "a closed outline" });
    case "rib":
    case "collar":
      return fail("this body needs a part to stand on", { expected: "LEAVE rows before it" });
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

function floorOf(body: Body, frame: Frame): Frame | null {
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
