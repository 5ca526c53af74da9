import type { JobEdit } from "./edits";
import type { Row } from "./schema";

/** A row's name in two: its group and its own, `ports / bore`. It stands in the card like any name. */
const PARTED = /^(.*?\S) \/(?: (.*))?$/;

/** The group a row belongs to by its name; null for none. */
export const groupOf = ({ name }: Pick<Row, "name">): string | null => PARTED.exec(name ?? "")?.[1].trim() ?? null;

/** A row's name without its group. */
export function ownName({ name }: Pick<Row, "name">): string {
  const parted = PARTED.exec(name ?? "");
  return (parted ? (parted[2] ?? "") : (name ?? "")).trim();
}

/** A name put together from a group and a name of its own, either of which may be empty. */
export const groupedName = (group: string, own: string): string =>
  group.trim() ? `${group.trim()} / ${own.trim()}`.trim() : own.trim();

/** Rows that follow one another in one group: a group whose rows stand apart is several runs. */
export interface GroupRun {
  name: string;
  /** Row numbers, from 1. */
  from: number;
  to: number;
}

export function groupRuns(rows: Row[]): GroupRun[] {
  const runs: GroupRun[] = [];
  rows.forEach((row, i) => {
    const name = groupOf(row);
    const last = runs[runs.length - 1];
    if (name === null) return;
    if (last?.name === name && last.to === i) last.to = i + 1;
    else runs.push({ name, from: i + 1, to: i + 1 });
  });
  return runs;
}

/** Edits that switch all rows of a run off, or on again where all are off. */
export function switchedRun(rows: Row[], { from, to }: GroupRun): JobEdit[] {
  const own = rows.slice(from - 1, to);
  const isOn = own.some((r) => !r.off);
  return own.flatMap((r) => (Boolean(r.off) !== isOn ? [{ edit: "switchRow" as const, id: r.id, off: isOn }] : []));
}
