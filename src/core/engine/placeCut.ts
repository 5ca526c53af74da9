import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { turnedFrame } from "../geometry/motion";
import { COINCIDENT, CONTACT } from "../geometry/tolerance";
import { saidLength } from "../number";
import { fromFrame, scale, v2, type Box, type Frame, type Vec2 } from "../geometry/vec";
import { circle, type Loop, type Outline } from "../outline";
import type { Body, EndPlane, PrismBody } from "../rows";
import { byDepth, depthsToVoid, limitOf, meetingOf } from "./ends";
import type { BodyStep, PlacedBody } from "./kernel";
import { openPockets } from "./openChains";
import { floorOf, goesThrough, placedBody, prismOf, reachOf } from "./placedBody";
import { cutStep, type Of, type OnPart, type PlacedRow } from "./placedRow";
import { wrappedBody, wrappedVee } from "./wrappedBody";
import { depthThrough, isOnRound, lowered, shaftOfRow, type Seat } from "./planes";

type RevolvedBody = Extract<Body, { body: "revolved" }>;
/** Above the plane of a round, mm, where the way down to its face begins. */
const CLEAR = 1;

/** What is cut, from a plane that is known. */
export function placeCut(recipe: Of<"cut">, row: string, frame: Frame, seat: OnPart): Result<PlacedRow> {
  const { body } = recipe;
  if (body.body === "collar") return collar(body, row, seat);
  if (body.body === "helix") return helix(body, row, seat);
  if (body.body === "wrapped" || body.body === "wrappedVee") {
    const made = body.body === "wrapped" ? wrappedBody(body, "cut", seat) : wrappedVee(body, seat);
    if (!made.ok) return made;
    const step = cutStep(row, frame, made.value);
    return ok({ step, planes: { start: frame, floor: null, top: null, shape: { ...step } }, thru: false });
  }
  const cutting = new Cutting(recipe, row, frame, seat);
  const end = endOf(body);
  if (end !== null) return cutting.toEnd(end);
  return isOnRound(recipe.plane) && body.body === "revolved" ? cutting.fromRound(body) : cutting.asSaid();
}

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
    this.box = seat.room ?? seat.kernel.measure(seat.key).box;
    this.far = depthThrough(frame, this.box);
  }

  /** To a depth, or through everything. */
  asSaid(): Result<PlacedRow> {
    const { body, frame } = this;
    if (body.body === "open") return this.alongChain(body);
    const made = this.placed(body);
    return made.ok ? this.done(made.value, floorOf(body, frame), goesThrough(body)) : made;
  }

  /** To the side of an open chain: at every place another piece of the part. */
  private alongChain(body: Extract<Body, { body: "open" }>): Result<PlacedRow> {
    const { frame, seat, places, far } = this;
    const made = openPockets(body, seat, frame, places, far);
    if (!made.ok) return made;
    const [step, ...more] = made.value.map((placed, i) => this.stepOf(placed, [i]));
    return ok({
      step,
      ...(more.length ? { more } : {}),
      planes: { start: frame, floor: floorOf(body, frame), top: null, shape: { ...step, places } },
      thru: goesThrough(body),
    });
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
    if (depth <= COINCIDENT) return fail(problems.endOverItsStart(), { path: "to" });
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
  if (most + end.past <= COINCIDENT) return fail(problems.endOverItsStart(), { path: "to" });
  const limit = limitOf(meeting.value, scale(frame.normal, -1), end.past);
  return ok({ ...prismOf(body), from: 0, to: most + end.past, limit });
}

/** A ring round a shaft, so far below its top. */
function collar(body: Extract<Body, { body: "collar" }>, row: string, seat: OnPart): Result<PlacedRow> {
  const shaft = body.row === null ? onlyShaft(seat) : shaftOfRow(body.row, seat);
  if (!shaft.ok) return shaft;
  const { radius, high, low, frame: axis } = shaft.value;
  const inner =
    typeof body.inner === "number" ? grooveInner(body.inner, radius) : toothedInner(body.inner.pitch, radius);
  if (!inner.ok) return inner;
  const down = body.start;
  if (down + body.width > high - low + COINCIDENT) return fail(problems.beyondItsShaft(), { path: "start" });
  const on: Frame = { ...axis, origin: fromFrame(axis, v2(0, 0), down - high) };
  const ring: Outline = {
    outer: [{ kind: "arc", centre: v2(0, 0), radius: radius + 1, start: 0, sweep: 2 * Math.PI }],
    holes: [inner.value],
  };
  const step = cutStep(row, on, { body: "prism", outline: ring, from: 0, to: body.width });
  return ok({
    step,
    planes: { start: on, floor: lowered(on, body.width), top: null, shape: { ...step } },
    thru: false,
  });
}

