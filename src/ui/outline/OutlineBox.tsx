"use client";
import { useId } from "react";
import { Choice, asWritten } from "../fields/Choice";
import { useJob } from "../store/jobStore";
import box from "../common/NumberBox.module.css";

/** Which outline a row is made from. */
export function OutlineBox({ label, value, choose }: { label: string; value: string; choose: (name: string) => void }) {
  const job = useJob((s) => s.job)!;
  const id = useId();
  const there = job.outlines.some((o) => o.name.toLowerCase() === value.toLowerCase());
  return (
    <div className={box.field}>
      <label htmlFor={id}>{label}</label>
      <Choice
        id={id}
        placeholder={`${value} (gone)`}
        value={there ? job.outlines.find((o) => o.name.toLowerCase() === value.toLowerCase())!.name : null}
        choose={choose}
        options={asWritten(job.outlines.map((o) => o.name))}
      />
    </div>
  );
}
