import { evaluate, type Evaluation } from '@/core/engine/evaluate';
import type { Patience } from '@/core/engine/solve';
import { viewOf } from '@/core/engine/views';
import type { Job, JobSummary } from '@/core/job';
import { exportJob, type ExportKind } from '@/io/exportJob';
import { drawingSvg } from '@/io/svg';
import { loadKernel } from '@/kernel/node';
import { fail, type Result } from '@/core/result';
import { database } from './database';
import { readStored } from './jobs';

// One evaluation at a time: the kernel is one, and a second would only wait for it.
let queue: Promise<unknown> = Promise.resolve();
function oneByOne<T>(work: () => Promise<T>): Promise<T> {
  const next = queue.then(work, work);
  queue = next.catch(() => {});
  return next;
}

/** Other requests come in between the rows: a save must not wait for a picture of the shelf. */
const considerate: Patience = { pause: () => new Promise((resolve) => setImmediate(resolve)), cancelled: () => false };

const evaluateHere = async (job: Job): Promise<{ evaluation: Evaluation; kernel: Awaited<ReturnType<typeof loadKernel>> }> => {
  const kernel = await loadKernel();
  return { evaluation: await evaluate(job, kernel, { patience: considerate }), kernel };
};

export function fileOf(id: string, kind: ExportKind): Promise<{ job: Job; file: Result<Uint8Array> } | null> {
  return oneByOne(async () => {
    const stored = await readStored(id);
    if (!stored) return null;
    try {
      const { evaluation, kernel } = await evaluateHere(stored.job);
      return { job: stored.job, file: await exportJob(kind, stored.job, evaluation, kernel) };
    } catch (e) {
      return { job: stored.job, file: fail(`the file could not be made: ${e instanceof Error ? e.message : 'unknown reason'}`) };
    }
  });
}

/** The summary of a job, kept with the revision it was made from. */
export function summaryOf(id: string): Promise<JobSummary | null> {
  return oneByOne(async () => {
    const db = await database();
    const stored = await readStored(id);
    if (!stored) return null;
    const [known] = await db.query<{ revision: number; summary: JobSummary }>('select revision, summary from job_summary where job_id = $1', [id]);
    if (known?.revision === stored.revision) return known.summary;
    const { evaluation, kernel } = await evaluateHere(stored.job);
    await considerate.pause();
    const summary = summarise(evaluation, kernel);
    await db.query(
      'insert into job_summary (job_id, revision, summary) values ($1, $2, $3) on conflict (job_id) do update set revision = excluded.revision, summary = excluded.summary',
      [id, stored.revision, JSON.stringify(summary)],
    );
    return summary;
  });
}

function summarise(e: Evaluation, kernel: Awaited<ReturnType<typeof loadKernel>>): JobSummary {
  const key = e.solved.finalKey;
  const open = e.findings.filter((f) => !f.waived);
  const count = (s: string) => open.filter((f) => f.severity === s).length;
  return {
    picture: key === null ? null : drawingSvg(kernel.drawing(key, viewOf.pictorial, false), { stroke: 'currentColor', pixels: 260 }),
    stops: count('stop'), cautions: count('caution'), notes: count('note'), failed: e.solved.rows.filter((r) => r.state === 'failed').length,
    proved: e.ledger.filter((l) => l.state === 'proved').length, off: e.ledger.filter((l) => l.state === 'off').length, balloons: e.ledger.length,
    checksOff: e.checks.filter((c) => !c.agrees).length, checks: e.checks.length,
  };
}
