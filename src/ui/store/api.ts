import type { Patches } from 'mutative';
import type { Problem } from '@/core/result';
import type { JobSummary, ListedJob, Print, StoredJob } from '@/core/job';
import type { ShopMaterial } from '@/core/tables';

/** What the server said no to, in words for the user. */
export class Refused extends Error {
  constructor(readonly problems: Problem[], readonly status: number) {
    super(problems.map((p) => (p.path ? `${p.path}: ${p.message}` : p.message) + (p.expected ? ` (expected: ${p.expected})` : '')).join('; '));
  }
}

async function call<T>(url: string, init?: RequestInit): Promise<T> {
  const r = await fetch(url, init);
  const data = (await r.json().catch(() => ({ problems: [{ message: `the server answered ${r.status}` }] }))) as T & { problems?: Problem[] };
  if (!r.ok) throw new Refused(data.problems ?? [{ message: `the server answered ${r.status}` }], r.status);
  return data;
}
const json = (method: string, body: unknown): RequestInit => ({ method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

export const api = {
  list: (q: string) => call<{ jobs: ListedJob[] }>(`/api/jobs?q=${encodeURIComponent(q)}`).then((r) => r.jobs),
  create: (name: string, unit: 'in' | 'mm', material: string) => call<StoredJob>('/api/jobs', json('POST', { name, unit, material })),
  importText: (text: string) => call<StoredJob>('/api/jobs', json('POST', { text })),
  read: (id: string) => call<StoredJob>(`/api/jobs/${id}`),
  remove: (id: string) => call<object>(`/api/jobs/${id}`, { method: 'DELETE' }),
  restore: (id: string) => call<object>(`/api/jobs/${id}/restore`, { method: 'POST' }),
  duplicate: (id: string) => call<StoredJob>(`/api/jobs/${id}/duplicate`, { method: 'POST' }),
  summary: (id: string) => call<JobSummary>(`/api/jobs/${id}/summary`),
  attach: (file: Blob) => call<{ hash: string; mediaType: Print['mediaType']; size: number }>('/api/attachments', { method: 'POST', body: file }),
  shopMaterials: () => call<{ materials: ShopMaterial[] }>('/api/shop/materials').then((r) => r.materials),
  keepShopMaterials: (list: ShopMaterial[]) => call<object>('/api/shop/materials', json('PUT', list)),
  /** Saves edits; a conflict hands back the job as it is now. */
  async save(id: string, base: number, patches: Patches): Promise<{ revision: number } | { conflict: StoredJob }> {
    const r = await fetch(`/api/jobs/${id}`, json('PUT', { base, patches }));
    const data = (await r.json()) as { revision: number; problems?: Problem[] } & StoredJob;
    if (r.status === 409) return { conflict: data };
    if (!r.ok) throw new Refused(data.problems ?? [{ message: `the server answered ${r.status}` }], r.status);
    return { revision: data.revision };
  },
};
