"use client";
import Link from "next/link";
import { isAboutHolding } from "@/core/findings/holding";
import { releaseState, type Job } from "@/core/job";
import type { Evaluated } from "@/kernel/worker";
import { stepName, steps, useBench, type Step } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { useLight } from "../common/light";
import { goOn, stopEngine } from "../engine/useEngine";
import { PartChoice } from "./PartChoice";
import css from "./Bench.module.css";
import { useEffect, useState } from "react";
import { Bare } from "../fields/Bare";
import { TextField } from "../fields/TextField";
import { useShallow } from "zustand/react/shallow";

const saveWords = {
  saved: "saved",
  saving: "saving …",
  away: "server away, kept here",
  conflict: "changed elsewhere",
  refused: "not saved",
};

/** Title block, the ruler of the seven steps, and the few tools that belong to the whole job. */
export function Head({ job }: { job: Job }) {
  const edit = useJob((s) => s.edit);
  const { step, set, evaluated } = useBench(useShallow((s) => ({ step: s.step, set: s.set, evaluated: s.evaluated })));
  const paths = useBench((s) => s.planned?.plans.length ?? 0);
  return (
    <header className={css.head}>
      <div className={css.block}>
        <Link className={css.mark} href="/" title="back to the shelf">
          <i />
          SGORBIA
        </Link>
        <label style={{ width: 144 }}>
          <span className="lab">Job</span>
          <HeadField
            label="Job name"
            value={job.name}
            commit={(name) => name && edit([{ edit: "setHead", head: { name } }])}
          />
        </label>
        <label style={{ width: 42 }} className={css.rev}>
          <span className="lab">Rev</span>
          <HeadField
            label="Revision"
            value={job.revision}
            commit={(revision) => edit([{ edit: "setHead", head: { revision } }])}
          />
        </label>
        <PartChoice />
        <div style={{ width: 148 }} className={css.unit}>
          <span className="lab">Unit · material</span>
          <span className={css.val} title={job.material.name} style={{ overflow: "hidden", whiteSpace: "nowrap" }}>
            {job.unit} · {job.material.name || "—"}
          </span>
        </div>
      </div>
      <nav className={css.scale} aria-label="Steps of the job">
        {steps.map((s, i) => {
          const n = note(s, job, evaluated, paths);
          return (
            <Bare
              key={s}
              aria-current={step === s ? "step" : undefined}
              onClick={() => set({ step: s, picked: null })}
              title={`key ${i + 1}`}
            >
              {stepName(s)}
              <small className={n.red ? css.red : undefined}>{n.text}</small>
            </Bare>
          );
        })}
      </nav>
      <Tools />
    </header>
  );
}

function HeadField({ value, commit, label }: { value: string; commit: (v: string) => void; label: string }) {
  return (
    <TextField
      variant="borderless"
      className={css.val}
      aria-label={label}
      value={value}
      maxLength={label === "Revision" ? 20 : 120}
      commit={commit}
    />
  );
}

