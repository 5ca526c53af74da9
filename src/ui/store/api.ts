import type { LengthUnit } from "@/core/number";
import type { Patches } from "mutative";
import type { Problem } from "@/core/base/result";
import type { JobDocument, JobSummary, KeptLeftover, ListedJob, Print, ShelfCopy, StoredJob } from "@/core/job";
import type { ShopMaterial, ShopSettings } from "@/core/tables";

/** What the server said no to, in words for the user. */
export class Refused extends Error {
  constructor(
    readonly problems: Problem[],
    readonly status: number,
  ) {
    super(
      problems
        .map((p) => (p.path ? `${p.path}: ${p.message}` : p.message) + (p.expected ? ` (expected: ${p.expected})` : ""))
        .join("; "),
    );
  }
}

async function call<T>(url: string, init?: RequestInit): Promise<T> {
  const r = await fetch(url, init);
  const data = (await r.json().catch(() => ({ problems: [{ message: `the server answered ${r.status}` }] }))) as T & {
    problems?: Problem[];
  };
  if (!r.ok) throw new Refused(data.problems ?? [{ message: `the server answered ${r.status}` }], r.status);
  return data;
}
const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});

interface Attached {
  hash: string;
  mediaType: Print["mediaType"] | "model/step";
  size: number;
}

/** Sends a file with its own hash, and compares what the server kept with it: whole, or not at all. */
async function attach(file: Blob): Promise<Attached> {
  const hash = await sha256(file);
  const headers: Record<string, string> = hash === null ? {} : { "x-content-sha256": hash };
  const kept = await call<Attached>("/api/attachments", { method: "POST", body: file, headers });
  if (kept.size !== file.size || (hash !== null && kept.hash !== hash))
    throw new Refused(
      [{ message: `the server kept ${kept.size} of ${file.size} bytes`, expected: "the whole file; send it again" }],
      502,
    );
  return kept;
}
/**
 * Null where the browser gives no digest (an address that is not this computer's own, without https): the length is
 * compared all the same.
 */
async function sha256(file: Blob): Promise<string | null> {
  if (!globalThis.crypto?.subtle) return null;
  const digest = new Uint8Array(await crypto.subtle.digest("SHA-256", await file.arrayBuffer()));
  return [...digest].map((b) => b.toString(16).padStart(2, "0")).join("");
}

export const api = {
  list: (q: string) => call<{ jobs: ListedJob[] }>(`/api/jobs?q=${encodeURIComponent(q)}`).then((r) => r.jobs),
  create: (name: string, unit: LengthUnit, material: string) =>
    call<StoredJob>("/api/jobs", json("POST", { name, unit, material })),
  importText: (text: string) => call<StoredJob>("/api/jobs", json("POST", { text })),
  read: (id: string) => call<StoredJob>(`/api/jobs/${id}`),
  remove: (id: string) => call<object>(`/api/jobs/${id}`, { method: "DELETE" }),
  restore: (id: string) => call<object>(`/api/jobs/${id}/restore`, { method: "POST" }),
  duplicate: (id: string) => call<StoredJob>(`/api/jobs/${id}/duplicate`, { method: "POST" }),
  summary: (id: string) => call<JobSummary>(`/api/jobs/${id}/summary`),
  keepSummary: (id: string, revision: number, summary: JobSummary) =>
    call<object>(`/api/jobs/${id}/summary`, json("PUT", { revision, summary })),
  leftovers: (id: string) => call<{ leftovers: KeptLeftover[] }>(`/api/jobs/${id}/leftovers`).then((r) => r.leftovers),
  keepLeftover: (id: string, job: JobDocument, base: number) =>
    call<{ id: string }>(`/api/jobs/${id}/leftovers`, json("POST", { job, base })),
  dropLeftover: (id: string, leftover: string) =>
    call<object>(`/api/jobs/${id}/leftovers/${leftover}`, { method: "DELETE" }),
  attach: (file: Blob) => attach(file),
  copies: () => call<{ copies: ShelfCopy[]; folder: string }>("/api/shelf/copies"),
  makeCopy: () => call<{ copy: ShelfCopy }>("/api/shelf/copies", { method: "POST" }).then((r) => r.copy),
  putBack: (name: string) =>
    call<{ rows: number; kept: ShelfCopy }>(`/api/shelf/copies/${name}/restore`, { method: "POST" }),
  shopSettings: () => call<{ settings: ShopSettings }>("/api/shop/settings").then((r) => r.settings),
  keepShopSettings: (settings: ShopSettings, from: string) =>
    call<{ settings: ShopSettings }>("/api/shop/settings", json("PUT", { settings, from })).then((r) => r.settings),
  shopMaterials: () => call<{ materials: ShopMaterial[] }>("/api/shop/materials").then((r) => r.materials),
  keepShopMaterials: (list: ShopMaterial[]) => call<object>("/api/shop/materials", json("PUT", list)),
  /**
   * Saves edits under an id of their own; a conflict hands back the job as it is now.
   * @param leaving the page is going: the request outlives it
   */
  async save(
    id: string,
    base: number,
    patches: Patches,
    save: string,
    leaving = false,
  ): Promise<{ revision: number } | { conflict: StoredJob }> {
    const r = await fetch(`/api/jobs/${id}`, { ...json("PUT", { base, save, patches }), keepalive: leaving });
    const data = (await r.json().catch(() => ({}))) as { revision: number; problems?: Problem[] } & StoredJob;
    if (r.status === 409) return { conflict: data };
    if (!r.ok || typeof data.revision !== "number")
      throw new Refused(data.problems ?? [{ message: `the server answered ${r.status}` }], r.ok ? 500 : r.status);
    return { revision: data.revision };
  },
};
