import { outlinesUsed, renamedIn } from "../outline/items";
import { create, type Patches } from "mutative";
import { fail, ok, type Result } from "../base/result";
import type { NumberText } from "../number";
import type { NamedPlane } from "../rows";
import { outlinesNamed, renameOutlines } from "../rows/outlineSource";
import { withNumber } from "../rows/registry";
import { partEdit } from "./partEdits";
import { holdOf, PartDraft } from "./parts";
import { planeEdit } from "./planeEdits";
import type { CheckValue } from "./checkKinds";
import type { Balloon, Hold, Job, JobDocument, Part, Print, Row, Setup, SolidFile, Stock } from "./schema";

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
  | { edit: "setSolids"; solids: SolidFile[] }
  | { edit: "addOutlines"; outlines: Job["outlines"] }
  | { edit: "setOutline"; id: string; outline: Job["outlines"][number] }
  | { edit: "deleteOutline"; id: string }
  | { edit: "addPlane"; plane: NamedPlane }
  | { edit: "setPlane"; id: string; plane: NamedPlane }
  | { edit: "deletePlane"; id: string }
  | { edit: "setNames"; names: Job["names"] }
  | { edit: "setProofs"; proofs: Job["proofs"] }
  | { edit: "waive"; rule: string; row?: string; reason: string }
  | { edit: "unwaive"; rule: string; row?: string }
  | { edit: "addPart"; part: Part }
  | { edit: "setPart"; id: string; part: Partial<Pick<Part, "name" | "kind" | "material" | "places">> }
  | { edit: "deletePart"; id: string }
  /** Row, outline and stock edits of another part than the one that is worked on. */
  | { edit: "ofPart"; part: string; edits: JobEdit[] }
  | { edit: "setSetups"; setups: Setup[] }
  | { edit: "replace"; job: AnyJob };

/** A job as a whole, or as one of its parts is worked on. */
export type AnyJob = Job | JobDocument;
interface Edited<T extends AnyJob = Job> {
  job: T;
  patches: Patches;
  inverse: Patches;
}
/** What row, stock and outline edits change: a part of a document, or the job of one part. */
export type PartFields = Pick<Job, "rows" | "outlines" | "planes" | "checks"> & {
  stock: Job["stock"];
  hold: Hold | null;
};

/**
 * Applies edits to a job, all or none.
 * @param part the part that rows, outlines and stock are of; without it the workpiece
 * @returns the new job with patches forth and back, or why it cannot be done; the old job is untouched
 */
export function applyEdits<T extends AnyJob>(job: T, edits: JobEdit[], part?: string): Result<Edited<T>> {
  let problem: string | null = null;
  const [next, patches, inverse] = create(
    job as AnyJob,
    (draft) => {
      const of: PartFields =
        "parts" in draft ? (new PartDraft(draft as JobDocument, part) as PartFields) : (draft as Job);
      for (const e of edits) problem ??= apply(draft as AnyJob, of, e);
    },
    { enablePatches: true },
  );
  return problem ? fail({ message: problem }) : ok({ job: next as T, patches, inverse });
}

function apply(job: AnyJob, part: PartFields, e: JobEdit): string | null {
  switch (e.edit) {
    case "setHead":
      return assign(job, e.head);
    case "setStock":
      part.stock = e.stock;
      return null;
    case "setHold":
      part.hold = e.hold;
      return null;
    case "addRows":
      if (e.rows.some((r) => part.rows.some((o) => o.id === r.id))) return "a row with this id is there already";
      part.rows.splice(e.at ?? part.rows.length, 0, ...e.rows);
      return null;
    case "deleteRow":
    case "setRow":
    case "setNumber":
    case "nameRow":
    case "switchRow":
    case "moveRow":
      return rowEdit(part.rows, e);
    case "addBalloons":
    case "setBalloon":
    case "deleteBalloon":
    case "moveBalloon":
      return balloonEdit(job.balloons, e);
    case "setChecks":
      part.checks = e.checks;
      return null;
    case "setSolids":
    case "setPrints":
    case "setNames":
    case "setProofs":
      return listEdit(job, e);
    case "addOutlines":
    case "setOutline":
    case "deleteOutline":
      return outlineEdit(part, e);
    case "addPlane":
    case "setPlane":
    case "deletePlane":
      return planeEdit(part, e);
    case "waive":
    case "unwaive":
      return waiverEdit(job, e);
    case "addPart":
    case "setPart":
    case "deletePart":
      return "parts" in job ? partEdit(job, e) : "a job of one part has no others";
    case "ofPart":
      return editsOfPart(job, e);
    case "setSetups":
      return setupsEdit(job, e.setups);
    case "replace":
      // What the other job does not have goes too: a signature is not taken over.
      return assign(job, { ...Object.fromEntries(Object.keys(job).map((k) => [k, undefined])), ...e.job });
  }
}

