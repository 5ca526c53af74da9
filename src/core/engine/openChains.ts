import { problems } from "./problems";
import { boxInFrame, v2, type Box, type Frame, type Vec2 } from "../geometry/vec";
import { reversed } from "../outline/meet";
import { endOf, loopArea, loopBox, startOf, type Loop, type Outline, type Segment } from "../outline";
import type { Region } from "../outline/boolean";
import { leftOf } from "../outline/divide";
import { fail, ok, type Result } from "../base/result";
import type { Body } from "../rows";
import type { PlacedPrism } from "./kernel";
import type { OnPart } from "./placedRow";
import { shadowOfBand } from "./shadow";
import { COINCIDENT } from "../geometry/tolerance";

/** How near to the edge of the part an end of a chain lies on it, mm: what typed figures of a slanted edge are off. */
const AT_EDGE = 0.05;

/**
 * A pocket along an open chain: at every place what of the part lies to its side, down to its depth. Its ends are
 * where they are typed; one that lies inside the material goes straight on to where it first leaves it.
 */
export function openPockets(
  body: Extract<Body, { body: "open" }>,
  { kernel, key }: OnPart,
  frame: Frame,
  places: Vec2[],
  far: number,
): Result<PlacedPrism[]> {
  const depth = typeof body.depth === "number" ? body.depth : far;
  const seen = shadowOfBand(kernel, key, frame, 0, depth);
  if (!seen.ok) return fail(problems.openChainMeetsNothing(), { path: "outline" });
  const { min, max } = boxInFrame(frame, kernel.measure(key).box);
  const made: PlacedPrism[] = [];
  for (const place of places) {
    const here = movedBy(seen.value, v2(-place.x, -place.y));
    const chain = body.side === "left" ? body.chain : [...body.chain].reverse().map(reversed);
    const [outer, ...more] = leftOf(here, chain, AT_EDGE).map((loop) => ({ outer: loop, holes: [] }));
    if (!outer) return fail(problems.openChainMeetsNothing(), { path: "outline" });
    const edge = { min: v2(min.x, min.y), max: v2(max.x, max.y) };
    made.push({ body: "prism", outline: outer, ...(more.length ? { more } : {}), from: 0, to: depth, edge });
  }
  return ok(made);
}

const movedBy = (region: Region, by: Vec2): Region => region.map((loop) => loop.map((s) => movedSegment(s, by)));
const movedSegment = (s: Segment, by: Vec2): Segment => {
  const moved = (p: Vec2) => v2(p.x + by.x, p.y + by.y);
  return s.kind === "line" ? { ...s, from: moved(s.from), to: moved(s.to) } : { ...s, centre: moved(s.centre) };
};

/** The half profiles a turned row sweeps; an open chain is closed to the axis (a bore) or out beyond the part. */
export function turnedOutlines(
  body: Extract<Body, { body: "turned" }>,
  frame: Frame,
  box: Box | null,
): Result<Outline[]> {
  if (!body.chain) return ok(body.outlines);
  const { segments, side } = body.chain,
    a = startOf(segments[0]),
    z = endOf(segments[segments.length - 1]);
  let r = 0;
  if (side === "outside") {
    const b = box ? boxInFrame(frame, box) : null;
    r =
      Math.max(
        loopBox(segments).max.x,
        b
          ? Math.max(Math.abs(b.min.x), Math.abs(b.max.x)) * Math.SQRT2 +
              Math.max(Math.abs(b.min.y), Math.abs(b.max.y)) * Math.SQRT2
          : 0,
      ) + 1;
  }
  const straight = (from: Vec2, to: Vec2): Loop =>
    Math.hypot(to.x - from.x, to.y - from.y) > COINCIDENT ? [{ kind: "line", from, to }] : [];
  const loop = [
    ...segments,
    ...straight(z, v2(r, z.y)),
    ...straight(v2(r, z.y), v2(r, a.y)),
    ...straight(v2(r, a.y), a),
  ];
  if (Math.abs(loopArea(loop)) < COINCIDENT) return fail(problems.profileEnclosesNothing(), { path: "outline" });
  return ok([{ outer: loopArea(loop) > 0 ? loop : [...loop].reverse().map(reversed), holes: [] }]);
}
