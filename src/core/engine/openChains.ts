import { problems } from "./problems";
import { saidLength, saidPlace } from "../number";
import { boxInFrame, dot, toFrame, v2, type Box, type Frame, type Vec2 } from "../geometry/vec";
import { directionAt, distanceTo, reversed } from "../outline/meet";
import { endOf, loopArea, loopBox, startOf, type Loop, type Outline, type Segment } from "../outline";
import { insideRegion } from "../outline/boolean";
import { fail, ok, type Result } from "../base/result";
import type { Body } from "../rows";
import type { PlacedBody, SolidKernel } from "./kernel";
import { COINCIDENT, CONTACT, PARALLEL, ROUNDING } from "../geometry/tolerance";

/**
 * How near to the edge of the part an open chain must come, mm: the edge of a round part is known by its drawn
 * pieces.
 */
const AT_EDGE = 0.1;

/**
 * A pocket along an open chain whose ends reach the edge of the part: what lies to one side of it, off the part's
 * edge.
 */
export function openPocket(
  body: Extract<Body, { body: "open" }>,
  kernel: SolidKernel,
  key: string,
  frame: Frame,
  places: Vec2[],
  far: number,
): Result<PlacedBody> {
  const faces = kernel
    .faces(key)
    .flatMap((f, i) =>
      f.surface === "plane" && dot(f.normal, frame.normal) > PARALLEL && Math.abs(toFrame(frame, f.point).z) < CONTACT
        ? [i]
        : [],
    );
  const rim = kernel
    .outerWires(key, faces)
    .flatMap((w) => w.pieces)
    .map(([a, b]): Segment => {
      const p = toFrame(frame, a),
        q = toFrame(frame, b);
      return { kind: "line", from: v2(p.x, p.y), to: v2(q.x, q.y) };
    });
  for (const p of places)
    for (const end of [startOf(body.chain[0]), endOf(body.chain[body.chain.length - 1])]) {
      const q = v2(end.x + p.x, end.y + p.y),
        off = Math.min(Infinity, ...rim.map((s) => distanceTo(s, q)));
      if (rim.length && off > AT_EDGE && insideRegion([rim], q))
        return fail(problems.openChainEndsInside(saidPlace(q), saidLength(off)), { path: "outline" });
    }
  const b = boxInFrame(frame, kernel.measure(key).box),
    own = loopBox(body.chain);
  const reach =
    2 *
      Math.hypot(
        Math.max(b.max.x, own.max.x) - Math.min(b.min.x, own.min.x),
        Math.max(b.max.y, own.max.y) - Math.min(b.min.y, own.min.y),
      ) +
    10;
  const outer = offTheEdge(body.side === "left" ? body.chain : [...body.chain].reverse().map(reversed), reach);
  return ok({
    body: "prism",
    outline: { outer, holes: [] },
    from: 0,
    to: typeof body.depth === "number" ? body.depth : far,
    edge: { min: v2(b.min.x, b.min.y), max: v2(b.max.x, b.max.y) },
  });
}

/**
 * The loop of what lies to the left of a chain, closed far outside: its ends go straight on, then round a large
 * circle.
 */
function offTheEdge(chain: Segment[], reach: number): Loop {
  const a = startOf(chain[0]),
    z = endOf(chain[chain.length - 1]),
    box = loopBox(chain),
    c = v2((box.min.x + box.max.x) / 2, (box.min.y + box.max.y) / 2);
  const out = (p: Vec2, d: Vec2): Vec2 => {
    const px = p.x - c.x,
      py = p.y - c.y,
      along = px * d.x + py * d.y,
      t = -along + Math.sqrt(along * along - (px * px + py * py) + reach * reach);
    return v2(p.x + d.x * t, p.y + d.y * t);
  };
  const d0 = directionAt(chain[0], 0),
    d1 = directionAt(chain[chain.length - 1], 1),
    from = out(z, d1),
    to = out(a, v2(-d0.x, -d0.y));
  const start = Math.atan2(from.y - c.y, from.x - c.x);
  let sweep = Math.atan2(to.y - c.y, to.x - c.x) - start;
  while (sweep <= ROUNDING) sweep += 2 * Math.PI;
  return [
    ...chain,
    { kind: "line", from: z, to: from },
    { kind: "arc", centre: c, radius: reach, start, sweep },
    { kind: "line", from: to, to: a },
  ];
}

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