/** What stands under a step's name: how far it is, in the fewest words. */
function note(step: Step, job: Job, e: Evaluated | null, paths: number): { text: string; red?: boolean } {
  const findings = e?.evaluation.findings.filter((f) => !f.waived) ?? [];
  switch (step) {
    case "print":
      return {
        text: job.balloons.length ? `${job.balloons.length} balloon${job.balloons.length === 1 ? "" : "s"}` : "—",
      };
    case "stock": {
      const bad =
        findings.some((f) => f.rule === "outside-stock" && f.severity === "stop") ||
        Boolean(e?.evaluation.stockProblem);
      return { text: bad ? "too small" : job.stock ? `1 ${job.stock.shape}` : "—", red: bad };
    }
    case "shape": {
      const failed = e?.evaluation.solved.rows.filter((r) => r.state === "failed").length ?? 0;
      const n = findings.filter((f) => !isAboutHolding(f.rule) && f.rule !== "outside-stock").length + failed;
      return n
        ? { text: `${n} remark${n === 1 ? "" : "s"}`, red: true }
        : { text: `${job.rows.length} row${job.rows.length === 1 ? "" : "s"}` };
    }
    case "hold": {
      const n = findings.filter((f) => isAboutHolding(f.rule)).length;
      const setups = job.setups?.length ?? 0;
      return n
        ? { text: `${n} remark${n === 1 ? "" : "s"}`, red: true }
        : { text: setups > 1 ? `${setups} setups` : job.hold ? "vise" : setups ? "1 setup" : "—" };
    }
    case "paths":
      return { text: paths ? `${paths} path${paths === 1 ? "" : "s"}` : "—" };
    case "proof": {
      const ledger = e?.evaluation.ledger ?? [];
      const off =
        ledger.filter((l) => l.state === "off").length + (e?.evaluation.checks.filter((c) => !c.agrees).length ?? 0);
      return ledger.length
        ? {
            text: off
              ? `${ledger.filter((l) => l.state === "proved").length}/${ledger.length} ✗${off} off`
              : `${ledger.filter((l) => l.state === "proved").length} / ${ledger.length}`,
            red: off > 0,
          }
        : { text: off ? `${off} off` : "—", red: off > 0 };
    }
    case "release":
      return releaseNote(job);
  }
}

const releaseWords = { draft: "draft", earlier: "draft", released: "released", changed: "changed since" } as const;
function releaseNote(job: Job): { text: string; red?: boolean } {
  const { state } = releaseState(job);
  return { text: releaseWords[state], red: state === "changed" };
}

function Tools() {
  const { undo, redo, past, future, save, message } = useJob(
    useShallow((s) => ({
      undo: s.undo,
      redo: s.redo,
      past: s.past,
      future: s.future,
      save: s.save,
      message: s.message,
    })),
  );
  const { busy, busySince, atRow, engineProblem, checking, reckoner, set } = useBench(
    useShallow((s) => ({
      busy: s.busy,
      busySince: s.busySince,
      atRow: s.atRow,
      engineProblem: s.engineProblem,
      checking: s.checking,
      reckoner: s.reckoner,
      set: s.set,
    })),
  );
  const { light, turn } = useLight();
  const [long, setLong] = useState(false);
  useEffect(() => {
    if (!busy) return setLong(false);
    const t = setTimeout(() => setLong(true), Math.max(0, 1000 - (performance.now() - busySince)));
    return () => clearTimeout(t);
  }, [busy, busySince]);
  return (
    <div className={css.tools}>
      <div>
        <Bare
          disabled={!past.length}
          onClick={undo}
          title={`undo ${past[past.length - 1]?.label ?? ""} (Ctrl Z)`}
          aria-label="Undo"
        >
          undo
        </Bare>
        <Bare
          disabled={!future.length}
          onClick={redo}
          title={`redo ${future[0]?.label ?? ""} (Ctrl Shift Z)`}
          aria-label="Redo"
        >
          redo
        </Bare>
        <Bare
          onClick={() => set({ reckoner: !reckoner })}
          aria-pressed={reckoner}
          title="the arithmetic of the shop: key ="
        >
          reckon
        </Bare>
        <Bare onClick={turn} title="paper or dark">
          {light === "dark" ? "paper" : "dark"}
        </Bare>
      </div>
      <div
        role="status"
        title={message || engineProblem}
        className={save === "saved" || save === "saving" ? undefined : "red"}
      >
        {long ? (
          <>
            {atRow ? `row ${atRow.row} of ${atRow.of}` : "computing …"} <Bare onClick={stopEngine}>stop</Bare>
          </>
        ) : engineProblem ? (
          <>
            <span className="red">{engineProblem.split(";")[0]}</span> <Bare onClick={goOn}>go on</Bare>
          </>
        ) : checking ? (
          "as last computed; being checked"
        ) : (
          saveWords[save]
        )}
      </div>
    </div>
  );
}
