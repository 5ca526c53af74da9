import type { Patches } from "mutative";
import { applyEdits } from "@/core/job";
import { queues } from "./jobSaving";
import { shownAt, type Get, type JobState, type Set } from "./jobState";
import { forgetLeftover } from "./unsent";

/** Two versions of a job become one again: another window's, or what a closed tab left. */
export const settling = (set: Set, get: Get): Pick<JobState, "settle" | "takeUp" | "letGo"> => ({
  settle(keep) {
    get().endTrial("back");
    const { conflict, document, id, part } = get();
    const queue = id ? queues.get(id) : undefined;
    if (!conflict || !queue || !document) return;
    if (keep === "theirs") {
      set({ ...shownAt(conflict.job, part), past: [], future: [] });
      queue.restart(conflict.revision, conflict.job, [] as Patches);
      return;
    }
    const r = applyEdits(conflict.job, [{ edit: "replace", job: document }]);
    if (r.ok) queue.restart(conflict.revision, document, r.value.patches);
  },
  takeUp(o) {
    if (!o.document || get().edit([{ edit: "replace", job: o.document }], "taken up from a closed window") !== null)
      return;
    get().letGo(o);
  },
  letGo(o) {
    set({ offered: get().offered.filter((x) => x !== o) });
    void forgetLeftover(o.leftover);
  },
});
