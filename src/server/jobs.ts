import type { LengthUnit } from "@/core/number";
import { problems } from "./problems";
import { randomBytes } from "node:crypto";
import { apply, type Patches } from "mutative";
import { fail, ok, type Problem, type Result } from "@/core/base/result";
import {
  documentOf,
  emptyJob,
  migrated,
  readJob,
  filesNamed,
  readEnclosed,
  type JobDocument,
  type JobSummary,
  type ListedJob,
  type StoredJob,
} from "@/core/job";
import { readCard } from "@/core/callout";
import { keepAttachment } from "./attachments";
import { hashOf } from "./bytes";
import { database, type Database } from "./database";

const newId = () => randomBytes(9).toString("base64url");

interface JobRow {
  id: string;
  document: unknown;
  revision: number;
  changed_at: Date | string;
}
const iso = (d: Date | string) => new Date(d).toISOString();

/** All jobs of the shop, the last changed first; `search` looks in name, material and drawing number. */
export async function listJobs(search = ""): Promise<ListedJob[]> {
  const db = await database();
  const rows = await db.query<JobRow & { summary: JobSummary | null; summary_revision: number | null }>(
    `select j.id, j.document, j.revision, j.changed_at, s.summary, s.revision as summary_revision
       from job j left join job_summary s on s.job_id = j.id
      where j.deleted_at is null
        and ($1 = '' or (j.document->>'name') ilike $2 or (j.document->'material'->>'name') ilike $2 or (j.document->'title'->>'drawing') ilike $2)
      order by j.changed_at desc limit 500`,
    [search, `%${search.replace(/[\\%_]/g, (c) => `\\${c}`)}%`],
  );
  return rows.map((r) => {
    const d = migrated(r.document) as JobDocument;
    return {
      id: r.id,
      name: d.name,
      revision: d.revision,
      unit: d.unit,
      material: d.material.name,
      rows: d.parts.reduce((sum, p) => sum + p.rows.length, 0),
      parts: d.parts.length,
      balloons: d.balloons.length,
      stored: r.revision,
      changedAt: iso(r.changed_at),
      summary: r.summary_revision === r.revision ? r.summary : null,
    };
  });
}

export async function readStored(id: string): Promise<StoredJob | null> {
  const db = await database();
  const [r] = await db.query<JobRow>(
    "select id, document, revision, changed_at from job where id = $1 and deleted_at is null",
    [id],
  );
  if (!r) return null;
  const job = readJob(r.document);
  return job.ok ? stored(db, r, job.value) : null;
}

/**
 * How many of a job's last saves are told to a page that opens it: it finds its own among them when an answer was
 * lost.
 */
const SAVES_TOLD = 100;

/** The shelf's drawing of a job's part, where it has been made for this revision. */
export async function drawnOf(id: string, revision: number): Promise<string | null> {
  const db = await database();
  const [r] = await db.query<{ picture: string | null }>(
    "select summary->>'picture' as picture from job_summary where job_id = $1 and revision = $2",
    [id, revision],
  );
  return r?.picture ?? null;
}

async function stored(db: Database, r: JobRow, job: JobDocument): Promise<StoredJob> {
  const saves = await db.query<{ id: string; revision: number }>(
    "select save_id as id, revision from job_edit where job_id = $1 and save_id is not null order by revision desc limit $2",
    [r.id, SAVES_TOLD],
  );
  return { id: r.id, job, revision: r.revision, changedAt: iso(r.changed_at), saves };
}

export async function createJob(name: string, unit: LengthUnit, material: string): Promise<StoredJob> {
  return insert(documentOf(emptyJob(name, unit, material)));
}

export async function insert(job: JobDocument, into?: Database): Promise<StoredJob> {
  const db = into ?? (await database());
  const id = newId();
  const [r] = await db.query<JobRow>(
    "insert into job (id, document) values ($1, $2) returning id, document, revision, changed_at",
    [id, JSON.stringify(job)],
  );
  return { id, job, revision: r.revision, changedAt: iso(r.changed_at), saves: [] };
}

