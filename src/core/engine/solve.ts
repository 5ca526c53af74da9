import { problems } from "./problems";
import { partsTaken } from "../job/parts";
import type { OtherPart } from "../job/schema";
import { problemIn, type NumberScope } from "../number";
import { fail, ok, type Problem, type Result } from "../base/result";
import { CONTACT } from "../geometry/tolerance";
import type { Frame } from "../geometry/vec";
import type { Feature, Recipe } from "../rows";
import { outlinesNamed } from "../rows/outlineSource";
import { partKey, type PartItem } from "../outline/fromPart";
import type { Region } from "../outline/boolean";
import type { EvaluatedOutline } from "../outline/evaluateOutline";
import type { SolidKernel } from "./kernel";
import { advance, type Standing } from "./advance";
import type { Plate } from "./flat";
import { place, type Placed } from "./place";
import { planeSource } from "./namedPlanes";
import { frameOf, type RowPlanes } from "./planes";
import { pieceAfter, shapeOfOther, shapeOfPart, type SolvedOther } from "./partShapes";
import { pieceStates, type PieceState } from "./piece";
import { stationOf } from "./stations";
import { prepare, withShapes, type Prepared, type PreparedRow } from "./prepare";

/** A row after stage 4: the state it left, and how much it took (negative where it adds). */
export interface SolvedRow extends PreparedRow {
  state: "ok" | "failed" | "off";
  message: string;
  failure: Problem | null;
  removed: number;
  volumeAfter: number;
  /** Key of the solid after this row; null while there is none. */
  key: string | null;
  planes: RowPlanes | null;
  placed: Placed | null;
}

/** A named plane on the finished part, or why it is none there. */
export interface SolvedPlane {
  id: string;
  name: string;
  frame: Frame | null;
  problem: string;
}

export interface Solved {
  rows: SolvedRow[];
  finalKey: string | null;
  outlines: EvaluatedOutline[];
  /** The named planes as they lie on the finished part. */
  planes: SolvedPlane[];
  /** What outlines took from the part, by `partKey`. */
  shapes: Map<string, Result<Region>>;
}

/** Says whether a newer edit has come; asked between rows. */
export interface Patience {
  pause(): Promise<void>;
  /** Told before each row: which one of how many, and the state it starts from. */
  reached?(row: number, of: number, key: string | null): void;
  cancelled(): boolean;
}
export const patient: Patience = { pause: async () => {}, cancelled: () => false };

/** Thrown when a newer edit has come; the worker's door turns it into "superseded". */
export class Superseded extends Error {}

/**
 * What a row came to after the rows before it. A recipe that is the same object, on the same rows before it, comes to
 * the same: it is not placed again.
 */
interface Reached extends Standing {
  row: string;
  placed: Placed;
  after: WeakMap<Recipe, Reached>;
  /** The row as it was told last time, with what it was told of. */
  told?: { of: PreparedRow; volumeBefore: number; row: SolvedRow };
}
const beginnings = new WeakMap<SolidKernel, WeakMap<Recipe, Reached>>();
function beginningOf(kernel: SolidKernel): WeakMap<Recipe, Reached> {
  const known = beginnings.get(kernel) ?? new WeakMap<Recipe, Reached>();
  beginnings.set(kernel, known);
  return known;
}

/**
 * Stage 4: applies the rows one after the other. A state that is there already, under the key of its whole prefix,
 * is not made again.
 * A row that fails carries its reason and is skipped; the rest computes.
 */
export async function solve(prepared: Prepared, kernel: SolidKernel, patience: Patience = patient): Promise<Solved> {
  const solved = await solveKept(prepared, kernel, patience);
  kernel.trim(new Set(solved.kept));
  return solved.solved;
}

