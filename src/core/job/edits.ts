import { outlinesUsed, renamedIn } from "../outline/items";
import { create, type Patches } from "mutative";
import { fail, ok, type Result } from "../result";
import type { NumberText } from "../number";
import { withNumber } from "../rows/registry";
import type { Balloon, CheckValue, Hold, Job, Print, Row, Stock } from "./schema";

/** Everything that can be done to a job, as named commands. Undo, the saved log and fixes are all made of these. */
export type JobEdit =
  | {
      edit: "setHead";
      head: Partial<Pick<Job, "name" | "revision" | "unit" | "material" | "title" | "crib" | "cutters" | "signOff">>;
    }
  | { edit: "setStock"; stock: Stock | null }
  | { edit: "setHold"; hold: Hold | null }
  | { edit: "addRows"; rows: Row[]; at?: number }
  | { edit: "setRow"; id: string; body: Row["body"] }
  | { edit: "setNumber"; id: string; path: string; text: NumberText | undefined }
  | { edit: "nameRow"; id: string; name: string }
  | { edit: "switchRow"; id: string; off: boolean }
  | { edit: "deleteRow"; id: string }
  | { edit: "moveRow"; id: string; to: number }
  | { edit: "addBalloons"; balloons: Balloon[]; at?: number }
  | { edit: "setBalloon"; number: number; balloon: Balloon }
  | { edit: "deleteBalloon"; number: number }
  | { edit: "moveBalloon"; number: number; to: number }
  | { edit: "setChecks"; checks: CheckValue[] }
  | { edit: "setPrints"; prints: Print[] }
  | { edit: "addOutlines"; outlines: Job["outlines"] }
  | { edit: "setOutline"; id: string; outline: Job["outlines"][number] }
  | { edit: "deleteOutline"; id: string }
  | { edit: "setNames"; names: Job["names"] }
  | { edit: "setProofs"; proofs: Job["proofs"] }
  | { edit: "waive"; rule: string; row?: string; reason: string }
  | { edit: "unwaive"; rule: string; row?: string }
  | { edit: "replace"; job: Job };

export interface Edited {
  job: Job;
  patches: Patches;
  inverse: Patches;
}

/**
 * Applies edits to a job, all or none.
 * @returns the new job with patches forth and back, or why it cannot be done; the old job is untouched
 */
export function applyEdits(job: Job, edits: JobEdit[]): Result<Edited> {
  let problem: string | null = null;
  const [next, patches, inverse] = create(
    job,
    (draft) => {
      for (const e of edits) problem ??= apply(draft as Job, e);
    },
    { enablePatches: true },
  );
  return problem ? fail(problem) : ok({ job: next, patches, inverse });
}

