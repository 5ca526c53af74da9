"use client";
import { Button } from "antd";
import { useEffect, useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import { writeBalloonText } from "@/core/callout";
import type { Evaluation } from "@/core/evaluate";
import type { Balloon } from "@/core/job";
import { setMeasure } from "../bench/actions";
import { Section } from "../common/Section";
import { Bare } from "../fields/Bare";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { limitsText, measuredFigure } from "./figures";
import css from "./Proof.module.css";
import { Claims } from "./Claims";
import { StateMark } from "./StateMark";

type Entry = Evaluation["ledger"][number];

/** Every balloon against what was measured of it on the solid. */
export function LedgerProof({ ledger }: { ledger: Entry[] }) {
  const balloons = useJob((s) => s.job!.balloons);
  const balloon = useBench((s) => s.balloon);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (balloon !== null)
      list.current?.querySelector(`[data-balloon="${balloon}"]`)?.scrollIntoView({ block: "nearest" });
  }, [balloon]);
  return (
    <Section title="Ledger against the model" aside="printed · measured on the solid">
      {balloons.length === 0 && (
        <p className="soft" style={{ margin: 0 }}>
          No balloons yet: the ledger is filled on the Print step.
        </p>
      )}
      <div ref={list}>
        {balloons.map((b) => (
          <Proved key={b.number} balloon={b} entry={ledger.find((l) => l.number === b.number)} />
        ))}
      </div>
    </Section>
  );
}

/** What a closed line says besides: what is wrong with the balloon, else what was found. */
function Closed({ balloon: b, entry: l }: { balloon: Balloon; entry: Entry }) {
  if (l.problem) return <small className={css.bad}>{l.problem}</small>;
  const isSaid = l.by && (l.state !== "unused" || b.measure || l.elsewhere !== undefined);
  return isSaid ? <small>{l.by}</small> : null;
}

/** One balloon in a line; opened, with its limits and how it is measured. */
function Proved({ balloon: b, entry: l }: { balloon: Balloon; entry: Entry | undefined }) {
  const job = useJob((s) => s.job)!;
  const { set, open } = useBench(useShallow((s) => ({ set: s.set, open: s.balloon === b.number })));
  const toggle = () =>
    set({
      balloon: open ? null : b.number,
      claimed: null,
      ...(l?.rows.length ? { selected: job.rows[l.rows[0] - 1]?.id ?? null } : {}),
    });
  return (
    <div className={`${css.entry} ${open ? css.open : ""}`} data-balloon={b.number}>
      <Bare className={css.row} aria-expanded={open} onClick={toggle}>
        <b>{b.number}</b>
        <span className="num">{writeBalloonText({ ...b, note: undefined, zone: undefined })}</span>
        <span className="num">{l ? measuredFigure(b, l, job) : "…"}</span>
        {l && <StateMark state={l.state} />}
        {l && !(open && l.claims.length) && <Closed balloon={b} entry={l} />}
      </Bare>
      {open && l && <HowProved balloon={b} entry={l} />}
    </div>
  );
}

function HowProved({ balloon: b, entry: l }: { balloon: Balloon; entry: Entry }) {
  const job = useJob((s) => s.job)!;
  const { set, isPicking } = useBench(useShallow((s) => ({ set: s.set, isPicking: s.picking?.balloon === b.number })));
  const said = [
    limitsText(b, l, job),
    l.rows.length ? `drives row ${l.rows.join(", ")}` : "nothing in the model is made from it",
    l.state === "stale" ? "changed since it was recorded; record the proof again when it is right" : "",
  ];
  const pick = () =>
    set({
      picking: { balloon: b.number, first: null },
      measuring: false,
      ...(useBench.getState().view === "section" ? { view: "pictorial" as const } : {}),
    });
  return (
    <div className={css.more}>
      <p>{said.filter(Boolean).join("; ")}</p>
      {l.claims.length > 0 && <Claims claims={l.claims} />}
      {b.kind !== "thread" && b.kind !== "count" && (
        <Button size="small" aria-pressed={isPicking} onClick={pick}>
          {b.measure ? "pick it anew" : "measure it on the stage"}
        </Button>
      )}
      {b.measure && (
        <Button size="small" onClick={() => setMeasure(b.number, null)}>
          find it by itself
        </Button>
      )}
      {b.place && (
        <Button size="small" onClick={() => set({ step: "print" })}>
          show on the print
        </Button>
      )}
    </div>
  );
}
