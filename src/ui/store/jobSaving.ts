import type { Patches } from "mutative";
import type { JobDocument, StoredJob } from "@/core/job";
import { keepHistory } from "./history";
import { shownAt, type Get, type JobState, type Set } from "./jobState";
import { reconcile } from "./reconcile";
import { SaveQueue } from "./saveQueue";
import { forgetUnsent, keepAside, type Unsent } from "./unsent";

/** One queue a job, for as long as something of it is unsaved: it outlives the open page of the job. */
export const queues = new Map<string, SaveQueue>();
if (typeof window !== "undefined") {
  window.addEventListener("online", () => queues.forEach((q) => q.flush()));
  window.addEventListener("pagehide", () => queues.forEach((q) => q.flush(true)));
}

/** A queue for a job, which tells the store how its saving stands while that job is open. */
export function queueFor(id: string, base: number, job: JobDocument, set: Set, get: Get): SaveQueue {
  const told = (q: SaveQueue) => {
    if (get().id === q.id) set({ ...q.status, pending: q.pending, revision: q.base });
    else if (!q.pending) queues.delete(q.id);
  };
  const setAside = (left: JobDocument, refused: Unsent) => {
    void keepAside(id, refused).then((leftover) => {
      if (!leftover || get().id !== id) return;
      const { at, job: document, rest } = refused;
      const offer = { key: leftover.key, why: "refused" as const, kept: { leftover }, at, document };
      set({ offered: [...get().offered, { ...offer, fitsOn: null, count: rest.length }] });
    });
    // What could be undone was made of the state that is set aside.
    if (get().id === id) set({ ...shownAt(left, get().part), past: [], future: [] });
  };
  const queue = new SaveQueue(id, base, job, told, setAside);
  queues.set(id, queue);
  return queue;
}

/** Shows a changed document, and has it saved and its history kept. */
export function changed(document: JobDocument, patches: Patches, more: Partial<JobState>, set: Set, get: Get): void {
  const { id, part } = get();
  set({ ...shownAt(document, part), refusal: "", ...more });
  if (id) {
    queues.get(id)?.add(document, patches);
    keepHistory(id, document, get());
  }
  set({ pending: true });
}

/** What this tab had not sent when it was closed, put back where it was. */
export function takeBack(queue: SaveQueue, stored: StoredJob, unsent: Unsent, set: Set, get: Get): void {
  const mine = reconcile(stored, unsent);
  if (mine.kind === "none") return void forgetUnsent(stored.id);
  const job = mine.job ?? stored.job;
  queue.job = job;
  set(shownAt(job, get().part));
  if (mine.kind === "fits") queue.resume(mine.batch, mine.rest, mine.restId);
  else queue.stand(stored);
}
