import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { turn, type Motion } from "../geometry/motion";
import { add, scale, sub, v3, type Side, type Vec3 } from "../geometry/vec";
import type { Placement } from "../job/schema";
import { evaluateNumber, type NumberScope } from "../number";

const Z = v3(0, 0, 1);
const Y = v3(0, 1, 0);
const X = v3(1, 0, 0);
const quarter = Math.PI / 2;
/** What turns a side of the piece up: the axis it is turned about, and how far. */
const toUp: Record<Side, { axis: Vec3; angle: number }> = {
  top: { axis: X, angle: 0 },
  bottom: { axis: X, angle: Math.PI },
  front: { axis: X, angle: -quarter },
  back: { axis: X, angle: quarter },
  left: { axis: Y, angle: quarter },
  right: { axis: Y, angle: -quarter },
};

/**
 * How a part lies at a station: a side turned up, then turned about Z, then its zero, or the middle of its underside,
 * shifted to the place.
 * @param reach how far the part reaches in a direction of its own
 */
export function stationOf(p: Placement, scope: NumberScope, reach: (direction: Vec3) => number): Result<Motion> {
  const number = (text: Placement["at"]["x"], quantity: "coordinate" | "angle") =>
    evaluateNumber(text, quantity, scope);
  const values = [number(p.at.x, "coordinate"), number(p.at.y, "coordinate"), number(p.at.z, "coordinate")];
  const turned = p.turn === undefined ? null : number(p.turn, "angle");
  for (const r of [...values, ...(turned ? [turned] : [])])
    if (!r.ok) return fail(problems.placeFault(p.part, r.problems[0].message), { expected: r.problems[0].expected });
  const [x, y, z] = values.map((r) => (r.ok ? r.value.value : 0));
  const about = turned?.ok ? turned.value.value : 0;
  const { axis, angle } = toUp[p.up ?? "top"];
  const direction = (d: Vec3) => turn(turn(d, axis, angle), Z, about);
  const own = (d: Vec3) => turn(turn(d, Z, -about), axis, -angle);
  const reaches = (d: Vec3) => reach(own(d));
  const middle = (d: Vec3) => (reaches(d) - reaches(scale(d, -1))) / 2;
  const off = p.middle ? v3(middle(X), middle(Y), -reaches(scale(Z, -1))) : v3(0, 0, 0);
  const at = sub(v3(x, y, z), off);
  return ok({ point: (q) => add(direction(q), at), direction, mirrors: false });
}
