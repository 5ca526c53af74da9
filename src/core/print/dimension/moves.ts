import { problems } from "../problems";
import { length, sub, type Vec3 } from "../../geometry/vec";
import { ROUNDING, DISPLAY } from "../../geometry/tolerance";
import { numberScope, reportNumbers, resolveBody, type NumberReport } from "../../engine/numbers";
import { planeSource } from "../../engine/namedPlanes";
import type { Solved, SolvedRow } from "../../engine/solve";
import type { Balloon, Job } from "../../job/schema";
import { unitOf } from "../../number";
import { ok, fail } from "../../base/result";
import { evaluateOutlines, type EvaluatedOutline } from "../../outline/evaluateOutline";
import { setPath } from "../../grammar/grammar";
import { kindOf, type Recipe } from "../../rows";
import type { OutlineNumber } from "../../engine/prepare";
import { movedModel, type PartModel } from "./model";
import { isFigured } from "./rowFigures";
import type { Shape } from "./surfaces";

/**
 * A number that a balloon alone makes: its row, and the surfaces it moves; null for a broken edge, which is measured
 * by itself.
 */
export interface Use {
  /** Null for a repeat, which makes no surfaces of its own. */
  row: string | null;
  moved: Map<string, Shape> | null;
  /** Whether it is the place of a pattern that the balloon steps (`LINE 2 BY #9 AT -34-#9/2,0`): worked out with it. */
  mixed: boolean;
  /** Whether it is counted from a plane that need not stand (`TO FLOOR OF 3 +.5`): what else answers is not it. */
  relative?: true;
}

/**
 * How far a balloon is moved to see what answers: mm, or radians. Small against any dimension, large against the
 * solver's arithmetic.
 */
const STEP = { length: DISPLAY, angle: 2e-5 };
/** Surfaces that a balloon's number moves, as they are then, and how far it was moved: mm, or radians. */
export interface Move {
  shapes: Map<string, Shape>;
  step: number;
}

/** What moves on the rows' own geometry when a balloon's number comes out a little otherwise. */
export class Moves {
  private readonly moved = new Map<number, Move | null>();
  private readonly solvedOutlines: Map<string, EvaluatedOutline>;

  constructor(
    private readonly job: Job,
    private readonly solved: Solved,
    private readonly model: PartModel,
    private readonly citing: Map<number, SolvedRow[]>,
  ) {
    this.solvedOutlines = new Map(solved.outlines.map((o) => [o.id, o]));
  }

  /** Shapes that move when a balloon's number does; null for what is no length and no angle, or drives nothing. */
  move(balloon: Balloon): Move | null {
    const known = this.moved.get(balloon.number);
    if (known !== undefined) return known;
    const made = this.makeMove(balloon);
    this.moved.set(balloon.number, made);
    return made;
  }

  private makeMove(balloon: Balloon): Move | null {
    const rows = this.citing.get(balloon.number) ?? [];
    if (!rows.length || balloon.kind === "count" || balloon.kind === "thread" || balloon.reference) return null;
    const { step, by } = stepOf(balloon, this.job);
    const recipes = this.recipes(rows, numberScope(this.job, { balloon: balloon.number, by }));
    const shapes = new Map<string, Shape>();
    for (const [id, s] of movedModel(this.model, recipes))
      if (differs(s.shape, this.model.surfaces.get(id)?.shape)) shapes.set(id, s.shape);
    return { shapes, step };
  }

  /** Recipes of the rows a balloon reaches, with its number moved. */
  private recipes(rows: SolvedRow[], scope: ReturnType<typeof numberScope>): Map<string, Recipe | null> {
    const planes = planeSource(this.job, scope);
    const drawn = rows.some((r) => r.outlineNumbers.length > 0);
    const source = this.source(
      drawn ? evaluateOutlines(this.job.outlines, scope, this.solved.shapes) : this.solvedOutlines,
    );
    return new Map(
      rows.map((r) => {
        const resolved = resolveBody(r.row.body, reportNumbers(r.row.body, scope), this.job.balloons, planes);
        const recipe = resolved.ok ? kindOf(r.row.body).recipe(resolved.value, r.row.body, source) : resolved;
        return [r.row.id, recipe.ok ? recipe.value : null];
      }),
    );
  }

  private readonly source = (outlines: Map<string, EvaluatedOutline>) => (name: string) => {
    const o = this.job.outlines.find((x) => x.name.toLowerCase() === name.toLowerCase());
    return o ? ok(outlines.get(o.id)!) : fail(problems.noOutline(name));
  };

