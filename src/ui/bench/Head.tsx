"use client";
import type { Job } from "@/core/job";
import { stepName, steps, useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { HeadTools } from "./HeadTools";
import { PartChoice } from "./PartChoice";
import { stepNote } from "./stepNotes";
import css from "./Bench.module.css";
import { Mark } from "../common/Mark";
import { Bare } from "../fields/Bare";
import { TextField } from "../fields/TextField";
import { useShallow } from "zustand/react/shallow";

/** Title block, the ruler of the seven steps, and the few tools that belong to the whole job. */
export function Head({ job }: { job: Job }) {
  const edit = useJob((s) => s.edit);
  const { step, set, evaluated } = useBench(useShallow((s) => ({ step: s.step, set: s.set, evaluated: s.evaluated })));
  const paths = useBench((s) => s.planned?.plans.length ?? 0);
  return (
    <header className={css.head}>
      <div className={css.block}>
        <div className={css.mark}>
          <Mark leadsBack />
        </div>
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
          const n = stepNote(s, { job, evaluation: evaluated?.evaluation ?? null, paths });
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
      <HeadTools />
    </header>
  );
}

function HeadField({ value, commit, label }: { value: string; commit: (v: string) => void; label: string }) {
  return (
    <TextField
      variant="borderless"
      className={css.val}
      aria-label={label}
      title={value}
      value={value}
      maxLength={label === "Revision" ? 20 : 120}
      commit={commit}
    />
  );
}
