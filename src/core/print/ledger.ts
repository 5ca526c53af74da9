import { keyOf } from "../base/key";
import type { EdgeInfo, FaceInfo } from "../engine/kernel";
import type { Solved, SolvedRow } from "../engine/solve";
import type { Balloon, Job } from "../job/schema";
import type { NumberScope } from "../number";
import { ancestorsOf, citations, citesBalloon } from "./citations";
import { claimed, deciding, type Claim } from "./claims";
import { countClaims, timesClaim } from "./counting";
import { threadEntry } from "./threadClaims";
import { Dimensions } from "./dimension";
import { findFeature, measureFeatures } from "./features";
import { groundsOf } from "./grounds";
import { judge } from "./judge";
import { isSaid, saidClaims } from "./saidLengths";
import { unheldWords } from "./words";
import { kindClaims } from "./kindClaims";
import { inside, type Limits } from "./limits";
import type { Box } from "../geometry/vec";
import { balloonLimits } from "../balloons/tolerance";

export type BalloonState = "unused" | "drives" | "proved" | "off" | "stale";

/** A balloon against the model. Lengths mm, angles radians. */
export interface LedgerEntry {
  number: number;
  state: BalloonState;
  nominal: number | null;
  low: number | null;
  high: number | null;
  /** Where the limits come from, in words. */
  tolerance: string;
  /** What was measured on the solid, and on what; where nothing could be, why not and what to do. */
  measured: number | null;
  by: string;
  /** What it claims of the solid, each with what was found; empty where nothing is made from it. */
  claims: Claim[];
  /** Another part of the job that is made from it, where this one is not. */
  elsewhere?: string;
  /** Rows with a number made from it. */
  rows: number[];
  /** Ids of the rows it was measured on. */
  on: string[];
  /** Key of all that the proof rests on; a record made on another basis is stale. */
  basis: string;
  problem?: string;
}

/** An entry in the making. */
export type Draft = Omit<LedgerEntry, "basis">;
/** Everything the ledger looks at. */
export interface LedgerContext {
  job: Job;
  rows: SolvedRow[];
  faces: FaceInfo[];
  scope: NumberScope;
  citing: Map<number, SolvedRow[]>;
  dimensions: Dimensions;
  /** The box of the finished part. */
  part: Box;
}

/**
 * State of every balloon. "Proved" rests on the solid alone, and on the one dimension of it that is the balloon's:
 * what grows with its number,
 * one for one, and with no other. What merely agrees proves nothing. A proof that was recorded and whose ground has
 * changed since is stale.
 */
export function ledger(
  job: Job,
  { solved, faces, edges, part }: { solved: Solved; faces: FaceInfo[]; edges: EdgeInfo[]; part: Box | null },
  scope: NumberScope,
): LedgerEntry[] {
  const { rows } = solved;
  const citing = citations(job, rows, scope);
  const context: LedgerContext = {
    job,
    rows,
    faces,
    scope,
    citing,
    dimensions: new Dimensions(job, solved, faces, edges, citing, ancestorsOf(job, scope)),
    part: part ?? { min: ZERO, max: ZERO },
  };
  return job.balloons.map((b) => {
    const draft = entry(b, context);
    const resting = rows.filter((r) => draft.on.includes(r.row.id) || draft.rows.includes(r.number));
    const basis = `${GROUND}:${keyOf(null, [b.kind, draft.nominal, draft.low, draft.high, b.measure ?? null, groundsOf(resting, solved)])}`;
    const record = job.proofs.find((p) => p.number === b.number);
    const stale = record !== undefined && record.basis !== basis && draft.state === "proved";
    return { ...draft, basis, ...(stale ? { state: "stale" as const } : {}) };
  });
}
const ZERO = { x: 0, y: 0, z: 0 };
/** Version of what a ground is made of: a record of another version is stale, and is proved anew. */
const GROUND = "g2";

