import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { COINCIDENT } from "../geometry/tolerance";
import { boxInFrame, scale, type Frame, type Vec2 } from "../geometry/vec";
import { saidLength } from "../number";
import { loopBox, type Outline } from "../outline";
import type { Body, EndPlane, PrismBody } from "../rows";
import { limitOf, meetingOf } from "./ends";
import type { BodyStep, PlacedBody, PlacedPrism } from "./kernel";
import { placedBody, prismOf, reachOf } from "./placedBody";
import type { Of, PlacedRow } from "./placedRow";
import { wrappedBody } from "./wrappedBody";
import { depthThrough, lowered, type Seat } from "./planes";

/** What is left, on a plane that is known. */
export function placeLeave(recipe: Of<"leave">, row: string, frame: Frame, seat: Seat): Result<PlacedRow> {
  const made = leftBody(recipe.body, frame, recipe.places[0], seat);
  if (!made.ok) return made;
  const step: BodyStep = { op: "leave", row, frame, body: made.value, places: recipe.places };
  const top = topOf(made.value, frame);
  const shape = { op: step.op, frame, body: step.body, places: step.places };
  return ok({ step, planes: { start: frame, floor: null, top, shape }, thru: false });
}

function leftBody(body: Body, frame: Frame, at: Vec2, seat: Seat): Result<PlacedBody> {
  if (body.body === "rib") {
    if (seat.key === null) return fail(problems.ribWithoutWalls());
    const part = boxInFrame(frame, seat.kernel.measure(seat.key).box);
    const reach = Math.hypot(part.max.x - part.min.x, part.max.y - part.min.y) + 1;
    return ok({ ...body, reach });
  }
  if (body.body === "imported") {
    const { file, content } = body;
    if (content === null) return fail(problems.noSolidFile(file), { path: "file" });
    const box = seat.kernel.fileBox(content, file);
    return box.ok ? ok({ body: "imported", file, content, box: box.value }) : box;
  }
  if (body.body === "wrapped") return wrappedBody(body, "leave", seat);
  return body.body === "prism" ? leftPrism(body, frame, at, seat) : placedBody(body, frame, null, 0);
}

/** What is left stands over its plane, its height counted upwards; or goes on into the material side. */
function leftPrism(body: PrismBody, frame: Frame, at: Vec2, seat: Seat): Result<PlacedBody> {
  const { depth: height } = body;
  const prism = prismOf(body);
  if (typeof height === "number") {
    const [from, to] = { up: [0, -height], both: [height / 2, -height / 2], down: [height, 0] }[body.way ?? "up"];
    return ok({ ...prism, from, to });
  }
  if (height === "thru") return fail(problems.leaveWithoutHeight(), { path: "height" });
  if (height === "next") {
    if (seat.key === null) return fail(problems.noMaterialYet());
    const far = depthThrough(frame, seat.kernel.measure(seat.key).box);
    if (far <= 1 + COINCIDENT) return fail(problems.noMaterialOnThatSide(), { path: "next" });
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
  if (isSquare && Math.abs(depth) + end.past < COINCIDENT) return fail(problems.noHeightToItsEnd(), { path: "to" });
  if (!isSquare && far.least < 0 !== far.most < 0) return fail(problems.endCutsThroughStart(), { path: "to" });
  const way = down ? far.most + end.past : -far.least + end.past;
  if (way <= COINCIDENT) return fail(problems.tooLow(saidLength(way)), { path: "to" });
  const limit = isSquare ? {} : { limit: limitOf(meeting.value, scale(frame.normal, down ? -1 : 1), end.past) };
  return ok(down ? { ...prism, from: way, to: 0, ...limit } : { ...prism, from: 0, to: -way, ...limit });
}

function topOf(body: PlacedBody, frame: Frame): Frame | null {
  if (body.body === "prism") return body.until || body.limit ? (body.to > 0 ? frame : null) : lowered(frame, body.to);
  return body.body === "turned" ? lowered(frame, -loopBox(body.outlines.flatMap((o) => o.outer)).max.y) : null;
}
