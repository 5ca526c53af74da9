import type { NamedPlane } from "../rows";
import type { JobEdit, PartFields } from "./edits";

type PlaneEdit = Extract<JobEdit, { edit: "addPlane" | "setPlane" | "deletePlane" }>;

/** Every mention of a named plane in a row or a plane: the objects themselves, so that a new name can be taken over. */
function mentions(of: unknown): { on: "named"; plane: string }[] {
  if (typeof of !== "object" || of === null) return [];
  const own = "on" in of && of.on === "named" ? [of as { on: "named"; plane: string }] : [];
  return [...own, ...Object.values(of).flatMap(mentions)];
}

/** What uses a plane, in words: rows and other planes. */
export function planeUsers(job: Pick<PartFields, "rows" | "planes">, name: string): string[] {
  const uses = (of: unknown) => mentions(of).some((m) => m.plane.toLowerCase() === name.toLowerCase());
  return [
    ...job.rows.flatMap((r, i) => (uses(r.body) ? [`row ${i + 1}`] : [])),
    ...(job.planes ?? []).flatMap((p) => (uses(p.making) ? [`plane "${p.name}"`] : [])),
  ];
}

/** Adds, changes or deletes a plane. A new name is taken over wherever the old one stood; one that is used cannot go. */
export function planeEdit(part: PartFields, e: PlaneEdit): string | null {
  const planes = [...(part.planes ?? [])];
  const taken = (plane: NamedPlane, but?: string) =>
    planes.some((p) => p.id !== but && (p.id === plane.id || p.name.toLowerCase() === plane.name.toLowerCase()));
  if (e.edit === "addPlane") {
    if (taken(e.plane)) return `plane "${e.plane.name}" is there already`;
    part.planes = [...planes, e.plane];
    return null;
  }
  const i = planes.findIndex((p) => p.id === e.id);
  if (i < 0) return "this plane is gone";
  const old = planes[i].name;
  if (e.edit === "deletePlane") {
    const users = planeUsers(part, old);
    if (users.length) return `plane "${old}" is used by ${users.join(", ")}`;
    planes.splice(i, 1);
    part.planes = planes.length ? planes : undefined;
    return null;
  }
  if (taken(e.plane, e.id)) return `plane "${e.plane.name}" is there already`;
  planes[i] = e.plane;
  part.planes = planes;
  if (e.plane.name !== old)
    for (const m of mentions([part.rows.map((r) => r.body), part.planes.map((p) => p.making)]))
      if (m.plane.toLowerCase() === old.toLowerCase()) m.plane = e.plane.name;
  return null;
}