/** Imports a job's JSON with the files enclosed in it. A file that is none of its job's, or another than it says, is not kept. */
async function importEnclosed(text: string): Promise<Result<StoredJob>> {
  const read = readEnclosed(text);
  if (!read.ok) return read;
  const { job, files } = read.value;
  for (const hash of filesNamed(job)) {
    const bytes = files.get(hash);
    if (!bytes) continue;
    if ((await hashOf(bytes)) !== hash) return fail(problems.fileIsAnother(hash));
    const kept = await keepAttachment(bytes);
    if (!kept.ok) return kept;
  }
  return ok(await insert(job));
}

/** Imports a job's JSON or its card text. Nothing is half-imported: a broken document gives problems and no job. */
export async function importText(text: string): Promise<Result<StoredJob>> {
  if (text.trimStart().startsWith("{") || text.trimStart().startsWith("[")) {
    return importEnclosed(text);
  }
  const card = readCard(text);
  if (card.errors.length) {
    return {
      ok: false,
      problems: card.errors
        .slice(0, 20)
        .map((e): Problem => ({ message: `line ${e.line}, column ${e.column}: ${e.message}`, expected: e.expected })),
    };
  }
  // The document door checks what the card reader made: one gate for every way in.
  const checked = readJob(JSON.parse(JSON.stringify(card.document)));
  return checked.ok ? ok(await insert(checked.value)) : checked;
}

type Saved = { saved: true; revision: number } | { saved: false; conflict: StoredJob };

/**
 * Saves edits made from a revision. When the job has moved on meanwhile nothing is written and the newer job is
 * handed back.
 * @param saveId the save's own id: one that has been done already is answered with the revision it made, and not
 * done again
 */
export async function saveEdits(id: string, base: number, patches: Patches, saveId?: string): Promise<Result<Saved>> {
  const db = await database();
  return db.transaction(async (tx) => {
    const [r] = await tx.query<JobRow>(
      "select id, document, revision, changed_at from job where id = $1 and deleted_at is null for update",
      [id],
    );
    if (!r) return fail(problems.jobGone());
    const [done] =
      saveId === undefined
        ? []
        : await tx.query<{ revision: number }>("select revision from job_edit where job_id = $1 and save_id = $2", [
            id,
            saveId,
          ]);
    if (done) return ok<Saved>({ saved: true, revision: done.revision });
    const now = readJob(r.document);
    if (!now.ok) return now;
    if (r.revision !== base) return ok<Saved>({ saved: false, conflict: await stored(tx, r, now.value) });
    const next = patched(now.value, patches);
    if (!next.ok) return next;
    const checked = readJob(next.value);
    if (!checked.ok) return checked;
    await tx.query("update job set document = $2, revision = revision + 1, changed_at = now() where id = $1", [
      id,
      JSON.stringify(checked.value),
    ]);
    await tx.query("insert into job_edit (job_id, revision, patches, save_id) values ($1, $2, $3, $4)", [
      id,
      base + 1,
      JSON.stringify(patches),
      saveId ?? null,
    ]);
    return ok<Saved>({ saved: true, revision: base + 1 });
  });
}

function patched(job: JobDocument, patches: Patches): Result<unknown> {
  try {
    return ok(apply(job as object, patches));
  } catch {
    return fail(problems.editsDoNotFit());
  }
}

export async function duplicateJob(id: string): Promise<StoredJob | null> {
  const stored = await readStored(id);
  return stored && insert({ ...stored.job, name: `${stored.job.name} (copy)`.slice(0, 120) });
}

/** Deleting only hides: undo brings the job back. */
export async function setDeleted(id: string, deleted: boolean): Promise<boolean> {
  const db = await database();
  const rows = await db.query(
    "update job set deleted_at = case when $2 then now() else null end where id = $1 returning id",
    [id, deleted],
  );
  return rows.length > 0;
}