/** The same, with the keys of every state it rests on, those of other parts among them. */
async function solveKept(
  prepared: Prepared,
  kernel: SolidKernel,
  patience: Patience,
): Promise<{ solved: Solved; kept: string[] }> {
  const others: SolvedOther[] = [];
  const kept: string[] = [];
  const taken = new Set(partsTaken(prepared.job.outlines).map((n) => n.toLowerCase()));
  for (const other of prepared.job.others ?? []) {
    if (!taken.has(other.name.toLowerCase())) continue;
    const part = prepare(other.job);
    const done = await solveKept(part, kernel, { ...patience, reached: undefined });
    kept.push(...done.kept);
    const solvedOther = otherAs(other, part, done.solved, kernel, prepared.scope);
    kept.push(...solvedOther.used);
    others.push(solvedOther);
  }
  const solving = new Solving(prepared, kernel, others);
  for (const row of prepared.rows) {
    patience.reached?.(row.number, prepared.rows.length, solving.key);
    await patience.pause();
    if (patience.cancelled()) throw new Superseded();
    solving.next(row);
  }
  const solved = solving.end();
  return { solved, kept: [...kept, ...solved.rows.flatMap((r) => (r.key ? [r.key] : []))] };
}

/** A part that gives lines, laid at its stations; its pieces are worked out when something asks for them. */
function otherAs(
  other: OtherPart,
  part: Prepared,
  { rows, finalKey }: Solved,
  kernel: SolidKernel,
  scope: NumberScope,
): SolvedOther & { used: string[] } {
  const used: string[] = [];
  let states: Result<PieceState[]> | null = null;
  const pieces = (): Result<PieceState[]> => {
    if (finalKey === null) return fail(problems.partNotMade(other.name));
    const nameOf = (id: string) => `row ${rows.find((r) => r.row.id === id)?.number ?? "?"} of "${other.name}"`;
    states ??= pieceStates({ kernel, job: other.job, scope: part.scope, rows, finalKey, nameOf });
    if (states.ok) used.push(...states.value.flatMap((s) => [s.before, s.after]));
    return states;
  };
  const stations = other.places.flatMap((p) => {
    const key = p.setup === undefined ? finalKey : pieceAfter({ name: other.name, pieces }, p.setup);
    const at = key === null || typeof key === "string" ? key : key.ok ? key.value : null;
    const station = at === null ? null : stationOf(p, scope, (d) => kernel.reach(at, d));
    return station?.ok ? [{ motion: station.value, setup: p.setup }] : [];
  });
  return { name: other.name, rows, stations, pieces, used };
}

/** The rows as far as they have come, and the part as it stands there. */
class Solving {
  key: string | null = null;
  private plate: Plate | null = null;
  private volume = 0;
  private way: WeakMap<Recipe, Reached>;
  private readonly earlier = new Map<string, RowPlanes>();
  private readonly rows: SolvedRow[] = [];
  private readonly shapes = new Map<string, Result<Region>>();
  private outlines: Map<string, EvaluatedOutline>;

  constructor(
    private readonly prepared: Prepared,
    private readonly kernel: SolidKernel,
    private readonly others: SolvedOther[],
  ) {
    this.way = beginningOf(kernel);
    this.outlines = prepared.outlines;
  }

  next(before: PreparedRow): void {
    if (before.row.off) return this.stay(before, "off", null);
    const row = outlinesNamed(before.row.body).reduce((r, name) => this.withOutline(r, name), before);
    if (!row.recipe) return this.stay(row, "failed", row.problem);
    const known = this.way.get(row.recipe);
    if (known?.row === row.row.id && (known.key === null || this.kernel.has(known.key))) return this.reach(row, known);
    const { kernel, key, plate, volume, earlier, nameOf } = this;
    const placed = place(row.recipe, row.row.id, { kernel, key, earlier, nameOf }, { key, plate, volume });
    const made = placed.ok ? this.apply(row.row.id, placed.value) : placed;
    if (!made.ok) return this.stay(row, "failed", problemIn(made.problems[0], this.prepared.job.unit));
    this.way.set(row.recipe, made.value);
    this.reach(row, made.value);
  }

  end(): Solved {
    let fresh = false;
    for (const o of this.outlines.values()) fresh = this.take(o) || fresh;
    if (fresh) this.outlines = withShapes(this.prepared, this.shapes).outlines;
    const { rows, key, shapes } = this;
    return { rows, finalKey: key, outlines: [...this.outlines.values()], planes: this.planes(), shapes };
  }

  private planes(): SolvedPlane[] {
    const { job, scope } = this.prepared;
    const source = planeSource(job, scope);
    const { kernel, key, earlier, nameOf } = this;
    return (job.planes ?? []).map(({ id, name }): SolvedPlane => {
      const made = source(name);
      const frame = made.ok
        ? frameOf({ on: "named", plane: name, made: made.value, start: 0 }, { kernel, key, earlier, nameOf })
        : made;
      return frame.ok
        ? { id, name, frame: frame.value, problem: "" }
        : { id, name, frame: null, problem: frame.problems[0].message };
    });
  }