function entry(b: Balloon, c: LedgerContext): Draft {
  const cited = c.citing.get(b.number) ?? [];
  const limits = balloonLimits(b, c.job, c.scope);
  const base = { number: b.number, rows: cited.map((r) => r.number), measured: null, by: "", on: [], claims: [] };
  if (!limits.ok)
    return {
      ...base,
      nominal: null,
      low: null,
      high: null,
      tolerance: "",
      state: cited.length ? "drives" : "unused",
      problem: limits.problems[0].message,
    };
  const thread = b.kind === "thread";
  const { nominal, low, high } = limits.value;
  const own = {
    ...base,
    nominal: thread ? null : nominal,
    low: thread ? null : low,
    high: thread ? null : high,
    tolerance: limits.value.by,
  };
  if (b.measure) return byPick(b, own, limits.value, c.faces);
  if (!cited.length) return unused(b, own, c.job);
  const standing = cited.filter((r) => r.state === "ok");
  if (!standing.length) return { ...own, state: "drives", by: "the row it drives is not made" };
  if (thread) return threadEntry(b, own, standing, c);
  if (b.kind === "count") return countEntry(b, own, nominal, standing, c);
  const said = standing.flatMap((r) => saidClaims(b, r, limits.value, c.faces));
  const cut = standing.filter((r) => !onlySaid(r, b));
  if (!cut.length) return bySaid(own, [...said, ...unheldWords(b)], limits.value, standing);
  const judged = judge(b, own, limits.value, cut, c.dimensions, c.part);
  return withClaims(judged, [...said, ...kindClaims(b, cut, c), ...timesClaim(b, limits.value, cut, c)]);
}

/** A length that rows only say, of what is not cut. */
function bySaid(own: Omit<Draft, "state">, claims: Claim[], limits: Limits, rows: SolvedRow[]): Draft {
  const state = claimed(claims);
  const by = deciding(claims)?.by ?? claims[0]?.by ?? "nothing on the solid to measure";
  return {
    ...own,
    claims,
    state,
    measured: state === "proved" ? limits.nominal : null,
    by,
    on: rows.map((r) => r.row.id),
  };
}

/** A balloon nothing of this part is made from. */
function unused(b: Balloon, own: Omit<Draft, "state">, job: Job): Draft {
  const elsewhere = job.others?.find((o) => citesBalloon(o.job, b.number))?.name;
  if (elsewhere !== undefined) return { ...own, state: "unused", elsewhere, by: `used in "${elsewhere}"` };
  const by = b.reference ? "a reference dimension drives nothing: pick on the stage what it measures" : "";
  return { ...own, state: "unused", by };
}

/** A draft that claims more: what was proved or off by its value alone may be otherwise by the rest. */
function withClaims(draft: Draft, more: Claim[]): Draft {
  const claims = [...draft.claims, ...more];
  const state = claimed(claims);
  const reason = deciding(more);
  return {
    ...draft,
    claims,
    state,
    by: draft.state === "proved" && reason ? `${reason.says}: ${reason.by}` : draft.by,
  };
}

function countEntry(b: Balloon, own: Omit<Draft, "state">, wanted: number, rows: SolvedRow[], c: LedgerContext): Draft {
  const claims = [...countClaims(b, wanted, rows, c), ...unheldWords(b)];
  const state = claimed(claims);
  const by = deciding(claims)?.by ?? claims[0]?.by ?? "nothing on the solid to count";
  return { ...own, claims, state, measured: state === "proved" ? wanted : null, by, on: rows.map((r) => r.row.id) };
}

/** A dimension measured where it was picked, and nowhere else. */
function byPick(b: Balloon, own: Omit<Draft, "state">, l: Limits, faces: FaceInfo[]): Draft {
  const a = findFeature(b.measure!.a, faces);
  const second = b.measure!.b ? findFeature(b.measure!.b, faces) : null;
  const on = [b.measure!.a.row, ...(b.measure!.b ? [b.measure!.b.row] : [])];
  const state = own.rows.length ? ("drives" as const) : ("unused" as const);
  if (!a || (b.measure!.b && !second)) return { ...own, on, state, by: "the picked face is gone; pick it again" };
  const m = measureFeatures(b.kind, a, second);
  if (!m.ok) return { ...own, on, state, by: m.problems[0].message };
  const best = m.value.reduce((x, y) => (Math.abs(y.value - l.nominal) < Math.abs(x.value - l.nominal) ? y : x));
  return { ...own, on, state: inside(best.value, l) ? "proved" : "off", measured: best.value, by: best.by };
}

/** Whether a row uses a balloon for a length that it only says, and for nothing else. */
function onlySaid(r: SolvedRow, b: Balloon): boolean {
  const paths = r.numbers.filter((n) => n.value?.cites.includes(b.number)).map((n) => n.path);
  return paths.length > 0 && paths.every((p) => isSaid(r, p));
}
