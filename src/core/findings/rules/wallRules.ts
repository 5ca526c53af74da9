import { dot, type Vec3 } from "../../geometry/vec";
import type { FaceInfo } from "../../engine/kernel";
import type { Finding } from "../finding";
import { say, whose, type Rule, type RuleContext } from "../rule";
import { COINCIDENT, CONTACT, PARALLEL } from "../../geometry/tolerance";
type Found = Omit<Finding, "rule">;

/** Two faces with material between them, and how thick it is. */
interface Thickness {
  thick: number;
  a: FaceInfo;
  b: FaceInfo;
}

/** Thin places between parallel flats and between round walls about one axis, measured on the solid. */
function thinPlaces(c: RuleContext, most: number): Thickness[] {
  const out: Thickness[] = [];
  const flats = c.faces.filter((f) => f.surface === "plane" && f.area > 1);
  flats.forEach((a, i) => {
    for (const b of flats.slice(i + 1)) {
      if (dot(a.normal, b.normal) > -1 + COINCIDENT) continue;
      const thick = dot(a.normal, a.point) + dot(b.normal, b.point);
      if (thick > CONTACT && thick < most && sideBySide(a, b, a.normal)) out.push({ thick, a, b });
    }
  });
  const round = c.faces.filter((f) => f.surface === "cylinder" && f.sweep! > Math.PI);
  for (const inner of round.filter((f) => f.hollow))
    for (const outer of round.filter((f) => !f.hollow)) {
      const thick = outer.radius! - inner.radius!;
      if (thick < CONTACT || thick >= most || Math.abs(dot(inner.axis!.direction, outer.axis!.direction)) < PARALLEL)
        continue;
      const d = {
        x: inner.axis!.origin.x - outer.axis!.origin.x,
        y: inner.axis!.origin.y - outer.axis!.origin.y,
        z: inner.axis!.origin.z - outer.axis!.origin.z,
      };
      const along = dot(d, outer.axis!.direction);
      const off = Math.hypot(
        d.x - along * outer.axis!.direction.x,
        d.y - along * outer.axis!.direction.y,
        d.z - along * outer.axis!.direction.z,
      );
      const overlapping = (["x", "y", "z"] as const).every(
        (k) => inner.box.min[k] < outer.box.max[k] - CONTACT && inner.box.max[k] > outer.box.min[k] + CONTACT,
      );
      if (off < CONTACT && overlapping) out.push({ thick, a: inner, b: outer });
    }
  return out;
}
/** Whether two flats that look away from one another lie side by side, seen along their direction. */
function sideBySide(a: FaceInfo, b: FaceInfo, n: Vec3): boolean {
  return (["x", "y", "z"] as const).every(
    (k) => Math.abs(n[k]) > 0.999 || Math.min(a.box.max[k], b.box.max[k]) - Math.max(a.box.min[k], b.box.min[k]) > 0.05,
  );
}
const isFloor = (t: Thickness): boolean => t.a.tag?.role === "floor" || t.b.tag?.role === "floor";

function thin(c: RuleContext, floors: boolean): Found[] {
  const limit = floors ? c.limits.thinFloor : c.limits.thinWall;
  const found = thinPlaces(c, limit.value - CONTACT).filter((t) => isFloor(t) === floors);
  if (!found.length) return [];
  const worst = found.reduce((x, y) => (y.thick < x.thick ? y : x));
  const number = (f: FaceInfo) => c.rows.findIndex((r) => r.row.id === f.tag?.row);
  const last = c.rows[Math.max(number(worst.a), number(worst.b))];
  return [
    {
      ...(last ? whose(last) : { row: null, rowId: null }),
      severity: "caution",
      value: worst.thick,
      limit: limit.value,
      place: worst.a.point,
      text: `${floors ? "a floor" : "a wall"} of ${say(c, worst.thick)} is left; under ${say(c, limit.value)} it bends and chatters`,
      source: limit.source,
    },
  ];
}
export const thinWall: Rule = { id: "thin-wall", find: (c) => thin(c, false) };
export const thinFloor: Rule = { id: "thin-floor", find: (c) => thin(c, true) };
