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
    const level = dot(other.shape.normal, frame.normal) * other.shape.offset;
    return (
      this.mouths(floor).some((m) => Math.abs(m - level) < CONTACT) ||
      (other.role === "floor" && this.isMouthOf(other, floor))
    );
  }
  private isMouthOf(below: Surface, above: Surface): boolean {
    const mouth = this.mouths(below)[0];
    const frame = this.frameOf(below.row);
    if (mouth === undefined || !frame || above.shape.is !== "plane") return false;
    return Math.abs(dot(above.shape.normal, frame.normal) * above.shape.offset - mouth) < CONTACT;
  }

  rowOf = (id: string) => this.model.rows.find((m) => m.row.row.id === id);
  frameOf = (id: string): Frame | null => this.rowOf(id)?.frame ?? null;

  /**
   * Levels of the flats that a cut opens into, as they are now: where its walls end upwards, or just over that where an
   * edge is broken; then, where that flat is the floor of an earlier cut, the one that opens into.
   */
  mouths(of: Surface): number[] {
    const frame = this.frameOf(of.row);
    if (!frame) return [];
    const levels: number[] = [];
    let at: { row: string; instance: number } = of;
    for (;;) {
      const mouth = this.solid.mouthOf(at.row, at.instance, frame.normal);
      if (!mouth || levels.some((l) => l >= mouth.level - CONTACT)) return levels;
      levels.push(mouth.level);
      const { tag } = mouth.face;
      if (!tag || tag.role !== "floor" || !this.isEarlier(tag.row, at.row)) return levels;
      at = tag;
    }
  }
  private isEarlier(row: string, than: string): boolean {
    const [a, b] = [this.rowOf(row), this.rowOf(than)];
    return a !== undefined && b !== undefined && a.row.number < b.row.number;
  }
}
