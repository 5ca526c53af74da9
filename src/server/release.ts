import { problems } from "./problems";
import { enclosedText, filesNamed, type JobSummary, type JobDocument } from "@/core/job";
import type { ExportKind } from "@/io/exportJob";
import { fail, ok, type Result } from "@/core/base/result";
import { readAttachment } from "./attachments";
import { database } from "./database";
import { readStored } from "./jobs";
import { shopSettings } from "./shop";
import { askKernelHost, type FileOf } from "./kernelDesk";

/** The files of a job's solids, as far as they are kept. */
async function solidFiles(job: JobDocument): Promise<Record<string, Uint8Array>> {
  const all = await filesKept((job.solids ?? []).map((s) => s.attachment));
  return Object.fromEntries(all);
}

async function filesKept(hashes: string[]): Promise<Map<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  for (const hash of hashes) {
    const kept = await readAttachment(hash);
    if (kept) files.set(hash, kept.bytes);
  }
  return files;
}

/** What everything that is made of a job rests on. */
const ground = async (job: JobDocument) => ({ job, files: await solidFiles(job), shop: await shopSettings() });

/** Any file of a job as it is stored. */
export async function fileOf(
  id: string,
  kind: ExportKind,
  of: FileOf = {},
): Promise<{ job: JobDocument; file: Result<Uint8Array> } | null> {
  const stored = await readStored(id);
  if (!stored) return null;
  try {
    // The document goes out with its files, so that it is whole wherever it is opened.
    if (kind === "json") {
      const text = enclosedText(stored.job, await filesKept(filesNamed(stored.job)));
      return { job: stored.job, file: ok(new TextEncoder().encode(text)) };
    }
    return {
      job: stored.job,
      file: await askKernelHost({ want: "file", kind, of, ...(await ground(stored.job)) }),
    };
  } catch (e) {
    return {
      job: stored.job,
      file: fail(problems.fileNotMade(e instanceof Error ? e.message : "unknown reason")),
    };
  }
}

/** The summary of a job, kept with the revision it was made from. */
export async function summaryOf(id: string): Promise<JobSummary | null> {
  const db = await database();
  const stored = await readStored(id);
  if (!stored) return null;
  const [known] = await db.query<{ revision: number; summary: JobSummary }>(
    "select revision, summary from job_summary where job_id = $1",
    [id],
  );
  if (known?.revision === stored.revision) return known.summary;
  const summary = await askKernelHost({ want: "summary", ...(await ground(stored.job)) });
  await keepSummary(id, stored.revision, summary);
  return summary;
}

/** Keeps what the shelf shows of a job at a revision; of one that is no longer the job's, nothing is kept. */
export async function keepSummary(id: string, revision: number, summary: JobSummary): Promise<Result<true>> {
  const db = await database();
  const rows = await db.query(
    `insert into job_summary (job_id, revision, summary)
      select id, revision, $3 from job where id = $1 and revision = $2 and deleted_at is null
      on conflict (job_id) do update set revision = excluded.revision, summary = excluded.summary
      returning job_id`,
    [id, revision, JSON.stringify(summary)],
  );
  return rows.length ? ok(true) : fail(problems.jobMovedOn());
}
