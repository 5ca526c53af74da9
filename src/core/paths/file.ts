import { numberScope } from "../engine/numbers";
import type { SolvedRow } from "../engine/solve";
import { toFrame, fromFrame, v2, type Box, type Vec2, type Vec3 } from "../geometry/vec";
import { placeVise, type ViseSetup } from "../hold/vise";
import type { Job } from "../job/schema";
import { showLength } from "../number";
import { insideRegion } from "../outline/boolean";
import { sampleLoop } from "../outline";
import { jawMet } from "./jaws";
import type { PathPlan } from "./plan";
import { CONTACT } from "../geometry/tolerance";

/** A row, or a part of it, that is not in the file, and why. */
interface LeftOut {
  row: number;
  what: string;
  why: string;
}

/** What a file of machine words would hold: its paths in the order they are cut, and all that is not in it. */
export interface PathFile {
  /** Facing first, then in the order of the card. */
  plans: PathPlan[];
  leftOut: LeftOut[];
  /** Words the machine needs besides. */
  needs: string[];
  /** Why no file is written: it could only do harm. Empty when it is. */
  refused: string[];
  /** Whether a stock is chosen: without one nobody knows what stands over the part. */
  stockKnown: boolean;
  /** Height of Z0 in the job's coordinates, mm. */
  zero: number;
  /** Highest of the stock and the holding before anything is cut, and once it is faced, mm in the job's coordinates. */
  standing: { before: number; faced: number };
}

/** Words no path of ours gives yet. */
const needs = [
  "spindle speed and its start (S, M3)",
  "work offset (G54 or its like)",
  "tool length (G43 H)",
  "coolant (M8)",
];

/** What the file rests on: the rows as they came out, the part, and the stock it stands in. */
interface Ground {
  solved: { rows: SolvedRow[] };
  part: { box: Box } | null;
  stock: { placed: { box: Box }; allowance: { top: number } } | null;
}

const fromAbove = (p: PathPlan): boolean => p.frame.normal.z > 0.999;
const lowestOf = (p: PathPlan): number => p.frame.origin.z - p.depth;

/** Works out what can be written as machine words for the piece as it lies with its top up, and what cannot. */
export function pathFile(job: Job, e: Ground, all: PathPlan[]): PathFile {
  const cut = all.filter((p) => fromAbove(p) && p.problem === null && (p.chains.length > 0 || p.points.length > 0));
  const plans = [...cut.filter((p) => p.kind === "face"), ...cut.filter((p) => p.kind !== "face")];
  const stockTop = e.stock?.placed.box.max.z ?? e.part?.box.max.z ?? 0;
  const vise = viseOf(job, e);
  const jawTop = vise.setup?.jawTop ?? -Infinity;
  const faced = plans.filter((p) => p.kind === "face").reduce((top, p) => Math.min(top, lowestOf(p)), stockTop);
  const zero = plans.length ? Math.max(...plans.map((p) => (p.kind === "face" ? lowestOf(p) : p.frame.origin.z))) : 0;
  const len = (mm: number) => `${showLength(mm, job.unit)} ${job.unit}`;
  const refused = [
    ...(plans.length ? [] : ["nothing is cut from above that a path is planned for"]),
    ...vise.problems,
    ...plans.flatMap((p) => {
      const met = vise.setup && jawMet(p, vise.setup);
      return met ? [`row ${p.row} would cut ${len(met.below)} below the top of the jaws, into them`] : [];
    }),
    ...standsOver(plans, faced, len),
  ];
  return {
    plans,
    leftOut: leftOut(job, e, all, plans),
    needs,
    refused,
    stockKnown: e.stock !== null,
    zero,
    standing: { before: Math.max(stockTop, jawTop), faced: Math.max(faced, jawTop) },
  };
}

function viseOf(job: Job, e: Ground): { setup: ViseSetup | null; problems: string[] } {
  const piece = e.stock?.placed.box ?? e.part?.box;
  if (!job.hold || !piece) return { setup: null, problems: [] };
  const v = placeVise(job.hold, numberScope(job), piece);
  if (!v.ok) return { setup: null, problems: [`the piece cannot be held so: ${v.problems[0].message}`] };
  return {
    setup: v.value,
    problems: v.value.upIsTop ? [] : ["the piece is held with its bottom up, and these paths come from its top"],
  };
}

/** Paths that begin under material which nothing before them takes away: they would rapid into it. */
function standsOver(plans: PathPlan[], faced: number, len: (mm: number) => string): string[] {
  const opened: PathPlan[] = [];
  const said: string[] = [];
  for (const p of plans) {
    if (p.kind === "face") continue;
    const start = p.frame.origin.z;
    const free =
      start >= faced - CONTACT ||
      samplesOf(p).every((s) => opened.some((q) => lowestOf(q) <= start + CONTACT && isIn(q, s)));
    if (!free)
      said.push(
        `${len(faced - start)} of stock stand over what row ${p.row} cuts: a facing row (CUT FACE) before it, or the cut that clears it, is wanted`,
      );
    else if (p.cleared) opened.push(p);
  }
  return said;
}

/** Places a path goes to, in space: where it would meet what stands over it. */
function samplesOf(p: PathPlan): Vec3[] {
  const flat = [...p.points, ...p.chains.flatMap((l) => sampleLoop(l, Math.PI / 12))];
  return flat.map((q) => fromFrame(p.frame, q));
}
function isIn(p: PathPlan, at: Vec3): boolean {
  const q = toFrame(p.frame, at);
  const flat: Vec2 = v2(q.x, q.y);
  return insideRegion(p.cleared!, flat);
}

/** Every row that is not in the file, whole or in part. */
function leftOut(job: Job, e: Ground, all: PathPlan[], inFile: PathPlan[]): LeftOut[] {
  return e.solved.rows.flatMap((row): LeftOut[] => {
    const out = (why: string, what = ""): LeftOut => ({ row: row.number, what, why });
    if (row.state === "off") return [out("switched off")];
    if (row.state === "failed") return [out(`failed: ${row.message}`)];
    const plan = all.find((p) => p.rowId === row.row.id);
    if (!plan) return takesNothing(row, e) ? [] : [out("no path is planned for such a row yet")];
    if (!inFile.includes(plan))
      return [out(plan.problem ?? (fromAbove(plan) ? "nothing to cut" : "cut from another side, in another setup"))];
    return plan.unplanned.map((what) => out("no path is planned for it yet", what));
  });
}

/** A facing row with no stock over it has nothing to do. */
const takesNothing = (row: SolvedRow, e: Ground): boolean =>
  row.recipe?.op === "face" && row.placed?.step === null && (e.stock?.allowance.top ?? 0) < CONTACT;
