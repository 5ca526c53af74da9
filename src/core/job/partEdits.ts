import type { JobEdit } from "./edits";
import { partName } from "./parts";
import type { JobDocument, Part } from "./schema";

type PartEdit = Extract<JobEdit, { edit: "addPart" | "setPart" | "deletePart" }>;

/** Parts whose outlines, or whose stations, take another one. */
export function partUsers(job: Pick<JobDocument, "name" | "parts">, part: Part): string[] {
  const name = partName(job, part).toLowerCase();
  const takes = (p: Part) =>
    p.outlines.some((o) => o.items.some((i) => "part" in i && i.part?.toLowerCase() === name)) ||
    (p.places ?? []).some((s) => s.part.toLowerCase() === name);
  return job.parts.flatMap((p) => (p !== part && takes(p) ? [`"${partName(job, p)}"`] : []));
}

/** Adds, changes or deletes a part. A new name is taken over by those that take lines from it. */
export function partEdit(job: JobDocument, e: PartEdit): string | null {
  const taken = (name: string, but?: Part) =>
    job.parts.some((p) => p !== but && partName(job, p).toLowerCase() === name.toLowerCase());
  if (e.edit === "addPart") {
    if (job.parts.some((p) => p.id === e.part.id) || taken(e.part.name))
      return `part "${e.part.name}" is there already`;
    job.parts.push(e.part);
    return null;
  }
  const part = job.parts.find((p) => p.id === e.id);
  if (!part) return "this part is gone";
  if (e.edit === "deletePart") {
    if (part === job.parts[0]) return "the workpiece stays: a job is made of it";
    const users = partUsers(job, part);
    if (users.length) return `part "${part.name}" is used by ${users.join(", ")}`;
    job.parts.splice(job.parts.indexOf(part), 1);
    return null;
  }
  if (e.part.name !== undefined && taken(e.part.name, part)) return `part "${e.part.name}" is there already`;
  const was = partName(job, part).toLowerCase();
  Object.assign(part, e.part);
  if (e.part.name !== undefined)
    for (const p of job.parts) {
      for (const o of p.outlines)
        for (const i of o.items) if ("part" in i && i.part?.toLowerCase() === was) i.part = e.part.name;
      for (const s of p.places ?? []) if (s.part.toLowerCase() === was) s.part = e.part.name;
    }
  return null;
}
