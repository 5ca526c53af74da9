import type { BodyStep } from "@/core/engine/kernel";
import { moveLoop } from "@/core/outline";
import type { Tagged } from "../bodies";
import type { Library } from "../library";
import { loopOf, silhouetteOf } from "./insert";
import { MOST_JOINED, onceEach } from "./lapping";
import { groupsThatMeet } from "./silhouette";
import { sightAlong } from "./surroundings";

/**
 * The tools of a cut for a boolean, those that lap joined to one beforehand: the part meets fewer tools, and what was
 * joined is kept for the next time. Null where none lap.
 */
export function joinedCopies(library: Library, step: BodyStep): Tagged[] | null {
  const shape = step.places.length > 1 ? loopOf(step.body) : null;
  if (!shape) return null;
  const sight = sightAlong(step.frame.normal);
  const groups = groupsThatMeet(step.places.map((p) => silhouetteOf(moveLoop(shape.loop, p), step.frame, sight)));
  if (groups.length === step.places.length || groups.some((g) => g.length > MOST_JOINED)) return null;
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
