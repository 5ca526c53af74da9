import { withBalloonKind, withTolerance, type Balloon, type Tolerance } from "@/core/job";
import { useJob } from "../store/jobStore";

/** What can be done to one balloon. */
export function useBalloon(b: Balloon) {
  const unit = useJob((s) => s.job!.unit);
  const edit = useJob((s) => s.edit);
  const set = (next: Balloon) => edit([{ edit: "setBalloon", number: b.number, balloon: next }], "balloon");
  return {
    /** Some fields otherwise; one that is undefined goes. */
    put(change: Partial<Balloon>): void {
      const next = { ...b, ...change };
      for (const k of Object.keys(next) as (keyof Balloon)[]) if (next[k] === undefined) delete next[k];
      set(next);
    },
    setTolerance: (t: Tolerance) => set(withTolerance(b, t)),
    setKind: (kind: Balloon["kind"]) => set(withBalloonKind(b, kind, unit)),
  };
}
