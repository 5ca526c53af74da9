"use client";
import type { TableProps } from "antd";
import { useShallow } from "zustand/react/shallow";
import { showArea, showLength, showVolume } from "@/core/number";
import type { PathPlan } from "@/core/paths/plan";
import { cribFor, type Cutter } from "@/core/tables";
import { Choice } from "../fields/Choice";
import { RuledTable } from "../fields/RuledTable";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./PathsCard.module.css";
import { pathWords } from "./words";

/** Every path with its cutter, what that leaves, length and time. */
export function PathsTable({ plans }: { plans: PathPlan[] }) {
  const unit = useJob((s) => s.job!.unit);
  const { selected, set } = useBench(useShallow((s) => ({ selected: s.selected, set: s.set })));
  const columns: TableProps<PathPlan>["columns"] = [
    { title: "row", width: 50, render: (_, p) => <span className="num">{p.row}</span> },
    { title: "path", render: (_, p) => <PathCell plan={p} /> },
    { title: "cutter", width: 124, render: (_, p) => <CutterCell plan={p} /> },
    { title: "length", width: 66, align: "right", render: (_, p) => <Figure text={showLength(p.length, unit)} /> },
    { title: "min", width: 44, align: "right", render: (_, p) => <Figure text={p.minutes.toFixed(1)} /> },
  ];
  return (
    <RuledTable
      label="Paths"
      columns={columns}
      dataSource={plans}
      rowKey="rowId"
      rowClassName={(p) => (selected === p.rowId ? css.on : "")}
      onRow={(p) => ({
        onClick: () => set({ selected: selected === p.rowId ? null : p.rowId }),
        "data-path": p.kind,
      })}
    />
  );
}

const Figure = ({ text }: { text: string }) => <span className="num">{text}</span>;

/** What is cut, and in the red pencil what is not. */
function PathCell({ plan: p }: { plan: PathPlan }) {
  const unit = useJob((s) => s.job!.unit);
  const corners = p.rest.loops.length;
  return (
    <>
      {pathWords(p, unit)}
      {p.problem && <em className={css.red}>{p.problem}</em>}
      {p.unplanned.length > 0 && <em className={css.red}>not planned: {p.unplanned.join(", ")}</em>}
      {p.rest.area > 0 && (
        <em className={css.red}>
          rest: {showArea(p.rest.area, unit)} a slice, {showVolume(p.rest.area * p.depth, unit)} in {corners} corner
          {corners === 1 ? "" : "s"}
        </em>
      )}
    </>
  );
}

/** The cutter of a path: chosen by hand, or as proposed. */
function CutterCell({ plan: p }: { plan: PathPlan }) {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  if (p.kind === "drill") return <span className="num">{p.drill ?? "—"}</span>;
  const crib: readonly Cutter[] = job.crib ?? cribFor(job.unit);
  const byHand = job.cutters ?? [];
  const mine = byHand.find((c) => c.row === p.rowId)?.cutter ?? "";
  const choose = (cutter: string) => {
    const rest = byHand.filter((c) => c.row !== p.rowId);
    const cutters = cutter ? [...rest, { row: p.rowId, cutter }] : rest;
    edit([{ edit: "setHead", head: { cutters } }], "cutter");
  };
  return (
    <span onClick={(e) => e.stopPropagation()}>
      <Choice
        className={css.cutter}
        label={`cutter for row ${p.row}`}
        value={mine}
        choose={choose}
        options={[
          { value: "", label: p.cutter && !mine ? `${p.cutter.name} (proposed)` : "propose" },
          ...crib.map((c) => ({ value: c.name, label: `${c.name}, reach ${showLength(c.reach, job.unit)}` })),
        ]}
      />
    </span>
  );
}