/** Sharp-V height is √3/2 P: an eighth of it is missing at the crest, a quarter at the root (ISO 68-1, ASME B1.1). */
const MINOR = (5 / 8) * Math.sqrt(3);
/** How far over the crest the groove comes in, of its pitch: less than where it would meet its next turn. */
const OVER = 0.05;
const OFF_SEAM = 0.7;

function helix(body: Extract<Body, { body: "helix" }>, row: string, seat: OnPart): Result<PlacedRow> {
  const shaft = shaftOfRow(body.row, seat);
  if (!shaft.ok) return shaft;
  const { radius, high, low, frame: axis } = shaft.value;
  const { major, pitch, start, length } = body;
  const end = start + length;
  if (end > high - low + CONTACT) return fail(problems.longerThanItsShaft(), { path: "length" });
  const root = major / 2 - (MINOR * pitch) / 2;
  const over = Math.max(radius, major / 2) + OVER * pitch;
  const widthAt = (r: number) => pitch / 4 + (2 * (r - root)) / Math.sqrt(3);
  if (radius <= root || widthAt(over) >= pitch)
    return fail(problems.shaftDoesNotCarryThread(saidLength(2 * radius), saidLength(major)), { path: "thread" });
  // Turned off the seam of the shaft, where the kernel would have edges lie on edges.
  const on: Frame = { ...turnedFrame(axis, OFF_SEAM), origin: fromFrame(axis, v2(0, 0), -high) };
  const placed: PlacedBody = {
    body: "helix",
    pitch,
    outer: { radius: over, width: widthAt(over) },
    inner: { radius: root, width: widthAt(root) },
    from: start < COINCIDENT ? -pitch / 2 : start,
    to: high - low - end < CONTACT ? end + pitch / 2 : end,
  };
  const step = cutStep(row, on, placed);
  return ok({ step, planes: { start: on, floor: null, top: null, shape: { ...step } }, thru: false });
}

function grooveInner(inner: number, radius: number): Result<Loop> {
  return inner < radius ? ok(circle(inner)) : fail(problems.shaftGrooveNotSmaller(), { path: "diameter" });
}

/** The most teeth that are cut into a solid one by one. */
const MOST_TEETH = 500;

/** Teeth of 90 degrees (DIN 82) all round, as many as the girth carries of the pitch, their crests on the round. */
function toothedInner(pitch: number, radius: number): Result<Loop> {
  const teeth = Math.round((2 * Math.PI * radius) / pitch);
  if (teeth < 6 || teeth > MOST_TEETH) return fail(problems.teethOfKnurl(teeth, MOST_TEETH), { path: "pitch" });
  const half = Math.PI / teeth;
  const root = radius * (Math.cos(half) - Math.sin(half));
  const corners = Array.from({ length: 2 * teeth }, (_, i) => {
    const r = i % 2 ? root : radius;
    return v2(r * Math.cos(i * half), r * Math.sin(i * half));
  });
  return ok(corners.map((from, i) => ({ kind: "line", from, to: corners[(i + 1) % corners.length] })));
}

/** The one round there is, where a row does not say which; with several, which is not for us to guess. */
function onlyShaft(seat: Seat) {
  const rows = [...seat.earlier].filter(([row, planes]) => planes.shape?.op === "leave" && shaftOfRow(row, seat).ok);
  const which = { path: "shaft", expected: "OF and the number of a round, ring or turned row" };
  if (!rows.length) return fail(problems.noShaft(), which);
  if (rows.length > 1) return fail(problems.whichShaft(rows.map(([row]) => seat.nameOf(row)).join(" or ")), which);
  return shaftOfRow(rows[0][0], seat);
}
