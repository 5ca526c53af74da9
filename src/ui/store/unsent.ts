import { del, entries, set } from "idb-keyval";
import type { Patches } from "mutative";
import { keepable } from "@/core/base/keepable";
import type { JobDocument } from "@/core/job";
import { openTabs, tabName } from "./tab";

/** Edits on their way to the server under an id of their own, so that a retry is told from a new save. */
export interface Batch {
  id: string;
  patches: Patches;
}

/** Edits the server has not acknowledged; they outlive a closed browser. */
export interface Unsent {
  /** Revision they were made from. */
  base: number;
  /** Sent, and not heard of again. */
  batch: Batch | null;
  /** Not sent yet. */
  rest: Patches;
  /** Id they will be sent under. */
  restId: string;
  /** The job with all of them, as it was on the screen; null in what older versions kept. */
  job: JobDocument | null;
  /** When the last of them was typed. */
  at: string;
  /** Set where the server did not take them. */
  refused?: true;
}

/** What a tab that is closed by now left behind. */
export interface Leftover {
  key: string;
  unsent: Unsent;
}

const prefix = (job: string) => `unsent-${job}`;
const key = async (job: string) => `${prefix(job)}@${await tabName()}`;

/** A browser that keeps nothing (a private window) must not stop the work. */
export async function quietly<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch {
    return undefined;
  }
}

export const keepUnsent = (job: string, unsent: Unsent) => quietly(async () => set(await key(job), unsent));
/** Keeps a state that lies beside the job, under a name that no tab has. */
export const keepAside = (job: string, unsent: Unsent) =>
  quietly(async () => {
    const leftover: Leftover = { key: `${prefix(job)}@aside-${crypto.randomUUID()}`, unsent };
    await set(leftover.key, unsent);
    return leftover;
  });
export const forgetUnsent = (job: string) => quietly(async () => del(await key(job)));
export const forgetLeftover = (leftover: Leftover) => quietly(() => del(leftover.key));

/** What this tab kept of a job, and what tabs that are closed by now left of it. */
export async function readUnsent(job: string): Promise<{ mine: Unsent | null; others: Leftover[] }> {
  const found = await quietly(async () => {
    const own = await key(job);
    const open = await openTabs();
    const all = (await entries<string, Unsent>())
      .filter(([k]) => k === prefix(job) || k.startsWith(`${prefix(job)}@`))
      .map(([k, unsent]) => ({ key: k, unsent: whole(unsent) }));
    const closed = (k: string) => k !== own && !open?.has(k.slice(prefix(job).length + 1));
    return { mine: all.find((l) => l.key === own)?.unsent ?? null, others: all.filter((l) => closed(l.key)) };
  });
  return found ?? { mine: null, others: [] };
}

/** What an older version kept knew only the patches. */
function whole(kept: Partial<Unsent> & { patches?: Patches }): Unsent {
  const none = [] as Patches;
  // Text that cannot be kept was taken by older versions, and then nothing was saved any more.
  return keepable({
    base: kept.base ?? 0,
    batch: kept.batch ?? null,
    rest: kept.rest ?? kept.patches ?? none,
    restId: kept.restId ?? crypto.randomUUID(),
    job: kept.job ?? null,
    at: kept.at ?? "",
    ...(kept.refused ? { refused: kept.refused } : {}),
  });
}
