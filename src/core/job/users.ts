import type { Job } from "./schema";

/** Whether something kept in a job names a row by its id. */
export const namesRow = (thing: unknown, id: string): boolean => {
  if (typeof thing === "string") return thing === id;
  return typeof thing === "object" && thing !== null && Object.values(thing).some((v) => namesRow(v, id));
};

/** What uses a row, in words: rows that stand on it or take it again, planes and outlines made from it, check values. */
export function usersOf(job: Pick<Job, "rows" | "planes" | "outlines" | "checks">, id: string): string[] {
  return [
    ...job.rows.flatMap((r, i) => (r.id !== id && namesRow(r.body, id) ? [`row ${i + 1}`] : [])),
    ...(job.planes ?? []).flatMap((p) => (namesRow(p.making, id) ? [`plane "${p.name}"`] : [])),
    ...job.outlines.flatMap((o) => (namesRow(o.items, id) ? [`outline "${o.name}"`] : [])),
    ...job.checks.flatMap((c) => (namesRow(c, id) ? [`a check value`] : [])),
  ];
}