  private apply(row: string, placed: Placed): Result<Reached> {
    const { step, more = [], thru, reached } = placed;
    const after = new WeakMap<Recipe, Reached>();
    let at: Standing = reached ?? { key: this.key, plate: this.plate, volume: this.volume };
    for (const s of step ? [step, ...more] : []) {
      const next = advance(this.kernel, at, s, thru);
      if (!next.ok) return next;
      at = next.value;
    }
    return ok({ row, placed, ...at, after });
  }

  private reach(row: PreparedRow, reached: Reached): void {
    const { placed, key, plate, volume, after, told } = reached;
    this.earlier.set(row.row.id, placed.planes);
    const same = told?.of === row && told.volumeBefore === this.volume;
    const solved = same ? told.row : this.solvedRow(row, reached);
    if (!same) reached.told = { of: row, volumeBefore: this.volume, row: solved };
    this.rows.push(solved);
    this.key = key;
    this.plate = plate;
    this.volume = volume;
    this.way = after;
  }

  private solvedRow(row: PreparedRow, { placed, key, volume }: Reached): SolvedRow {
    return {
      ...row,
      feature: withDepth(row.feature, placed.depth),
      state: "ok",
      message: "",
      failure: null,
      removed: this.volume - volume,
      volumeAfter: volume,
      key,
      planes: placed.planes,
      placed,
    };
  }

  private stay(row: PreparedRow, state: "failed" | "off", failure: Problem | null): void {
    this.rows.push({
      ...row,
      state,
      failure,
      message: failure ? failure.message + (failure.expected ? ` (expected: ${failure.expected})` : "") : "",
      removed: 0,
      volumeAfter: this.volume,
      key: this.key,
      planes: null,
      placed: null,
    });
  }

  private nameOf = (id: string): string => {
    const i = this.prepared.job.rows.findIndex((r) => r.id === id);
    const failed = this.rows.find((r) => r.row.id === id)?.state === "failed";
    return i >= 0
      ? `row ${i + 1}${failed ? ", which cannot be made itself," : ""}`
      : `row ${/^gone-(\d+)$/.exec(id)?.[1] ?? id.replace(/^r(\d+)$/, "$1")}`;
  };

  /** A row made from an outline that waits for the part, once it has from the part what there is. */
  private withOutline(row: PreparedRow, outline: string): PreparedRow {
    const name = outline.toLowerCase();
    const used = [...this.outlines.values()].find((o) => o.name.toLowerCase() === name);
    // An outline taken from a section that is itself offset by another section comes to its end step by step.
    for (let n = 0; n < 5 && this.take([...this.outlines.values()].find((o) => o.id === used?.id)); n++)
      this.outlines = withShapes(this.prepared, this.shapes).outlines;
    const made = used?.waits.length ? { ...row, ...withShapes(this.prepared, this.shapes).row(row) } : row;
    // What could not be had yet may be there for a later row.
    for (const [key, r] of this.shapes) if (!r.ok) this.shapes.delete(key);
    return made;
  }

  private shapeFor(want: PartItem): Result<Region> {
    if (want.part === undefined) return shapeOfPart(want, this.kernel, this.rows, this.nameOf);
    const { part } = want;
    const other = this.others.find((o) => o.name.toLowerCase() === part.toLowerCase());
    return other ? shapeOfOther(want, this.kernel, other) : fail(problems.noPartToTakeFrom(part));
  }

  /** Takes from the part what an outline waits for. @returns whether there is anything new */
  private take(o: EvaluatedOutline | undefined): boolean {
    const wanted = (o?.waits ?? []).filter((w) => !this.shapes.has(partKey(w)));
    for (const w of wanted) this.shapes.set(partKey(w), this.shapeFor(w));
    return wanted.length > 0;
  }
}

/** A hole that goes to something is as deep as it came out. */
const withDepth = (feature: Feature | null, depth: number | undefined): Feature | null =>
  feature?.is === "hole" && depth !== undefined ? { ...feature, depth } : feature;

/** Whether a row took anything off; what arithmetic leaves is nothing. */
export const takesOff = (r: Pick<SolvedRow, "removed">): boolean => r.removed > CONTACT;
