import { numberScope, reportNumbers, type NumberReport } from "../engine/numbers";
import { COINCIDENT } from "../geometry/tolerance";
import type { Meaning } from "../grammar/grammar";
import type { JobEdit } from "../job/edits";
import type { Balloon, Job } from "../job/schema";
import { toNumberText, type NumberScope } from "../number";

/** A bare number of a row, and the unused balloons of a fitting kind that print it. */
export interface Linkable {
  row: string;
  /** The row's number, from 1. */
  number: number;
  path: string;
  label: string;
  text: string;
  balloons: number[];
}

/** Which balloons a number can be, by what it is. */
const kinds: Record<Meaning, readonly Balloon["kind"][]> = {
  length: ["linear", "depth"],
  depth: ["depth", "linear"],
  diameter: ["diameter"],
  radius: ["radius"],
  angle: ["angle"],
  coordinate: ["linear"],
  across: ["linear", "diameter"],
  leg: ["chamfer", "linear"],
  countersink: ["diameter"],
  copies: ["count"],
  repeat: ["count"],
  sides: [],
  ratio: [],
};

/**
 * Bare numbers that have no source yet, with every unused balloon that prints the same: one balloon is sure, several
 * are a question.
 */
export function linkable(job: Job): { sure: Linkable[]; asked: Linkable[] } {
  const scope = numberScope(job);
  const rows = job.rows.map((row) => ({ row, numbers: reportNumbers(row.body, scope) }));
  const used = new Set(rows.flatMap((r) => r.numbers.flatMap((n) => n.value?.cites ?? [])));
  const free = job.balloons.filter((b) => !used.has(b.number) && !b.reference);
  const all = rows.flatMap(({ row, numbers }, i) =>
    numbers.filter(isBare).flatMap((n): Linkable[] => {
      const balloons = free.filter((b) => prints(b, n, scope)).map((b) => b.number);
      const { path, label, text } = n;
      return balloons.length ? [{ row: row.id, number: i + 1, path, label, text, balloons }] : [];
    }),
  );
  return { sure: all.filter((l) => l.balloons.length === 1), asked: all.filter((l) => l.balloons.length > 1) };
}

const isBare = (n: NumberReport): boolean =>
  n.value?.source === "unsourced" && !n.value.cites.length && !n.value.named.length;

function prints(b: Balloon, n: NumberReport, scope: NumberScope): boolean {
  if (!kinds[n.means].includes(b.kind)) return false;
  const v = scope.balloon(b.number);
  return v.ok && Math.abs(v.value - n.value!.typed) < COINCIDENT;
}

/** The edit that makes a number its balloon's. */
export const link = (l: Linkable, balloon: number): JobEdit => ({
  edit: "setNumber",
  id: l.row,
  path: l.path,
  text: toNumberText(`#${balloon}`),
});
