import { keyOf } from "@/core/base/key";
import { ok } from "@/core/base/result";
import type { BodyStep } from "@/core/engine/kernel";
import { copiesOf, type Tagged } from "./bodies";
import { boolean } from "./booleans";
import type { OC } from "./oc";
import { volumeOf } from "./topology";
import { CONTACT } from "@/core/geometry/tolerance";

/** Pieces of a chain joined at a time: all at once takes half as long again (measured on letters). */
const JOINED_AT_ONCE = 4;

/** Chains whose joined grooves are kept: what was engraved need not be joined again because a row before it changed. */
const MOST_KEPT = 200;

/**
 * The grooves of a pointed cutter, each chain's joined into one solid and kept: hundreds of small tools at once in one
 * face take many times longer, and joining is most of the work.
 */
export class Grooves {
  private kept = new Map<string, Tagged[]>();
  constructor(private oc: OC) {}

  /** The tool solids of an engraved row, tagged as its own. They stay this cache's: nobody frees them. */
  toolsOf(step: BodyStep): Tagged[] {
    const { body } = step;
    if (body.body !== "vee") return [];
    return step.places.flatMap((place, instance) =>
      body.chains.flatMap((chain) => {
        const alone: BodyStep = { ...step, row: "", places: [place], body: { ...body, chains: [chain] } };
        return this.grooveOf(alone).map((t) => ({
          shape: t.shape,
          tags: t.tags.map((g) => g && { ...g, row: step.row, instance }),
        }));
      }),
    );
  }

  private grooveOf(alone: BodyStep): Tagged[] {
    const key = keyOf(null, alone);
    const known = this.kept.get(key);
    if (known) {
      this.kept.delete(key);
      this.kept.set(key, known);
      return known;
    }
    const made = this.joined(alone);
    this.kept.set(key, made);
    return made;
  }

  private joined(alone: BodyStep): Tagged[] {
    const pieces = copiesOf(this.oc, alone);
    let left = pieces;
    while (left.length > 1) {
      const fewer = this.neighboursJoined(left);
      for (const t of left) if (!pieces.includes(t) && !fewer?.includes(t)) t.shape.delete();
      if (!fewer) return pieces;
      left = fewer;
    }
    for (const t of pieces) if (!left.includes(t)) t.shape.delete();
    return left;
  }

  /** Pieces that follow one another, joined a few at a time; null where some would not join. */
  private neighboursJoined(pieces: Tagged[]): Tagged[] | null {
    const made: Tagged[] = [];
    for (let i = 0; i < pieces.length; i += JOINED_AT_ONCE) {
      const [first, ...rest] = pieces.slice(i, i + JOINED_AT_ONCE);
      const one = rest.length ? boolean(this.oc, "join", first, rest) : ok(first);
      if (one.ok && rest.length && !this.holdsAll(one.value, [first, ...rest])) {
        one.value.shape.delete();
        for (const t of made) if (!pieces.includes(t)) t.shape.delete();
        return null;
      }
      if (!one.ok) {
        for (const t of made) if (!pieces.includes(t)) t.shape.delete();
        return null;
      }
      made.push(one.value);
    }
    return made;
  }

  /** Whether what pieces were joined to can be right: no less than the largest of them, no more than all together. */
  private holdsAll(joined: Tagged, pieces: Tagged[]): boolean {
    const volumes = pieces.map((t) => volumeOf(this.oc, t.shape));
    const volume = volumeOf(this.oc, joined.shape);
    const most = volumes.reduce((sum, v) => sum + v, 0);
    return volume > Math.max(...volumes) * (1 - CONTACT) && volume < most * (1 + CONTACT);
  }

  /** Forgets the oldest beyond what is kept. Not called while tools are in use. */
  trim(): void {
    for (const [key, tools] of this.kept) {
      if (this.kept.size <= MOST_KEPT) return;
      for (const t of tools) t.shape.delete();
      this.kept.delete(key);
    }
  }
}
