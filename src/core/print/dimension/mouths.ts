import { dot, type Frame } from "../../geometry/vec";
import { CONTACT, PARALLEL } from "../../geometry/tolerance";
import type { PartModel } from "./model";
import type { Solid } from "./real";
import type { Surface } from "./surfaces";

/** The mouths that cuts open into, as they are now, and what may be measured from them. */
export class Mouths {
  constructor(
    private readonly model: PartModel,
    private readonly solid: Solid,
  ) {}

  /** A floor is measured from the mouth over it, and from nothing else that looks the same way. */
  mayPair(a: Surface, b: Surface): boolean {
    return this.levelMayPair(a, b) && this.levelMayPair(b, a);
  }
  private levelMayPair(floor: Surface, other: Surface): boolean {
    if (floor.role !== "floor" || other.shape.is !== "plane" || other.row === "") return true;
    const frame = this.frameOf(floor.row);
    if (
      !frame ||
      this.rowOf(floor.row)?.recipe?.op === "leave" ||
      Math.abs(dot(other.shape.normal, frame.normal)) < PARALLEL
    )
      return true;
    // Looking the other way: a web that is left, not a depth.
    if (!this.solid.looksAlong(other, frame.normal)) return true;
    const mouth = this.mouth(floor);
    const level = dot(other.shape.normal, frame.normal) * other.shape.offset;
    return (
      mouth !== null && (Math.abs(mouth - level) < CONTACT || (other.role === "floor" && this.isMouthOf(other, floor)))
    );
  }
  private isMouthOf(below: Surface, above: Surface): boolean {
    const mouth = this.mouth(below);
    const frame = this.frameOf(below.row);
    if (mouth === null || !frame || above.shape.is !== "plane") return false;
    return Math.abs(dot(above.shape.normal, frame.normal) * above.shape.offset - mouth) < CONTACT;
  }

  rowOf = (id: string) => this.model.rows.find((m) => m.row.row.id === id);
  frameOf = (id: string): Frame | null => this.rowOf(id)?.frame ?? null;

  /**
   * Level of the flat that a cut opens into, as it is now: where its walls end upwards, or just over that where an
   * edge is broken.
   */
  mouth(of: Surface): number | null {
    const frame = this.frameOf(of.row);
    return frame ? this.solid.mouthLevel(of.row, of.instance, frame.normal) : null;
  }
}
