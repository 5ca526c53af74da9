"use client";
import { useDraggable } from "@dnd-kit/core";
import type { Job, Setup } from "@/core/job";
import type { SetupView } from "@/core/setups";
import { Bare } from "../fields/Bare";
import { useSetups } from "../store/setupsStore";
import css from "./HoldCard.module.css";
import { holdingWords } from "@/core/job";
import { upWords } from "./setupWords";

interface Props {
  setup: Setup;
  job: Job;
  view: SetupView | null;
  isOpen: boolean;
  open: () => void;
}

/** A setup in a line: machine, which way is up, how it is held, its rows, how long it takes. Rows are dropped on it. */
export function SetupLine({ setup, job, view, isOpen, open }: Props) {
  const numberOf = (id: string) => job.rows.findIndex((r) => r.id === id) + 1;
  return (
    <>
      <Bare className={css.line} aria-expanded={isOpen} aria-label={`Setup ${setup.op}`} onClick={open}>
        <span className={css.op}>{setup.op}</span>
        <span className={css.how}>
          {setup.machine === "index" ? "mill, index head" : setup.machine}, {upWords(setup.up)} up
        </span>
        <span className={css.time}>{view && view.minutes > 0 ? view.minutes.toFixed(1) : "—"}</span>
        <span className={css.soft}>{holdingWords(setup.hold)}</span>
        <span className={css.soft} style={{ gridColumn: 3 }}>
          {view?.cutters.length ? `${view.cutters.length} cutter${view.cutters.length === 1 ? "" : "s"}` : ""}
        </span>
      </Bare>
      {setup.rows && (
        <div className={css.rows} aria-label={`Rows of setup ${setup.op}`}>
          {setup.rows.map((id) => (
            <RowChip key={id} row={id} number={numberOf(id)} op={setup.op} />
          ))}
        </div>
      )}
    </>
  );
}

/** A row of a setup: dragged to another one, by mouse or by keyboard. */
function RowChip({ row, number, op }: { row: string; number: number; op: number }) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: `${op}/${row}`, data: { row, op } });
  const access = useSetups((s) => s.view?.access.find((a) => a.row === number));
  const why = access
    ? `reached whole from ${access.from.join(", ") || "no single side"}; not from ${access.not.join(", ") || "nowhere"}`
    : "";
  return (
    <span
      ref={setNodeRef}
      className={css.chip}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 2 } : undefined}
      title={why}
      {...listeners}
      {...attributes}
      aria-label={`Row ${number} of setup ${op}`}
    >
      {number}
    </span>
  );
}
