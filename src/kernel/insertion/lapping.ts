import type { BodyStep } from "@/core/engine/kernel";
import type { Tagged } from "../bodies";
import type { Library } from "../library";
import type { Host, Inserted } from "./insert";
import { inTurn, putJoined } from "./joined";
import { groupsThatMeet, type Silhouette } from "./silhouette";

/** Tools of a group joined at most: beyond that one boolean on the part costs less. */
export const MOST_JOINED = 12;

interface Lapping {
  /** The way round every copy, seen along the cut. */
  copies: Silhouette[];
  depth: number;
  /** The height the copies come out at, along the sight. */
  out: number | undefined;
}

/**
 * Copies of one cut that lap over one another: those that meet are joined to one tool first, which is small, and put in
 * then; groups that lie alike share it.
 * @param step the cut, ended where it comes out
 */
export function insertLapping(
  library: Library,
  host: Host,
  step: BodyStep,
  { copies, depth, out }: Lapping,
): Inserted | null {
  const groups = groupsThatMeet(copies, MOST_JOINED);
  if (!groups) return null;
  const tools: Tagged[] = [];
  try {
    for (const group of groups) {
      // Two copies in one place are one cut.
      const tool = library.insertTools.joinedAt(step, onceEach(step, group));
      if (!tool) return null;
      tools.push(tool);
    }
    return inTurn(
      host,
      tools.map((tool) => (at: Host) => putJoined(library, at, step, tool, { depth, out: out ?? null })),
    );
  } finally {
    for (const tool of tools) tool.shape.delete();
  }
}

/** Copies without those that stand in one place with another. */
export function onceEach({ places }: BodyStep, group: number[]): number[] {
  const spot = (i: number) => `${Math.round(places[i].x * 1e6)},${Math.round(places[i].y * 1e6)}`;
  return [...new Map([...group].sort((a, b) => b - a).map((i) => [spot(i), i])).values()].sort((a, b) => a - b);
}