  /**
   * The numbers that a balloon alone makes, each with the surfaces it moves by itself: every one of them has to come
   * out as the balloon says.
   * Each of an outline's numbers counts; those of a broken edge, which moves nothing, count together.
   */
  uses(balloon: Balloon, rows: SolvedRow[]): Use[] {
    const { by } = stepOf(balloon, this.job);
    const scope = numberScope(this.job, { balloon: balloon.number, by });
    // What its maker chose (`14!`) is no number of the print, though it may take one.
    const alone = (n: NumberReport) =>
      n.value?.cites.length === 1 &&
      n.value.cites[0] === balloon.number &&
      n.quantity !== "count" &&
      !n.text.endsWith("!");
    return rows.flatMap((r): Use[] => {
      if (isFigured(r.recipe)) return r.numbers.some(alone) ? [{ row: r.row.id, moved: null, mixed: false }] : [];
      const moved = reportNumbers(r.row.body, scope);
      const maker = r.recipe?.op === "repeat" ? null : r.row.id;
      const own = r.numbers.filter(alone).map((n) => ({
        row: maker,
        moved: this.movedBy(r, [moved.find((m) => m.path === n.path)!]),
        mixed: placesPattern(n.path) && r.numbers.some((o) => alone(o) && stepsPattern(o.path)),
        ...(n.path === "to.past" ? { relative: true as const } : {}),
      }));
      const drawn = this.drawnUses(balloon, r, r.outlineNumbers.filter(alone), by);
      return [...own, ...drawn].filter((u) => u.moved === null || u.moved.size > 0);
    });
  }

  /** Each number of an outline by itself; where one cannot be moved alone, all of them together. */
  private drawnUses(balloon: Balloon, r: SolvedRow, numbers: OutlineNumber[], by: number): Use[] {
    if (!numbers.length) return [];
    const all = [...(this.move(balloon)?.shapes ?? [])].filter(([id]) => id.startsWith(`${r.row.id}/`));
    const together = [{ row: r.row.id, moved: new Map(all), mixed: false }];
    if (numbers.length === 1 || numbers.length > MOST_ALONE) return together;
    const each = numbers.map((n) => this.movedByDrawn(balloon, r, n, by));
    return each.some((moved) => moved === null)
      ? together
      : each.map((moved) => ({ row: r.row.id, moved, mixed: false }));
  }

  /** Surfaces of a row that move when one number of its outline comes out otherwise; null where it cannot be told. */
  private movedByDrawn(balloon: Balloon, r: SolvedRow, n: OutlineNumber, by: number): Map<string, Shape> | null {
    const text = n.text.replace(new RegExp(`#${balloon.number}(?!\\d)`, "g"), `(#${balloon.number}+${by.toFixed(12)})`);
    if (text === n.text) return null;
    const outlines = this.job.outlines.map((o) => {
      if (o.id !== n.outline) return o;
      const items = structuredClone(o.items);
      setPath(items[n.item], n.at.join("."), text);
      return { ...o, items };
    });
    const solved = evaluateOutlines(outlines, numberScope(this.job), this.solved.shapes);
    const resolved = resolveBody(
      r.row.body,
      r.numbers,
      this.job.balloons,
      planeSource(this.job, numberScope(this.job)),
    );
    const recipe = resolved.ok ? kindOf(r.row.body).recipe(resolved.value, r.row.body, this.source(solved)) : resolved;
    if (!recipe.ok) return null;
    return this.differing(new Map([[r.row.id, recipe.value]]));
  }

  /** Surfaces of any row that move when some numbers of one row come out otherwise. */
  private movedBy(r: SolvedRow, changed: NumberReport[]): Map<string, Shape> {
    const numbers = r.numbers.map((n) => changed.find((m) => m.path === n.path) ?? n);
    const planes = planeSource(this.job, numberScope(this.job));
    const resolved = resolveBody(r.row.body, numbers, this.job.balloons, planes);
    const recipe = resolved.ok
      ? kindOf(r.row.body).recipe(resolved.value, r.row.body, this.source(this.solvedOutlines))
      : resolved;
    if (!recipe.ok) return new Map();
    return this.differing(new Map([[r.row.id, recipe.value]]));
  }

  private differing = (recipes: Map<string, Recipe>): Map<string, Shape> =>
    new Map(
      [...movedModel(this.model, recipes)].flatMap(([id, s]): [string, Shape][] =>
        differs(s.shape, this.model.surfaces.get(id)?.shape) ? [[id, s.shape]] : [],
      ),
    );
}

/** The most numbers of an outline that are moved one by one: each draws it once more. */
const MOST_ALONE = 40;

const placesPattern = (path: string): boolean => path.startsWith("pattern.at.");
const stepsPattern = (path: string): boolean => /^pattern\.(by|dx|dy|diameter)$/.test(path);

/** A step of a balloon's number: inside, and as it is typed. */
export function stepOf(b: Balloon, job: Job): { step: number; by: number } {
  if (b.kind === "angle") return { step: STEP.angle, by: (STEP.angle * 180) / Math.PI };
  return { step: STEP.length, by: STEP.length / unitOf[job.unit].mm };
}

function differs(a: Shape, b: Shape | undefined): boolean {
  if (!b || a.is !== b.is) return false;
  const far = (p: Vec3, q: Vec3) => length(sub(p, q)) > 1e-10;
  if (a.is === "plane" && b.is === "plane") return Math.abs(a.offset - b.offset) > 1e-10 || far(a.normal, b.normal);
  if (a.is === "plane" || b.is === "plane") return false;
  if (far(a.origin, b.origin) || far(a.direction, b.direction)) return true;
  if (a.is === "torus" && b.is === "torus" && Math.abs(a.reach - b.reach) > 1e-10) return true;
  if ("radius" in a && "radius" in b) return Math.abs(a.radius - b.radius) > 1e-10;
  return a.is === "cone" && b.is === "cone" && Math.abs(a.halfAngle - b.halfAngle) > ROUNDING;
}
