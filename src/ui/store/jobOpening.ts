import type { StoredJob } from "@/core/job";
import { readHistory } from "./history";
import { queueFor, queues, takeBack } from "./jobSaving";
import { lookForReplaced } from "./replaced";
import { closed, shownAt, type Get, type JobState, type Offered, type Set } from "./jobState";
import { reconcile } from "./reconcile";
import { forgetLeftover, readUnsent, type Leftover } from "./unsent";

/** A job comes onto the bench, another part of it, and leaves again. */
export const opening = (set: Set, get: Get): Pick<JobState, "open" | "showPart" | "close"> => ({
  async open(stored) {
    // What this page still has on its way is ahead of what the server told.
    const going = queues.get(stored.id);
    const left = await readUnsent(stored.id);
    const queue = going?.pending ? going : queueFor(stored.id, stored.revision, stored.job, set, get);
    const offered = left.others.flatMap((l) => offer(stored, l));
    set({
      ...closed,
      id: stored.id,
      ...shownAt(queue.job, null),
      revision: queue.base,
      offered,
      ...queue.status,
      pending: queue.pending,
    });
    if (queue !== going && left.mine) takeBack(queue, stored, left.mine, set, get);
    void lookForReplaced(set, get);
    const history = await readHistory(stored.id, queue.job);
    // What was changed meanwhile has a history of its own.
    if (get().id === stored.id && !get().past.length && get().document === queue.job) set(history);
  },
  showPart(id) {
    const { document, trial } = get();
    if (document && !trial) set(shownAt(document, id === document.parts[0].id ? null : id));
  },
  close() {
    const { id } = get();
    set(closed);
    const queue = id ? queues.get(id) : undefined;
    if (!queue) return;
    queue.flush();
    if (!queue.pending) queues.delete(queue.id);
  },
});

/** What a closed tab left, if the server does not have it all by now. */
function offer(stored: StoredJob, leftover: Leftover): Offered[] {
  const r = reconcile(stored, leftover.unsent);
  if (r.kind === "none") {
    void forgetLeftover(leftover);
    return [];
  }
  const count = r.kind === "apart" ? r.count : (r.batch?.patches.length ?? 0) + r.rest.length;
  return [
    {
      key: leftover.key,
      why: leftover.unsent.refused ? "refused" : "closed",
      kept: { leftover },
      at: leftover.unsent.at,
      document: r.job,
      fitsOn: r.kind === "fits" ? stored.job : null,
      count,
    },
  ];
}
