import { gridPlaces, linePlaces, roundAngles } from "../geometry/arrays";
import { axisDirections, moveBy, turnAbout, type Motion } from "../geometry/motion";
import { scale, v3, type Frame, type Vec3 } from "../geometry/vec";
import type { Copies } from "../rows";

const others = <P>(places: P[], motion: (p: P) => Motion): Motion[] => places.slice(1).map(motion);

/**
 * Where copies go, without the original, as far as their own numbers say it; null where a row of the part does.
 * @param axis of the row they go round, where they do
 */
export function plainMotions(copies: Copies, axis: Frame | null): Motion[] | null {
  switch (copies.by) {
    case "line": {
      const along = axisDirections[copies.along];
      return others(linePlaces(copies.count, copies.step), (p) => moveBy(scale(along, p.x)));
    }
    case "grid":
      return others(gridPlaces(copies.nx, copies.ny, copies.dx, copies.dy), (p) => moveBy(v3(p.x, p.y, 0)));
    case "around":
      if (!("row" in copies.axis)) return turnsAbout(v3(0, 0, 0), axisDirections[copies.axis.along], copies);
      return axis && turnsAbout(axis.origin, axis.normal, copies);
    default:
      return null;
  }
}

/** Turned about an axis by so many equal steps. */
const turnsAbout = (through: Vec3, about: Vec3, { count, step }: { count: number; step: number }): Motion[] =>
  others(roundAngles(count, 0, step), (turn) => turnAbout(through, about, turn));
