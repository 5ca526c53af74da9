import type { Problem, Result } from "../result";
import { partKey } from "../outline/fromPart";
import type { Region } from "../outline/boolean";
import type { EvaluatedOutline } from "../outline/evaluateOutline";
import { keyOf } from "../key";
import type { SolidKernel } from "./kernel";
import { plateAfter, plateFrom, type Plate } from "./flat";
import { place, type Placed } from "./place";
import type { RowPlanes } from "./planes";
import { shapeOfPart } from "./partShapes";
import { withShapes, type Prepared, type PreparedRow } from "./prepare";

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

export interface Solved {
  rows: SolvedRow[];
  finalKey: string | null;
  outlines: EvaluatedOutline[];
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
 * Stage 4: applies the rows one after the other. A state that is there already, under the key of its whole prefix,
 * is not made again.
 * A row that fails carries its reason and is skipped; the rest computes.
 */
export async function solve(prepared: Prepared, kernel: SolidKernel, patience: Patience = patient): Promise<Solved> {
  let key: string | null = null;
  let plate: Plate | null = null;
  let volume = 0;
  const earlier = new Map<string, RowPlanes>();
  const rows: SolvedRow[] = [];
  const nameOf = (id: string) => {
    const i = prepared.job.rows.findIndex((r) => r.id === id);
    const failed = rows.find((r) => r.row.id === id)?.state === "failed";
    return i >= 0
      ? `row ${i + 1}${failed ? ", which cannot be made itself," : ""}`
      : `row ${/^gone-(\d+)$/.exec(id)?.[1] ?? id.replace(/^r(\d+)$/, "$1")}`;
  };
  const shapes = new Map<string, Result<Region>>();
  let outlines = prepared.outlines;
  /** Takes from the part what an outline waits for. @returns whether there is anything new */
  const take = (o: EvaluatedOutline | undefined): boolean => {
    const wanted = (o?.waits ?? []).filter((w) => !shapes.has(partKey(w)));
    for (const w of wanted) shapes.set(partKey(w), shapeOfPart(w, kernel, rows, nameOf));
    return wanted.length > 0;
  };
  for (const before of prepared.rows) {
    let p = before;
    patience.reached?.(p.number, prepared.rows.length, key);
    await patience.pause();
    if (patience.cancelled()) throw new Superseded();
    const stay = (state: "failed" | "off", failure: Problem | null): SolvedRow => ({
      ...p,
      state,
      failure,
      message: failure ? failure.message + (failure.expected ? ` (expected: ${failure.expected})` : "") : "",
      removed: 0,
      volumeAfter: volume,
      key,
      planes: null,
      placed: null,
    });
    if (p.row.off) {
      rows.push(stay("off", null));
      continue;
    }
    if ("outline" in p.row.body) {
      const name = p.row.body.outline.toLowerCase(),
        used = [...outlines.values()].find((o) => o.name.toLowerCase() === name);
      // An outline taken from a section that is itself offset by another section comes to its end step by step.
      for (let n = 0; n < 5 && take([...outlines.values()].find((o) => o.id === used?.id)); n++)
        outlines = withShapes(prepared, shapes).outlines;
      if (used?.waits.length) p = { ...p, ...withShapes(prepared, shapes).row(p) };
      // What could not be had yet may be there for a later row.
      for (const [key, r] of shapes) if (!r.ok) shapes.delete(key);
    }
    if (!p.recipe) {
      rows.push(stay("failed", p.problem));
      continue;
    }
    const placed = place(p.recipe, p.row.id, kernel, key, earlier, nameOf);
    if (!placed.ok) {
      rows.push(stay("failed", placed.problems[0]));
      continue;
    }
    const { step, planes, thru }: Placed = placed.value;
    if (!step) {
      earlier.set(p.row.id, planes);
      rows.push({
        ...p,
        state: "ok",
        message: "",
        failure: null,
        removed: 0,
        volumeAfter: volume,
        key,
        planes,
        placed: placed.value,
      });
      continue;
    }
    const nextPlate: Plate | null = key === null ? plateFrom(step) : plate && plateAfter(plate, step, thru);
    const actual = nextPlate ?? step;
    const nextKey = keyOf(nextPlate ? null : key, actual);
    const made = kernel.apply(nextKey, nextPlate ? null : key, actual);
    if (!made.ok) {
      rows.push(stay("failed", made.problems[0]));
      continue;
    }
    earlier.set(p.row.id, planes);
    rows.push({
      ...p,
      state: "ok",
      message: "",
      failure: null,
      removed: volume - made.value.volume,
      volumeAfter: made.value.volume,
      key: nextKey,
      planes,
      placed: placed.value,
    });
    key = nextKey;
    plate = nextPlate;
    volume = made.value.volume;
  }
  let fresh = false;
  for (const o of outlines.values()) fresh = take(o) || fresh;
  if (fresh) outlines = withShapes(prepared, shapes).outlines;
  kernel.trim(new Set(rows.flatMap((r) => (r.key ? [r.key] : []))));
  return { rows, finalKey: key, outlines: [...outlines.values()], shapes };
}
