"use client";
import { useSortable } from "@dnd-kit/sortable";
import { App } from "antd";
import { ownName, rowNames, usersOf, type Row } from "@/core/job";
import { writeRow } from "@/core/callout";
import { numberScope, reportNumbers } from "@/core/engine/numbers";
import { rowValues } from "@/core/print/rowValues";
import { kindOf } from "@/core/rows";
import { memo, useEffect, useMemo, useRef } from "react";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { RedPencil } from "./RedPencil";
import { RowEditor } from "./RowEditor";
import css from "./Card.module.css";
import { Bare } from "../fields/Bare";

/** One row as the print would write it, with its remarks in the margin; it opens in place. */
export const RouteRow = memo(function RouteRow({ row, number }: { row: Row; number: number }) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const selected = useBench((s) => s.selected === row.id);
  const open = useBench((s) => s.openRow === row.id);
  const focus = useBench((s) => s.focusRow === row.id);
  const shown = useBench((s) => s.showRow === row.id);
  const set = useBench((s) => s.set);
  const solved = useBench((s) => s.evaluated?.evaluation.solved.rows.find((r) => r.row.id === row.id));
  const { setNodeRef, listeners, attributes, transform, transition, isDragging } = useSortable({ id: row.id });
  const { message } = App.useApp();
  const ref = useRef<HTMLDivElement>(null);
  const text = writeRow(row, rowNames(job.rows)).replace(/^OFF /, "");
  const { verb } = kindOf(row.body);
  const unsaid = kindOf(row.body).unsaid?.(row.body);
  const failed = solved?.state === "failed" && !row.off ? solved : null;

  useEffect(() => {
    if (!focus) return;
    ref.current?.focus();
    set({ focusRow: null });
  }, [focus, set]);

  const remove = () => {
    const used = usersOf(job, row.id);
    edit([{ edit: "deleteRow", id: row.id }], "delete row");
    set({ openRow: null, selected: null, focusRow: job.rows[number]?.id ?? job.rows[number - 2]?.id ?? null });
    if (used.length) void message.warning(`row ${number} was used by ${used.join(", ")}: undo brings it back`, 5);
  };
  const duplicate = () => {
    const id = freshId();
    edit([{ edit: "addRows", rows: [{ ...structuredClone(row), id }], at: number }], "duplicate row");
    set({ selected: id, focusRow: id });
  };
  const move = (by: number) => {
    edit([{ edit: "moveRow", id: row.id, to: Math.max(0, number - 1 + by) }], "move row");
    set({ focusRow: row.id });
  };
  const toggle = () => set({ openRow: open ? null : row.id, selected: row.id });
  const keys = (e: React.KeyboardEvent) => {
    if (e.target !== ref.current) return;
    if (e.altKey && e.key === "ArrowUp") move(-1);
    else if (e.altKey && e.key === "ArrowDown") move(1);
    else if (e.key === "ArrowUp" || e.key === "ArrowDown") {
      const next = job.rows[number - 1 + (e.key === "ArrowUp" ? -1 : 1)];
      if (next) set({ focusRow: next.id, selected: next.id });
    } else if (e.key === "Enter" || e.key === " ") toggle();
    else if (e.key === "Delete") remove();
    else return;
    e.preventDefault();
  };
  return (
    <div
      ref={(n) => {
        setNodeRef(n);
        ref.current = n;
      }}
      role="listitem"
      tabIndex={0}
      data-row={number}
      aria-label={`row ${number}: ${text}`}
      aria-current={selected || undefined}
      className={`${css.row} ${selected || shown ? css.on : ""} ${open ? css.open : ""} ${row.off ? css.off : ""} ${isDragging ? css.drag : ""}`}
      style={{ transform: transform ? `translate3d(0,${transform.y}px,0)` : undefined, transition }}
      onKeyDown={keys}
      onFocus={(e) => {
        if (e.target === ref.current) set({ selected: row.id });
      }}
    >
      <span
        className={css.n}
        {...listeners}
        {...attributes}
        role={undefined}
        tabIndex={-1}
        title="drag to another place"
      >
        {number}
      </span>
      <div className={css.body} onClick={() => set({ selected: row.id })} onDoubleClick={toggle}>
        <span className={`${css.kind} ${verb === "leave" ? css.leave : css.cut}`}>
          {verb}
          {ownName(row) ? ` · ${ownName(row)}` : ""}
          {row.off ? " · off" : ""}
        </span>
        <Bare className={css.call} onClick={toggle} aria-expanded={open}>
          <Callout row={row} />
          {unsaid && <small className={css.unsaid}> {unsaid}</small>}
        </Bare>
        {failed && (
          <span className={css.failed} role="alert">
            cannot be made: {failed.message}
          </span>
        )}
      </div>
      <RedPencil rowId={row.id} />
      {open && <RowEditor row={row} number={number} duplicate={duplicate} remove={remove} move={move} />}
    </div>
  );
});

/** The row's callout with its values; the balloons they come from stand small beside them. */
function Callout({ row }: { row: Row }) {
  const job = useJob((s) => s.job)!;
  const { rows, balloons, names, unit, title } = job;
  const pieces = useMemo(() => {
    const scope = numberScope({ balloons, names, unit, title });
    return rowValues(row, reportNumbers(row.body, scope), { balloons, unit }, rowNames(rows));
  }, [row, rows, balloons, names, unit, title]);
  return pieces.map((p, i) =>
    p.typed === undefined ? (
      p.text
    ) : (
      <span key={i} className={css.value} data-cites={p.balloons.join(" ")} title={p.typed}>
        {p.text}
      </span>
    ),
  );
}
