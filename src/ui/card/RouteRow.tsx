"use client";
import { Button } from "antd";
import { useSortable } from "@dnd-kit/sortable";
import { ownName, rowNames, type Row } from "@/core/job";
import { writeRow } from "@/core/callout";
import { isTooLargeForEdges } from "@/core/engine/kernel";
import { numberScope, reportNumbers } from "@/core/engine/numbers";
import { rowValues } from "@/core/print/rowValues";
import type { Problem } from "@/core/base/result";
import { kindOf, type RowBody } from "@/core/rows";
import { memo, useEffect, useMemo, useRef, type KeyboardEvent, type RefObject } from "react";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { RedPencil } from "./RedPencil";
import { RowEditor } from "./RowEditor";
import { useRowActions } from "./useRowActions";
import css from "./Card.module.css";
import { Bare } from "../fields/Bare";

/** One row as the print would write it, with its remarks in the margin; it opens in place. */
export const RouteRow = memo(function RouteRow({ row, number }: { row: Row; number: number }) {
  const rows = useJob((s) => s.job!.rows);
  const isSelected = useBench((s) => s.selected === row.id);
  const isOpen = useBench((s) => s.openRow === row.id);
  const isShown = useBench((s) => s.showRow === row.id);
  const set = useBench((s) => s.set);
  const { setNodeRef, listeners, attributes, transform, transition, isDragging } = useSortable({ id: row.id });
  const { keys, open, toggle, ...actions } = useRowActions(row, number);
  const ref = useRef<HTMLDivElement>(null);
  useFocusAsked(row, ref);
  const onKeyDown = (e: KeyboardEvent) => {
    const act = e.target === ref.current ? keys[e.altKey ? `Alt ${e.key}` : e.key] : undefined;
    if (!act) return;
    act();
    e.preventDefault();
  };
  const tones = [
    css.row,
    (isSelected || isShown) && css.on,
    isOpen && css.open,
    row.off && css.off,
    isDragging && css.drag,
  ];
  return (
    <div
      ref={(n) => {
        setNodeRef(n);
        ref.current = n;
      }}
      role="listitem"
      tabIndex={0}
      data-row={number}
      aria-label={`row ${number}: ${writeRow(row, rowNames(rows)).replace(/^OFF /, "")}`}
      aria-current={isSelected || undefined}
      className={tones.filter(Boolean).join(" ")}
      style={{ transform: transform ? `translate3d(0,${transform.y}px,0)` : undefined, transition }}
      onKeyDown={onKeyDown}
      onFocus={(e) => e.target === ref.current && set({ selected: row.id })}
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
      <RowBody row={row} isOpen={isOpen} open={open} toggle={toggle} />
      <RedPencil rowId={row.id} />
      {isOpen && <RowEditor row={row} number={number} {...actions} />}
    </div>
  );
});

/** Takes the keyboard to the row when that is asked for. */
function useFocusAsked(row: Row, ref: RefObject<HTMLDivElement | null>): void {
  const isAsked = useBench((s) => s.focusRow === row.id);
  const set = useBench((s) => s.set);
  useEffect(() => {
    if (!isAsked) return;
    ref.current?.focus();
    set({ focusRow: null });
  }, [isAsked, ref, set]);
}

interface RowBodyProps {
  row: Row;
  isOpen: boolean;
  /** A double press opens it, wherever its first press went. */
  open: () => void;
  toggle: () => void;
}

/** Verb and callout, and why the row cannot be made. */
function RowBody({ row, isOpen, open, toggle }: RowBodyProps) {
  const set = useBench((s) => s.set);
  const solved = useBench((s) => s.evaluated?.evaluation.solved.rows.find((r) => r.row.id === row.id));
  const kind = kindOf(row.body);
  const unsaid = kind.unsaid?.(row.body);
  const said = [kind.verb, ownName(row), row.off && "off"].filter(Boolean).join(" · ");
  return (
    <div className={css.body} onClick={() => set({ selected: row.id })} onDoubleClick={open}>
      <span className={`${css.kind} ${kind.verb === "leave" ? css.leave : css.cut}`}>{said}</span>
      <Bare className={css.call} onClick={toggle} aria-expanded={isOpen}>
        <Callout row={row} />
        {unsaid && <small className={css.unsaid}> {unsaid}</small>}
      </Bare>
      {solved?.state === "failed" && !row.off && (
        <span className={css.failed} role="alert">
          cannot be made: {solved.message} <TakeFitting row={row} failure={solved.failure} />
        </span>
      )}
    </div>
  );
}

/** Where an edge is too small for a round or chamfer, the others can be taken. */
function TakeFitting({ row, failure }: { row: Row; failure: Problem | null }) {
  const edit = useJob((s) => s.edit);
  if (!isTooLargeForEdges(failure) || "fitting" in row.body) return null;
  const body = { ...row.body, fitting: true } as RowBody;
  return (
    <Button size="small" onClick={() => edit([{ edit: "setRow", id: row.id, body }], "those that fit")}>
      take those that fit
    </Button>
  );
}

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
