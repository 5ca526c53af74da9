import { fail, ok, type Result } from "../base/result";
import { changedRow, kindOf, repeated, type NamedPlane, type PlaneRef, type RowBody } from "../rows";
import type { JobEdit } from "./edits";
import { rowNames } from "./names";
import { problems } from "./problems";
import type { Job, Row } from "./schema";
import { namesRow } from "./users";

/**
 * Gives one copy of a repeat figures of its own: the copy is left out, and the rows it was made of stand there once
 * more, on planes that follow the repeat. Nothing of the shape changes until one of their numbers does.
 * @param copy counted from the original, which is 1
 */
export function ownCopy(
  job: Pick<Job, "rows" | "planes">,
  id: string,
  copy: number,
  freshId: () => string,
): Result<JobEdit[]> {
  const names = rowNames(job.rows);
  const at = job.rows.findIndex((r) => r.id === id);
  const taken = at < 0 ? null : repeated(job.rows[at].body);
  if (!taken) return fail(problems.noRepeat(`row ${names.numberOf(id)}`));
  if (copy < 2 || taken.skip?.includes(copy)) return fail(problems.copyLeftOut(copy), { path: "skip" });
  const body = changedRow(job.rows[at].body, { skip: [...(taken.skip ?? []), copy].sort((a, b) => a - b) });
  // More than a repeat can make, or leave out.
  if (!body) return fail(problems.noSuchCopy(copy), { path: "skip" });
  const originals = job.rows.filter((r) => taken.rows.includes(r.id));
  const fresh = new Map(originals.map((r) => [r.id, freshId()]));
  const planes = new CopiedPlanes(job.planes ?? [], { copy, row: id }, freshId);
  const rows: Row[] = [];
  for (const original of originals) {
    const own = standing(original, fresh, planes);
    if (!own) return fail(problems.standsOnNoPlane(`row ${names.numberOf(original.id)}`), { path: "rows" });
    rows.push({ ...original, id: fresh.get(original.id)!, body: own });
  }
  return ok([
    ...planes.made.map((plane): JobEdit => ({ edit: "addPlane", plane })),
    { edit: "setRow", id, body },
    { edit: "addRows", at: at + 1, rows },
  ]);
}

/** A row as it stands at the copy; null where it stands on nothing that could go along. */
function standing({ body }: Row, fresh: Map<string, string>, planes: CopiedPlanes): RowBody | null {
  const goesAlong = [...fresh.keys()].some((id) => namesRow(body, id));
  const along = renamed(body, fresh) as RowBody;
  if (goesAlong) return along;
  const { plane } = body as { plane?: PlaneRef };
  // Without a plane a leave row stands on the job's zero, a cut on what is highest.
  const from = plane ?? (kindOf(body).verb === "leave" ? undefined : { on: "top" as const });
  const start = plane?.start === undefined ? {} : { start: plane.start };
  return changedRow(body, { plane: { on: "named", plane: planes.nameOf(from), ...start } });
}

/** What is kept in a row with the names of rows otherwise. */
function renamed(of: unknown, fresh: Map<string, string>): unknown {
  if (typeof of === "string") return fresh.get(of) ?? of;
  if (Array.isArray(of)) return of.map((o) => renamed(o, fresh));
  if (typeof of !== "object" || of === null) return of;
  return Object.fromEntries(Object.entries(of).map(([k, v]) => [k, renamed(v, fresh)]));
}

/** The planes of the originals as the copy has them, one for each. */
class CopiedPlanes {
  readonly made: NamedPlane[] = [];
  private readonly names = new Map<string, string>();
  constructor(
    private readonly there: NamedPlane[],
    private readonly of: { copy: number; row: string },
    private readonly freshId: () => string,
  ) {}

  nameOf(plane: PlaneRef | undefined): string {
    const { start: _, ...from } = plane ?? { on: undefined };
    const key = JSON.stringify(from);
    const known = this.names.get(key);
    if (known) return known;
    const taken = [...this.there, ...this.made].map((p) => p.name.toLowerCase());
    const free = Array.from({ length: taken.length + 1 }, (_, i) => `copy ${this.of.copy}${i ? ` (${i + 1})` : ""}`);
    const name = free.find((n) => !taken.includes(n))!;
    const making: NamedPlane["making"] = { is: "copy", ...this.of, ...(plane && { from: from as PlaneRef }) };
    this.made.push({ id: this.freshId(), name, making });
    this.names.set(key, name);
    return name;
  }
}
