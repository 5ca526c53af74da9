"use client";
import { App, Button, Input } from "antd";
import { useId, useState } from "react";
import { ownCopy, type Job, type Row } from "@/core/job";
import { freshId } from "../bench/actions";
import box from "../common/NumberBox.module.css";

import { useJob } from "../store/jobStore";

/** Gives one copy of a repeat figures of its own. */
export function CopyEditor({ job, row }: { job: Job; row: Row }) {
  const id = useId();
  const [copy, setCopy] = useState("");
  const edit = useJob((s) => s.edit);
  const { message } = App.useApp();
  const give = () => {
    const own = ownCopy(job, row.id, Number(copy), freshId);
    if (own.ok) {
      edit(own.value, `copy ${copy} by itself`);
      setCopy("");
    } else void message.warning(`${own.problems[0].message}: ${own.problems[0].expected ?? ""}`, 5);
  };
  return (
    <div className={box.field}>
      <label htmlFor={id}>One copy</label>
      <div style={{ display: "flex", gap: 4 }}>
        <Input
          id={id}
          size="small"
          value={copy}
          placeholder="4"
          inputMode="numeric"
          maxLength={4}
          onChange={(e) => setCopy(e.target.value.trim())}
          onPressEnter={give}
        />
        <Button size="small" disabled={!/^\d+$/.test(copy)} onClick={give} title="its rows once more, to be changed">
          own figures
        </Button>
      </div>
    </div>
  );
}
