import { keyOf } from "@/core/base/key";
import type { BodyStep } from "@/core/engine/kernel";
import { copiesOf, type Tagged } from "./bodies";
import { boolean } from "./booleans";
import type { OC } from "./oc";

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
    if (pieces.length < 2) return pieces;
    const [first, ...rest] = pieces;
    const one = boolean(this.oc, "join", first, rest);
    if (!one.ok) return pieces;
    for (const t of pieces) t.shape.delete();
    return [one.value];
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
