"use client";
import { Checkbox } from "antd";
import type { Job } from "@/core/job";
import { generalClasses } from "@/core/tables";
import { toNumberText, unitOf } from "@/core/number";
import { NumberBox } from "../common/NumberBox";
import { Section, fieldsClass } from "../common/Section";
import { ChoiceBox } from "../fields/ChoiceBox";
import { useJob } from "../store/jobStore";
import { TextField } from "../fields/TextField";

/** What the title block of the print says: drawing number, projection, default tolerances, edges, finish. */
export function TitleData() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const title = job.title;
  const put = (change: Partial<Job["title"]>) => {
    const next = { ...title, ...change };
    for (const k of Object.keys(next) as (keyof Job["title"])[])
      if (next[k] === undefined || next[k] === "") delete next[k];
    edit([{ edit: "setHead", head: { title: next } }], "title data");
  };
  const text = (key: "drawing" | "finish" | "notes", label: string) => (
    <label>
      <span className="lab">{label}</span>
      <TextField
        value={title[key] ?? ""}
        maxLength={key === "notes" ? 4000 : 120}
        commit={(text) => put({ [key]: text || undefined })}
      />
    </label>
  );
  const tolerance = (decimals: number) => (
    <NumberBox
      printed
      job={job}
      label={decimals ? `.${"0".repeat(decimals)} is ±` : "whole is ±"}
      value={title.tolerances?.[decimals] ?? undefined}
      quantity="offset"
      optional
      commit={(t) => {
        const list = Array.from({ length: 5 }, (_, i) => title.tolerances?.[i] ?? null);
        list[decimals] = t ?? null;
        put({ tolerances: list.some(Boolean) ? list : undefined });
      }}
    />
  );
  return (
    <Section title="Title block" aside={`unit ${unitOf[job.unit].word}`}>
      <div className={fieldsClass}>
        {text("drawing", "Drawing")}
        <ChoiceBox
          label="Projection"
          value={title.projection ?? ""}
          options={[
            { value: "", label: "—" },
            { value: "third", label: "third angle" },
            { value: "first", label: "first angle" },
          ]}
          choose={(o) => put({ projection: (o.value || undefined) as "first" | "third" | undefined })}
        />
        {text("finish", "Finish")}
        {{ in: [2, 3, 4], mm: [0, 1, 2] }[job.unit].map((d) => (
          <div key={d}>{tolerance(d)}</div>
        ))}
        <ChoiceBox
          label="General class"
          value={title.general ?? ""}
          options={[
            { value: "", label: "none" },
            ...generalClasses.map((c) => ({ value: c as string, label: `ISO 2768-${c}` })),
          ]}
          choose={(o) => put({ general: (o.value || undefined) as "m" | undefined })}
        />
        <NumberBox
          printed
          job={job}
          label="Angles are ±"
          value={title.angleTolerance}
          quantity="angle"
          optional
          commit={(t) => put({ angleTolerance: t })}
        />
        {unitOf[job.unit].fractions && (
          <NumberBox
            printed
            job={job}
            label="Fractions are ±"
            value={title.fractionTolerance}
            quantity="offset"
            optional
            commit={(t) => put({ fractionTolerance: t })}
          />
        )}
        <NumberBox
          printed
          job={job}
          label="Break all edges"
          value={title.edgeBreak}
          quantity="length"
          optional
          commit={(t) => put({ edgeBreak: t === undefined ? undefined : toNumberText(t) })}
        />
        <div style={{ gridColumn: "span 2" }}>{text("notes", "Notes")}</div>
        {unitOf[job.unit].fractions && (
          <Checkbox
            style={{ fontSize: 13, alignSelf: "end" }}
            checked={Boolean(title.leadingZero)}
            onChange={(e) => put({ leadingZero: e.target.checked ? true : undefined })}
          >
            write 0.250
          </Checkbox>
        )}
      </div>
    </Section>
  );
}
