import { fail, ok, type Result } from "@/core/base/result";
import type { BodyStep } from "@/core/engine/kernel";
import { boxOf, v3, type Box } from "@/core/geometry/vec";
import { copiesOf, type Tagged } from "./bodies";
import { fittedTools, isFitted } from "./fitted";
import { joinedCopies, MOST_LAPPING } from "./insertion/joinedCopies";
import type { Library } from "./library";
import { problems } from "./problems";
import { boxOfShape, volumeOf } from "./topology";

/** The solids a step adds or takes. */
export interface Tools {
  tools: Tagged[];
  /** The most volume they can add or take, mm³. */
  most: number;
  /** Lets go of those that nobody keeps. */
  free(): void;
}

const freeAll = (tools: Tagged[]) => () => tools.forEach((t) => t.shape.delete());

/**
 * The tool solids of a step.
 * @param from the part they are fitted to, where they are
 * @param joins whether copies that lap are joined to one tool first
 */
export function toolSolids(library: Library, from: Tagged | null, step: BodyStep, joins: boolean): Result<Tools> {
  const { oc } = library;
  const { body } = step;
  // What is engraved stays the library's own.
  if (body.body === "vee") return ok({ tools: library.grooves.toolsOf(step), most: Infinity, free: () => undefined });
  if (body.body === "imported") return unbounded(library.stepSolids.copies(step, body));
  if (from && isFitted(body)) return unbounded(fittedTools(oc, from, step));
  const lapping = step.op === "cut" && joins ? joinedCopies(library, step) : null;
  if (lapping === "too many") return fail(problems.tooManyLapping(MOST_LAPPING));
  const tools = lapping ?? copiesOf(oc, step);
  // Tools are copies of one, unless they were joined or the body has several outlines.
  const isMixed = lapping !== null || ("more" in body && body.more !== undefined);
  const most = isMixed
    ? tools.reduce((sum, t) => sum + Math.abs(volumeOf(oc, t.shape)), 0)
    : Math.abs(volumeOf(oc, tools[0].shape)) * tools.length;
  return ok({ tools, most, free: freeAll(tools) });
}

const unbounded = (made: Result<Tagged[]>): Result<Tools> =>
  made.ok ? ok({ tools: made.value, most: Infinity, free: freeAll(made.value) }) : made;

/** The box that the tools of a step lie in; everywhere where they cannot be made alone. */
export function boxOfTools(library: Library, step: BodyStep): Box {
  const made = toolSolids(library, null, step, false);
  if (!made.ok) return EVERYWHERE;
  const { tools, free } = made.value;
  const boxes = tools.map((t) => boxOfShape(library.oc, t.shape));
  free();
  return boxOf(boxes.flatMap(({ min, max }) => [min, max]));
}
const EVERYWHERE: Box = { min: v3(-Infinity, -Infinity, -Infinity), max: v3(Infinity, Infinity, Infinity) };
