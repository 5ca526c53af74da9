"use client";
import type { TableProps, TableRef } from "antd/es/table";
import { useEffect, useRef, useState, type HTMLAttributes } from "react";
import { writeBalloonText } from "@/core/callout";
import type { Balloon } from "@/core/job";
import { Bare } from "../fields/Bare";
import { RuledTable } from "../fields/RuledTable";
import { StateMark } from "../proof/StateMark";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { BalloonActions } from "./BalloonActions";
import { BalloonFields } from "./BalloonFields";
import css from "./PrintCard.module.css";

/** The balloon ledger, a line each; a line opens in place. */
export function LedgerTable() {
  const balloons = useJob((s) => s.job!.balloons);
  const looked = useBench((s) => s.balloon);
  const setBench = useBench((s) => s.set);
  const [open, setOpen] = useState<number | null>(null);
  const table = useSight(looked);
  const toggle = (n: number) => {
    setOpen(open === n ? null : n);
    setBench({ balloon: looked === n && open === n ? null : n });
  };
  const columns: TableProps<Balloon>["columns"] = [
    { title: "no.", width: 46, render: (_, b) => <b className={css.balloon}>{b.number}</b> },
    {
      title: "dimension",
      render: (_, b) => (
        <Bare className={css.line} onClick={() => toggle(b.number)} aria-expanded={open === b.number}>
          {writeBalloonText({ ...b, note: undefined })}
          {b.note && <i> {b.note}</i>}
        </Bare>
      ),
    },
    { title: "proof", width: 92, align: "right", render: (_, b) => <Proof number={b.number} /> },
  ];
  if (!balloons.length) return null;
  return (
    <RuledTable
      label="Balloons"
      columns={columns}
      dataSource={balloons}
      rowKey="number"
      table={table}
      rowClassName={(b) => `${open === b.number ? css.open : ""} ${looked === b.number ? css.looked : ""}`}
      onRow={(b) => ({ "data-balloon": b.number }) as HTMLAttributes<HTMLElement>}
      expandable={{
        expandedRowKeys: open === null ? [] : [open],
        showExpandColumn: false,
        expandedRowClassName: () => css.opened,
        expandedRowRender: (b) => (
          <div className={css.editor} data-balloon-editor={b.number}>
            <BalloonFields balloon={b} />
            <BalloonActions balloon={b} index={balloons.indexOf(b)} />
          </div>
        ),
      }}
    />
  );
}

function Proof({ number }: { number: number }) {
  const state = useBench((s) => s.evaluated?.evaluation.ledger.find((l) => l.number === number)?.state);
  return state ? <StateMark state={state} /> : null;
}

/** Brings the line of the balloon that is looked at into sight, drawn already or not. */
function useSight(looked: number | null) {
  const table = useRef<TableRef>(null);
  useEffect(() => {
    if (looked === null) return;
    const line = table.current?.nativeElement.querySelector(`[data-balloon="${looked}"]`);
    if (line) line.scrollIntoView({ block: "nearest" });
    else table.current?.scrollTo({ key: looked });
  }, [looked]);
  return table;
}
