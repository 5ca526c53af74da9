"use client";
import { useEffect, useRef } from "react";
import { writeBalloonText } from "@/core/callout";
import type { Balloon } from "@/core/job";
import { Bare } from "../fields/Bare";
import { StateMark } from "../proof/StateMark";
import { useBench } from "../store/benchStore";
import { BalloonActions } from "./BalloonActions";
import { BalloonFields } from "./BalloonFields";
import css from "./PrintCard.module.css";

/** One balloon of the ledger; it opens in place. */
export function BalloonRow({
  balloon: b,
  index,
  open,
  toggle,
}: {
  balloon: Balloon;
  index: number;
  open: boolean;
  toggle: () => void;
}) {
  const state = useBench((s) => s.evaluated?.evaluation.ledger.find((l) => l.number === b.number)?.state);
  const looked = useBench((s) => s.balloon === b.number);
  const mine = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (looked) mine.current?.scrollIntoView({ block: "nearest" });
  }, [looked]);
  return (
    <div
      role="listitem"
      className={`${css.row} ${open ? css.open : ""} ${looked ? css.looked : ""}`}
      data-balloon={b.number}
      ref={mine}
    >
      <Bare className={css.line} onClick={toggle} aria-expanded={open}>
        <b className={css.balloon}>{b.number}</b>
        <span className={css.text}>
          {writeBalloonText({ ...b, note: undefined })}
          {b.note && <i> {b.note}</i>}
        </span>
        {state && <StateMark state={state} />}
      </Bare>
      {open && (
        <div className={css.editor}>
          <BalloonFields balloon={b} />
          <BalloonActions balloon={b} index={index} />
        </div>
      )}
    </div>
  );
}
