"use client";
import { App } from "antd";
import { useEffect } from "react";
import { copiedText, pastedRows } from "@/core/engine/copiedRows";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

/** Copied rows are their text; pasted text becomes rows, after the selected one. */
export function useClipboard(): void {
  const { message } = App.useApp();
  useEffect(() => {
    const typing = (t: EventTarget | null) =>
      t instanceof HTMLElement && ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName);
    const copy = (e: ClipboardEvent) => {
      const { selected } = useBench.getState();
      const now = useJob.getState().job;
      const row = now?.rows.find((r) => r.id === selected);
      if (!now || !row || typing(e.target) || window.getSelection()?.toString()) return;
      e.clipboardData?.setData("text/plain", copiedText([row], now));
      e.preventDefault();
    };
    const paste = (e: ClipboardEvent) => {
      if (typing(e.target) && (e.target as HTMLElement).id !== "callout-line") return;
      const text = e.clipboardData?.getData("text/plain") ?? "";
      if ((e.target as HTMLElement).id === "callout-line" && !text.trim().includes("\n")) return;
      e.preventDefault();
      const problem = pasteRows(text);
      if (problem) void message.error(problem, 6);
    };
    document.addEventListener("copy", copy);
    document.addEventListener("paste", paste);
    return () => {
      document.removeEventListener("copy", copy);
      document.removeEventListener("paste", paste);
    };
  }, [message]);
}

/** Rows from pasted text, all or none. @returns what is wrong, or null */
function pasteRows(text: string): string | null {
  const { job, edit } = useJob.getState();
  if (!job) return null;
  const read = pastedRows(text, job, freshId);
  if (!read.ok) return `${read.problems[0].message}; expected: ${read.problems[0].expected}`;
  const rows = read.value;
  if (!rows.length) return null;
  const { selected, set } = useBench.getState();
  const at = selected ? job.rows.findIndex((r) => r.id === selected) + 1 : job.rows.length;
  const problem = edit([{ edit: "addRows", rows, at: at || job.rows.length }], "paste");
  set({ selected: rows[rows.length - 1].id });
  return problem;
}
