import type { Patches } from "mutative";
import { applyEdits, type JobDocument } from "@/core/job";
import { api } from "./api";
import { queues } from "./jobSaving";
import { shownAt, type Get, type JobState, type Set } from "./jobState";
import { lookForReplaced } from "./replaced";
import { forgetLeftover, keepAside, quietly } from "./unsent";

const none = [] as Patches;
const TAKEN = "the other window’s job taken";

/** With the server, so that every window has it; in this browser where that cannot be. */
async function keepReplaced(id: string, job: JobDocument, base: number): Promise<void> {
  const kept = await quietly(() => api.keepLeftover(id, job, base));
  if (!kept) await keepAside(id, { base, batch: null, rest: none, restId: crypto.randomUUID(), job, at: now() });
}
const now = () => new Date().toISOString();

/** Two versions of a job become one again: another window's, or what a closed tab left. */
export const settling = (set: Set, get: Get): Pick<JobState, "settle" | "takeUp" | "letGo" | "lookAside"> => ({
  async settle(keep) {
    get().endTrial("back");
    const { conflict, document, id, part, past } = get();
    const queue = id ? queues.get(id) : undefined;
    if (!conflict || !queue || !document || !id) return;
    // What is replaced lies beside the job first, for both windows: then it may go.
    const replaced = keep === "mine" ? conflict.job : document;
    await keepReplaced(id, replaced, conflict.revision);
    if (get().conflict !== conflict) return;
    if (keep === "theirs") {
      const change = applyEdits(document, [{ edit: "replace", job: conflict.job }]);
      const { patches, inverse } = change.ok ? change.value : { patches: none, inverse: none };
      set({ ...shownAt(conflict.job, part), past: [...past, { patches, inverse, label: TAKEN }], future: [] });
      queue.restart(conflict.revision, conflict.job, none);
    } else {
      const r = applyEdits(conflict.job, [{ edit: "replace", job: document }]);
      if (r.ok) queue.restart(conflict.revision, document, r.value.patches);
    }
    void lookForReplaced(set, get);
  },
  lookAside: () => lookForReplaced(set, get),
  takeUp(o) {
    if (!o.document || get().edit([{ edit: "replace", job: o.document }], "a state that lay beside") !== null) return;
    get().letGo(o);
  },
  letGo(o) {
    set({ offered: get().offered.filter((x) => x !== o) });
    const { id } = get();
    const { kept } = o;
    if ("leftover" in kept) void forgetLeftover(kept.leftover);
    else if (id) void quietly(() => api.dropLeftover(id, kept.server));
  },
});
