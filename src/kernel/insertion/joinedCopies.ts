import type { BodyStep } from "@/core/engine/kernel";
import { moveLoop } from "@/core/outline";
import type { Tagged } from "../bodies";
import type { Library } from "../library";
import { loopOf, silhouetteOf } from "./insert";
import { MOST_JOINED, onceEach } from "./lapping";
import { groupsThatMeet } from "./silhouette";
import { sightAlong } from "./surroundings";

/** Copies in one chain of laps that a boolean still ends with in a minute: it goes with their square (100: 20 s). */
export const MOST_LAPPING = 150;

/**
 * The tools of a cut for a boolean, those that lap joined to one beforehand: the part meets fewer tools, and what was
 * joined is kept for the next time. Null where none lap, or so many in one group that one boolean costs less.
 */
export function joinedCopies(library: Library, step: BodyStep): Tagged[] | "too many" | null {
  const shape = step.places.length > 1 ? loopOf(step.body) : null;
  if (!shape) return null;
  const sight = sightAlong(step.frame.normal);
  const ways = step.places.map((p) => silhouetteOf(moveLoop(shape.loop, p), step.frame, sight));
  const groups = groupsThatMeet(ways, MOST_JOINED);
  // A short chain among many copies that stand apart is made; only the chain itself counts.
  if (!groups && ways.length > MOST_LAPPING && !groupsThatMeet(ways, MOST_LAPPING)) return "too many";
  if (!groups || groups.length === step.places.length) return null;
  const tools: Tagged[] = [];
  for (const group of groups) {
    const tool = library.insertTools.joinedAt(step, onceEach(step, group));
    if (tool) tools.push(tool);
    else break;
  }
  if (tools.length === groups.length) return tools;
  for (const t of tools) t.shape.delete();
  return null;
}
