import { useMemo, useState } from "react";
import { namedIn } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import { namesOf } from "@/core/job";
import type { OutlineItem, OutlineText } from "@/core/outline/items";
import { shownOutline } from "../stage/wireframe";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

/** The open outline: as it is computed while it is typed, and what can be done to it. */
export function useOutline(outline: OutlineText) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const set = useBench((s) => s.set);
  const draft = useBench((s) => s.outlineDraft);
  const shapes = useBench((s) => s.evaluated?.evaluation.solved.shapes);
  const [problem, setProblem] = useState("");
  const scope = useMemo(() => numberScope(job), [job]);
  const named = useMemo(() => namedIn(job), [job]);
  const { rows, others } = job;
  const names = useMemo(() => namesOf({ rows, others }), [rows, others]);
  const drawn = useMemo(
    () => shownOutline(job, outline.id, draft, scope, shapes),
    [job, outline.id, draft, scope, shapes],
  );
  const change = (next: OutlineText, label = "outline") =>
    setProblem(edit([{ edit: "setOutline", id: outline.id, outline: next }], label) ?? "");
  const close = () => set({ openOutline: null, outlineDraft: null, outlineSpot: null });
  return {
    job,
    outline,
    scope,
    shapes,
    names,
    named,
    /** As computed, with the line that is being typed. */
    drawn,
    problem,
    change,
    put: (items: OutlineItem[], label?: string) => change({ ...outline, items }, label),
    /** Shows the outline with other lines, while they are typed; null as it stands. */
    typing: (items: OutlineItem[] | null) => set({ outlineDraft: items && { ...outline, items } }),
    close,
    remove(): void {
      const why = edit([{ edit: "deleteOutline", id: outline.id }], "delete outline");
      if (why) setProblem(why);
      else close();
    },
  };
}
export type OpenOutline = ReturnType<typeof useOutline>;
