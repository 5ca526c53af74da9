import { keyOf } from "../base/key";
import { ok, type Result } from "../base/result";
import { boxOf, v3, type Box } from "../geometry/vec";
import type { Motion } from "../geometry/motion";
import { isSeated, type SeatedRecipe } from "../rows";
import { advance, type Standing } from "./advance";
import type { Element } from "./element";
import { isOnRound } from "./planes";
import { plateAfter } from "./flat";
import { isTooMany, type BodyStep, type SingleStep, type SolidKernel } from "./kernel";

/** A copy that waits to be put in, and which it is. */
interface Waiting {
  copy: number;
  row: string;
  steps: SingleStep[];
  thru: boolean;
}

/** Why a copy could not be put in, and which it is. */
export interface CopyFault {
  copy: number;
  row: string;
  why: Extract<Result<never>, { ok: false }>;
}

/** What the part needs to have come to before a copy can be placed on it. */
export type Needs = "nothing" | "size" | "part";

/** What a copy of a recipe asks of the part: nothing where its own numbers say all, its size where it goes through. */
export function needsOf(recipe: SeatedRecipe): Needs {
  if (recipe.op !== "leave" && recipe.op !== "cut") return "nothing";
  const { body } = recipe;
  switch (body.body) {
    case "prism":
      return typeof body.depth === "number" ? "nothing" : body.depth === "thru" ? "size" : "part";
    case "open":
      return typeof body.depth === "number" ? "nothing" : "part";
    case "revolved":
      if (body.end) return "part";
      return body.profile.every((p) => p.z !== "thru") ? "nothing" : isOnRound(recipe.plane) ? "part" : "size";
    case "rib":
      return "part";
    case "turned":
      return body.chain ? "part" : "nothing";
    default:
      return "nothing";
  }
}

/**
 * The part with copies on their way into it: they are put in together as soon as something asks for the part as it
 * stands, for a boolean a copy costs the square of what one for all does.
 */
export class CopiesTogether {
  private waiting: Waiting[] = [];
  constructor(
    private readonly kernel: SolidKernel,
    private reached: Standing,
    /** Where copies can come to lie, with the part. */
    readonly room: Box | null,
  ) {}

  /** The part before what waits. */
  get key(): string | null {
    return this.reached.key;
  }

  put(copy: number, element: Element): CopyFault | null {
    const { row, steps, thru } = element;
    const next = { copy, row, steps, thru };
    if (steps.every(isBody)) {
      this.waiting.push(next);
      return null;
    }
    return this.settle() ?? this.alone(next);
  }

  /** Puts in what waits. @returns the copy that could not be put in */
  settle(): CopyFault | null {
    const { waiting } = this;
    this.waiting = [];
    if (waiting.length < 2) return waiting.length ? this.alone(waiting[0]) : null;
    const together = this.asPlate(waiting) ?? this.asCopies(waiting);
    if (together.ok) {
      this.reached = together.value;
      return null;
    }
    if (isTooMany(together.problems[0])) return { ...waiting[0], why: together };
    // One by one it shows which it is, and what can be made only so is made.
    for (const one of waiting) {
      const fault = this.alone(one);
      if (fault) return fault;
    }
    return null;
  }

  get standing(): Standing {
    return this.reached;
  }

  private alone({ copy, row, steps, thru }: Waiting): CopyFault | null {
    for (const step of steps) {
      const next = advance(this.kernel, this.reached, step, thru);
      if (!next.ok) return { copy, row, why: next };
      this.reached = next.value;
    }
    return null;
  }

  /** All of them as holes of the plate that the part still is. */
  private asPlate(waiting: Waiting[]): Result<Standing> | null {
    const { reached, kernel } = this;
    let plate = reached.plate;
    for (const { steps, thru } of waiting) for (const step of steps) plate &&= plateAfter(plate, step, thru);
    if (!plate) return null;
    const key = keyOf(null, plate);
    const made = kernel.apply(key, null, plate);
    return made.ok ? ok({ key, plate, volume: made.value.volume }) : made;
  }

  private asCopies(waiting: Waiting[]): Result<Standing> {
    const { reached, kernel } = this;
    const step = { op: "copies" as const, steps: waiting.flatMap((w) => w.steps).filter(isBody) };
    const key = keyOf(reached.key, step);
    const made = kernel.apply(key, reached.key, step);
    return made.ok ? ok({ key, plate: null, volume: made.value.volume }) : made;
  }
}

const isBody = (s: SingleStep): s is BodyStep => s.op === "leave" || s.op === "cut";

/** Copies that each need the part as it stands, put in at most: our own limit; each takes a boolean, .1 to 1 s here. */
export const MOST_IN_TURN = 300;

/** The box of the part and of all that copies of anything in it can take up. */
export function roomOf(kernel: SolidKernel, key: string | null, motions: Motion[]): Box | null {
  if (key === null) return null;
  const { min, max } = kernel.measure(key).box;
  const corners = [min.x, max.x].flatMap((x) => [min.y, max.y].flatMap((y) => [min.z, max.z].map((z) => v3(x, y, z))));
  return boxOf([...corners, ...motions.flatMap((m) => corners.map((c) => m.point(c)))]);
}

/** Whether a copy of an element can be placed while others wait. */
export const canWait = (e: Element): boolean =>
  !e.marks && (!isSeated(e.recipe) || !e.frame || needsOf(e.recipe) !== "part");
