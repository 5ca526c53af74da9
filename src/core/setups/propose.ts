import { dot } from "../geometry/vec";
import { PARALLEL } from "../geometry/tolerance";
import type { SolvedRow } from "../engine/solve";
import type { Setup } from "../job/schema";
import { fewestChanges } from "./cutterChanges";
import type { Direction, Reach } from "./reach";
import type { RowAccess } from "./routing";

/** A setup that is proposed: which way is up, its rows, and why each is in it. */
export interface ProposedSetup {
  op: number;
  up: Setup["up"];
  direction: Direction;
  rows: number[];
  machine: Setup["machine"];
  why: string[];
}
/** Setups are numbered in tens: there is room to put one between. */
const OP_STEP = 10;

/** What a routing is proposed from. */
export interface Asked {
  access: RowAccess[];
  directions: (Direction & { says: Setup["up"] })[];
  reach: Reach;
  /** Rows that leave no face of their own. */
  unmarked: SolvedRow[];
  rows: SolvedRow[];
  /** The cutters a row is planned with. */
  cuttersOf: (row: number) => string[];
}

/**
 * The fewest directions from which every face that can be cut is seen, and of equal ones those that cut most rows whole:
 * all sets of directions are tried, small ones first.
 */
export function proposeRouting(asked: Asked): ProposedSetup[] {
  const { access, directions, reach, unmarked, rows } = asked;
  const wanted = new Set(
    access.flatMap((a) => a.faces.filter((f) => directions.some((d) => reach.seen([f], d).faces.has(f)))),
  );
  if (!wanted.size) return [];
  const sees = directions.map((d) => new Set([...wanted].filter((f) => reach.seen([f], d).faces.has(f))));
  const wholeRows = (set: number[]) =>
    access.filter((a) => set.some((i) => a.faces.every((f) => sees[i].has(f) || !wanted.has(f)))).length;
  const chosen = smallestCover(sees, wanted.size, wholeRows);
  // The direction that sees most comes first: the piece is held by its stock then.
  const order = [...chosen].sort((a, b) => sees[b].size - sees[a].size || a - b);
  const setups = withUnmarked(inSetups(order, asked, sees), unmarked).map((s) => ({
    ...s,
    machine: machineFor(s, rows),
  }));
  const unseen = access.filter((a) => !a.some.length);
  return withTurned(setups, unseen);
}

/** What no straight cutter reaches is turned, where a setup stands on a lathe. */
function withTurned(setups: ProposedSetup[], unseen: RowAccess[]): ProposedSetup[] {
  const lathe = setups.find((s) => s.machine === "lathe");
  if (!lathe) return setups;
  lathe.rows = [...lathe.rows, ...unseen.map((a) => a.row)].sort((a, b) => a - b);
  lathe.why.push(...unseen.map((a) => `row ${a.row}: it turns before the tool`));
  return setups;
}

/** What is turned about the setup's own axis is turned on a lathe. */
function machineFor(setup: ProposedSetup, rows: SolvedRow[]): Setup["machine"] {
  const isTurned = setup.rows.some((n) => {
    const { feature, planes } = rows[n - 1];
    return (
      feature?.is === "turned" &&
      planes?.shape &&
      Math.abs(dot(planes.shape.frame.normal, setup.direction.up)) > PARALLEL
    );
  });
  return isTurned ? "lathe" : setup.machine;
}

/** Rows that leave no face of their own (a facing, an edge that another row took) go where they are cut from. */
function withUnmarked(setups: ProposedSetup[], rows: SolvedRow[]): ProposedSetup[] {
  for (const row of rows) {
    const way = row.planes?.start?.normal;
    const at = setups.find((s) => way && dot(s.direction.up, way) > PARALLEL) ?? setups[0];
    if (!at) continue;
    at.rows = [...at.rows, row.number].sort((a, b) => a - b);
    at.why.push(`row ${row.number}: it leaves no face of its own`);
  }
  return setups;
}

/** Largest sets that are tried: more directions than this are taken one after the other, the best first. */
const MOST_TRIED = 4;

function smallestCover(sees: Set<number>[], wanted: number, worth: (set: number[]) => number): number[] {
  for (let size = 1; size <= Math.min(MOST_TRIED, sees.length); size++) {
    let best: number[] | null = null;
    for (const set of subsets(sees.length, size)) {
      const all = new Set(set.flatMap((i) => [...sees[i]]));
      if (all.size === wanted && (!best || worth(set) > worth(best))) best = set;
    }
    if (best) return best;
  }
  const chosen: number[] = [];
  const done = new Set<number>();
  while (done.size < wanted) {
    const gain = sees.map((s) => [...s].filter((f) => !done.has(f)).length);
    const next = gain.indexOf(Math.max(...gain));
    if (gain[next] === 0) break;
    chosen.push(next);
    for (const f of sees[next]) done.add(f);
  }
  return chosen;
}

function* subsets(n: number, size: number, from = 0): Generator<number[]> {
  if (size === 0) yield [];
  else for (let i = from; i + size <= n; i++) for (const rest of subsets(n, size - 1, i + 1)) yield [i, ...rest];
}

/**
 * A row goes where it is cut whole, and where several setups can, where its cutters are in the spindle anyway; one that
 * no setup sees whole goes to each that it needs.
 */
function inSetups(order: number[], { access, directions, cuttersOf }: Asked, sees: Set<number>[]): ProposedSetup[] {
  const setups = order.map((i, k): ProposedSetup => ({
    op: OP_STEP * (k + 1),
    up: directions[i].says,
    direction: directions[i],
    machine: directions[i].side ? "mill" : "index",
    rows: [],
    why: [],
  }));
  const needs = access.map((a) => ({
    among: order.flatMap((i, k) => (a.faces.every((f) => sees[i].has(f)) ? [k] : [])),
    parts: partsOf(a.faces, order, sees),
    cutters: cuttersOf(a.row),
  }));
  const chosen = fewestChanges(needs);
  access.forEach((a, n) => {
    const { among, parts } = needs[n];
    const [first] = among;
    for (const { setup, faces } of first === undefined ? parts : [{ setup: chosen[n]!, faces: a.faces.length }]) {
      const s = setups[setup];
      s.rows.push(a.row);
      s.why.push(whyHere(a, s.direction.name, faces, setup === first || first === undefined));
    }
  });
  return setups.filter((s) => s.rows.length);
}

function whyHere(a: RowAccess, from: string, faces: number, isFirst: boolean): string {
  if (faces < a.faces.length) return `row ${a.row}: ${faces} of its ${a.faces.length} faces are reached from ${from}`;
  const all = `row ${a.row}: all of it is reached from ${from}`;
  return isFirst ? all : `${all}, as from an earlier setup, but its cutter is used here`;
}

/** How many faces of a row each setup cuts, the first that can cutting each. */
function partsOf(faces: number[], order: number[], sees: Set<number>[]): { setup: number; faces: number }[] {
  const open = new Set(faces);
  return order.flatMap((i, setup) => {
    const here = [...open].filter((f) => sees[i].has(f));
    here.forEach((f) => open.delete(f));
    return here.length ? [{ setup, faces: here.length }] : [];
  });
}