function editsOfPart(job: AnyJob, { part, edits }: Extract<JobEdit, { edit: "ofPart" }>): string | null {
  if (!("parts" in job)) return "a job of one part has no others";
  if (!job.parts.some((p) => p.id === part)) return "this part is gone";
  const of = new PartDraft(job as JobDocument, part) as PartFields;
  return edits.reduce<string | null>((problem, e) => problem ?? apply(job, of, e), null);
}

/** A list of the job's as a whole. */
function listEdit(
  job: AnyJob,
  { edit: _, ...list }: Extract<JobEdit, { edit: "setSolids" | "setPrints" | "setNames" | "setProofs" }>,
): null {
  return assign(job, list);
}

function waiverEdit(job: AnyJob, e: Extract<JobEdit, { edit: "waive" | "unwaive" }>): null {
  job.waivers = job.waivers.filter((w) => w.rule !== e.rule || w.row !== e.row);
  if (e.edit === "waive") job.waivers.push({ rule: e.rule, ...(e.row ? { row: e.row } : {}), reason: e.reason });
  return null;
}

/** Of a job looked at as one part, what holds it first goes with its setups. */
function setupsEdit(job: AnyJob, setups: Setup[]): null {
  job.setups = setups;
  if (!("parts" in job)) job.hold = holdOf(setups[0]);
  return null;
}

/** Sets fields; what is to be nothing is taken away: a document holds no undefined. */
function assign(job: AnyJob, fields: object): null {
  const open = job as Record<string, unknown>;
  for (const [key, value] of Object.entries(fields)) {
    if (value === undefined) delete open[key];
    else open[key] = value;
  }
  return null;
}

const moved = <T>(list: T[], from: number, to: number): void => {
  const [item] = list.splice(from, 1);
  list.splice(Math.max(0, Math.min(to, list.length)), 0, item);
};

type RowEdit = Extract<JobEdit, { edit: "deleteRow" | "setRow" | "setNumber" | "nameRow" | "switchRow" | "moveRow" }>;
function rowEdit(rows: Row[], e: RowEdit): string | null {
  const i = rows.findIndex((r) => r.id === e.id);
  if (i < 0) return "this row is gone";
  switch (e.edit) {
    case "deleteRow":
      rows.splice(i, 1);
      break;
    case "setRow":
      rows[i].body = e.body;
      break;
    case "setNumber":
      rows[i].body = withNumber(JSON.parse(JSON.stringify(rows[i].body)), e.path, e.text);
      break;
    case "nameRow":
      if (e.name.trim()) rows[i].name = e.name.trim().slice(0, 120);
      else delete rows[i].name;
      break;
    case "switchRow":
      if (e.off) rows[i].off = true;
      else delete rows[i].off;
      break;
    case "moveRow":
      moved(rows, i, e.to);
  }
  return null;
}

type BalloonEdit = Extract<JobEdit, { edit: "addBalloons" | "setBalloon" | "deleteBalloon" | "moveBalloon" }>;
function balloonEdit(balloons: Balloon[], e: BalloonEdit): string | null {
  const find = (n: number) => balloons.findIndex((b) => b.number === n);
  if (e.edit === "addBalloons") {
    for (const b of e.balloons) if (find(b.number) >= 0) return `balloon #${b.number} is there already`;
    balloons.splice(e.at ?? balloons.length, 0, ...e.balloons);
    return null;
  }
  const i = find(e.number);
  if (i < 0) return `balloon #${e.number} is gone`;
  if (e.edit === "deleteBalloon") balloons.splice(i, 1);
  else if (e.edit === "moveBalloon") moved(balloons, i, e.to);
  else {
    if (e.balloon.number !== e.number && find(e.balloon.number) >= 0)
      return `balloon #${e.balloon.number} is there already`;
    balloons[i] = e.balloon;
  }
  return null;
}

/** Changes or deletes an outline. A new name is taken over wherever the old one stood; one that is used cannot go. */
function outlineEdit(
  job: PartFields,
  e: Extract<JobEdit, { edit: "addOutlines" | "setOutline" | "deleteOutline" }>,
): string | null {
  if (e.edit === "addOutlines") {
    for (const o of e.outlines)
      if (job.outlines.some((x) => x.id === o.id || x.name.toLowerCase() === o.name.toLowerCase()))
        return `outline "${o.name}" is there already`;
    job.outlines.push(...e.outlines);
    return null;
  }
  const i = job.outlines.findIndex((o) => o.id === e.id);
  if (i < 0) return "this outline is gone";
  const old = job.outlines[i].name,
    same = (n: string) => n.toLowerCase() === old.toLowerCase();
  const users = [
    ...job.rows.flatMap((r, k) => (outlinesNamed(r.body).some(same) ? [`row ${k + 1}`] : [])),
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
    for (const r of job.rows) renameOutlines(r.body, same, e.outline.name);
    for (const o of job.outlines) for (const it of o.items) renamedIn(it, same, e.outline.name);
  }
  job.outlines[i] = e.outline;
  return null;
}
