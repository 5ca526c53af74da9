"use client";
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { copiedText, pastedRows } from "@/core/engine/copiedRows";
import { kindOf } from "@/core/rows";
import { App } from "antd";
import { useEffect, useMemo } from "react";
import { groupRuns, type GroupRun, type Row } from "@/core/job";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { GroupLine } from "./GroupLine";
import { LinkBar } from "./LinkBar";
import { RouteRow } from "./RouteRow";
import { Bare } from "../fields/Bare";
import css from "./Card.module.css";

/**
 * The ruled table of leave and cut rows, with the red-pencil margin. Rows move by dragging or with Alt and the
 * arrows.
 */
export function RouteCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const { message } = App.useApp();
  const runs = useMemo(() => groupRuns(job.rows), [job.rows]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    edit([{ edit: "moveRow", id: String(active.id), to: job.rows.findIndex((r) => r.id === over.id) }], "move row");
  };

  // Copied rows are their text; pasted text becomes rows, after the selected one.
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

  return (
    <div className={css.route}>
      <LinkBar />
      <div className={css.headRow}>
        <span>row</span>
        <span className={css.kindHead}>
          leave / cut <EdgesSwitch />
        </span>
        <span className={css.penHead}>red pencil</span>
      </div>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={job.rows.map((r) => r.id)} strategy={verticalListSortingStrategy}>
          <div
            className={css.rows}
            role={job.rows.length ? "list" : undefined}
            aria-label={job.rows.length ? "Route card" : undefined}
          >
            {job.rows.map((r, i) => (
              <RowInGroup key={r.id} row={r} number={i + 1} run={runs.find((g) => g.from <= i + 1 && i < g.to)} />
            ))}
            {job.rows.length === 0 && (
              <p className={css.none}>
                No rows yet. The first one leaves the base shape: type it above as the print gives it.
              </p>
            )}
          </div>
        </SortableContext>
      </DndContext>
    </div>
  );
}

/** A row, under its group's line where it is the first of it; in a folded group only what is at hand shows. */
function RowInGroup({ row, number, run }: { row: Row; number: number; run: GroupRun | undefined }) {
  const isFolded = useBench((s) => run !== undefined && s.folded.includes(run.name));
  const isAtHand = useBench((s) => s.openRow === row.id || s.focusRow === row.id || s.selected === row.id);
  return (
    <>
      {run?.from === number && <GroupLine run={run} />}
      {(!isFolded || isAtHand) && <RouteRow row={row} number={number} />}
    </>
  );
}

/** All rounds and chamfers off while one programs, and on again. */
function EdgesSwitch() {
  const rows = useJob((s) => s.job!.rows);
  const edit = useJob((s) => s.edit);
  const treated = rows.filter((r) => kindOf(r.body).traits?.edges);
  if (treated.length < 2) return null;
  const isOn = treated.some((r) => !r.off);
  const turn = () =>
    edit(
      treated.filter((r) => Boolean(r.off) !== isOn).map((r) => ({ edit: "switchRow" as const, id: r.id, off: isOn })),
      isOn ? "edges off" : "edges on",
    );
  return (
    <Bare
      className={css.edgesSwitch}
      aria-pressed={isOn}
      onClick={turn}
      title="rounds, chamfers and breaks, all at once"
    >
      edges {isOn ? "off" : "on"}
    </Bare>
  );
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