function apply(job: Job, e: JobEdit): string | null {
  const row = (id: string) => job.rows.findIndex((r) => r.id === id);
  const balloon = (n: number) => job.balloons.findIndex((b) => b.number === n);
  switch (e.edit) {
    case "setHead":
      for (const [k, v] of Object.entries(e.head)) {
        // Taken away, not set to nothing: a document holds no undefined.
        if (v === undefined) delete (job as unknown as Record<string, unknown>)[k];
        else (job as unknown as Record<string, unknown>)[k] = v;
      }
      return null;
    case "setStock":
      job.stock = e.stock;
      return null;
    case "setHold":
      job.hold = e.hold;
      return null;
    case "addRows":
      if (e.rows.some((r) => row(r.id) >= 0)) return "a row with this id is there already";
      job.rows.splice(e.at ?? job.rows.length, 0, ...e.rows);
      return null;
    case "deleteRow":
    case "setRow":
    case "setNumber":
    case "nameRow":
    case "switchRow":
    case "moveRow": {
      const i = row(e.id);
      if (i < 0) return "this row is gone";
      if (e.edit === "deleteRow") job.rows.splice(i, 1);
      else if (e.edit === "setRow") job.rows[i].body = e.body;
      else if (e.edit === "setNumber")
        job.rows[i].body = withNumber(JSON.parse(JSON.stringify(job.rows[i].body)), e.path, e.text);
      else if (e.edit === "nameRow") {
        if (e.name.trim()) job.rows[i].name = e.name.trim().slice(0, 120);
        else delete job.rows[i].name;
      } else if (e.edit === "switchRow") {
        if (e.off) job.rows[i].off = true;
        else delete job.rows[i].off;
      } else {
        const [moved] = job.rows.splice(i, 1);
        job.rows.splice(Math.max(0, Math.min(e.to, job.rows.length)), 0, moved);
      }
      return null;
    }
    case "addBalloons":
      for (const b of e.balloons) if (balloon(b.number) >= 0) return `balloon #${b.number} is there already`;
      job.balloons.splice(e.at ?? job.balloons.length, 0, ...e.balloons);
      return null;
    case "setBalloon":
    case "deleteBalloon":
    case "moveBalloon": {
      const i = balloon(e.number);
      if (i < 0) return `balloon #${e.number} is gone`;
      if (e.edit === "deleteBalloon") job.balloons.splice(i, 1);
      else if (e.edit === "moveBalloon") {
        const [moved] = job.balloons.splice(i, 1);
        job.balloons.splice(Math.max(0, Math.min(e.to, job.balloons.length)), 0, moved);
      } else {
        if (e.balloon.number !== e.number && balloon(e.balloon.number) >= 0)
          return `balloon #${e.balloon.number} is there already`;
        job.balloons[i] = e.balloon;
      }
      return null;
    }
    case "setChecks":
      job.checks = e.checks;
      return null;
    case "setPrints":
      job.prints = e.prints;
      return null;
    case "addOutlines":
      for (const o of e.outlines)
        if (job.outlines.some((x) => x.id === o.id || x.name.toLowerCase() === o.name.toLowerCase()))
          return `outline "${o.name}" is there already`;
      job.outlines.push(...e.outlines);
      return null;
    case "setOutline":
    case "deleteOutline":
      return outlineEdit(job, e);
    case "setNames":
      job.names = e.names;
      return null;
    case "setProofs":
      job.proofs = e.proofs;
      return null;
    case "waive":
      job.waivers = job.waivers.filter((w) => w.rule !== e.rule || w.row !== e.row);
      job.waivers.push({ rule: e.rule, ...(e.row ? { row: e.row } : {}), reason: e.reason });
      return null;
    case "unwaive":
      job.waivers = job.waivers.filter((w) => w.rule !== e.rule || w.row !== e.row);
      return null;
    case "replace":
      // What the other job does not have goes too: a signature is not taken over.
      for (const key of Object.keys(job)) if (!(key in e.job)) delete (job as unknown as Record<string, unknown>)[key];
      Object.assign(job, e.job);
      return null;
  }
}

/** Changes or deletes an outline. A new name is taken over wherever the old one stood; one that is used cannot go. */
function outlineEdit(job: Job, e: Extract<JobEdit, { edit: "setOutline" | "deleteOutline" }>): string | null {
  const i = job.outlines.findIndex((o) => o.id === e.id);
  if (i < 0) return "this outline is gone";
  const old = job.outlines[i].name,
    same = (n: string) => n.toLowerCase() === old.toLowerCase();
  const users = [
    ...job.rows.flatMap((r, k) => ("outline" in r.body && same(r.body.outline) ? [`row ${k + 1}`] : [])),
    ...job.outlines.flatMap((o) =>
      o.id !== e.id && o.items.some((it) => outlinesUsed(it).some(same)) ? [`outline "${o.name}"`] : [],
    ),
  ];
  if (e.edit === "deleteOutline") {
    if (users.length) return `"${old}" is used by ${users.join(", ")}`;
    job.outlines.splice(i, 1);
    return null;
  }
  if (!same(e.outline.name)) {
    if (job.outlines.some((o) => o.id !== e.id && o.name.toLowerCase() === e.outline.name.toLowerCase()))
      return `outline "${e.outline.name}" is there already`;
    for (const r of job.rows) if ("outline" in r.body && same(r.body.outline)) r.body.outline = e.outline.name;
    for (const o of job.outlines) for (const it of o.items) renamedIn(it, same, e.outline.name);
  }
  job.outlines[i] = e.outline;
  return null;
}
