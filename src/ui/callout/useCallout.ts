"use client";
import { useMemo, useState } from "react";
import { readCallout, withBalloons, type ReadCallout } from "@/core/callout";
import { numberScope, reportNumbers } from "@/core/engine/numbers";
import type { Job } from "@/core/job";
import { kindOf } from "@/core/rows";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { useGhost } from "./useGhost";

/** Where the next row goes: to the end, or beside the row that is chosen. */
export type Where = "last" | "after" | "before";

/** Whether a text is right as far as it goes. */
export const isUnfinished = (read: Extract<ReadCallout, { ok: false }>, text: string): boolean =>
  read.at >= text.trimEnd().length;

export type Line = ReturnType<typeof useCallout>;

/** The callout being typed: what it says so far, where its rows would go, and putting them there. */
export function useCallout(job: Job) {
  const edit = useJob((s) => s.edit);
  const selected = useBench((s) => s.selected);
  const set = useBench((s) => s.set);
  const [text, setText] = useState("");
  const [where, setWhere] = useState<Where>("last");
  const read = useMemo(() => (text.trim() ? readCallout(text, job, "ghost") : null), [text, job]);
  const row = read?.ok ? read.row : null;
  const numbers = useMemo(() => (row ? reportNumbers(row.body, numberScope(job)) : []), [row, job]);
  const badNumber = numbers.find((n) => n.problem);
  /** Number of the chosen row; 0 for none. */
  const chosen = selected ? job.rows.findIndex((r) => r.id === selected) + 1 : 0;
  const at = !chosen || where === "last" ? job.rows.length : chosen - (where === "before" ? 1 : 0);
  const drawn = useMemo(() => (read?.ok && !badNumber ? [read.row, ...read.more] : null), [read, badNumber]);
  useGhost(drawn, job, at);
  const enter = (keepBalloons = false) => {
    if (!read?.ok) return;
    const said = [read.row, ...read.more];
    const made = keepBalloons ? withBalloons(said, read.toleranced, job) : { rows: said, balloons: [] };
    const balloons = made.balloons.length ? [{ edit: "addBalloons" as const, balloons: made.balloons }] : [];
    const rows = made.rows.map((r) => ({ ...r, id: freshId() }));
    if (edit([...balloons, { edit: "addRows" as const, rows, at }], kindOf(read.row.body).label)) return;
    setText("");
    setWhere("last");
    set({ ghost: null, selected: rows[0].id, showRow: null });
  };
  return { text, setText, where, setWhere, read, numbers, badNumber, chosen, enter };
}
