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
import { kindOf } from "@/core/rows";
import { useMemo } from "react";
import { groupRuns, type GroupRun, type Row } from "@/core/job";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { GroupLine } from "./GroupLine";
import { LinkBar } from "./LinkBar";
import { RouteRow } from "./RouteRow";
import { useClipboard } from "./useClipboard";
import { Bare } from "../fields/Bare";
import css from "./Card.module.css";

/**
 * The ruled table of leave and cut rows, with the red-pencil margin. Rows move by dragging or with Alt and the
 * arrows.
 */
export function RouteCard() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    edit([{ edit: "moveRow", id: String(active.id), to: job.rows.findIndex((r) => r.id === over.id) }], "move row");
  };

  useClipboard();
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
          <Rows rows={job.rows} />
        </SortableContext>
      </DndContext>
    </div>
  );
}

function Rows({ rows }: { rows: Row[] }) {
  const runs = useMemo(() => groupRuns(rows), [rows]);
  if (!rows.length)
    return (
      <div className={css.rows}>
        <p className={css.none}>
          No rows yet. The first one leaves the base shape: type it above as the print gives it.
        </p>
      </div>
    );
  return (
    <div className={css.rows} role="list" aria-label="Route card">
      {rows.map((r, i) => (
        <RowInGroup key={r.id} row={r} number={i + 1} run={runs.find((g) => g.from <= i + 1 && i < g.to)} />
      ))}
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
