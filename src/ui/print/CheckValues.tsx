"use client";
import { Button } from "antd";
import type { CheckValue } from "@/core/job";
import { toNumberText, unitOf } from "@/core/number";
import { NumberBox } from "../common/NumberBox";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import css from "./PrintCard.module.css";
import { Bare } from "../fields/Bare";
import { Choice, asWritten } from "../fields/Choice";
import { kindOf } from "@/core/rows";

const q = toNumberText("?");
const kinds: { key: string; label: string; make: CheckValue }[] = [
  { key: "mass", label: "mass", make: { kind: "mass", value: q, unit: "g" } },
  { key: "volume", label: "volume", make: { kind: "volume", value: q } },
  ...(["top", "bottom", "front", "back", "left", "right", "all"] as const).map((of) => ({
    key: `area ${of}`,
    label: of === "all" ? "whole surface" : `area, ${of}`,
    make: { kind: "area" as const, of, value: q },
  })),
  ...(["x", "y", "z"] as const).map((of) => ({
    key: `size ${of}`,
    label: `size along ${of}`,
    make: { kind: "size" as const, of, value: q },
  })),
  { key: "holes", label: "number of holes", make: { kind: "holes", value: q } },
  { key: "edges", label: "number of edges", make: { kind: "edges", value: q } },
];
const keyOf = (c: CheckValue) =>
  c.kind === "area" || c.kind === "size" ? `${c.kind} ${c.of}` : c.kind === "floorArea" ? `floor ${c.row}` : c.kind;

/** Check values of the print: what the finished part must weigh, hold and measure. */
export function CheckValues() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  // Floors that a row cut can be asked for too.
  const all = [
    ...kinds,
    ...job.rows.flatMap((r, i) =>
      kindOf(r.body).traits?.floor
        ? [
            {
              key: `floor ${r.id}`,
              label: `area, floor of ${i + 1}`,
              make: { kind: "floorArea" as const, row: r.id, value: q },
            },
          ]
        : [],
    ),
  ];
  const put = (checks: CheckValue[]) => edit([{ edit: "setChecks", checks }], "check value");
  const unit = (c: CheckValue) =>
    c.kind === "volume"
      ? `${job.unit}³`
      : c.kind === "area" || c.kind === "floorArea"
        ? `${job.unit}²`
        : c.kind === "edges" || c.kind === "holes"
          ? ""
          : job.unit;
  return (
    <Section
      title="Check values"
      aside={
        <Button
          size="small"
          onClick={() => put([...job.checks, { kind: "mass", value: q, unit: unitOf[job.unit].mass.name }])}
        >
          one more
        </Button>
      }
    >
      {job.checks.length === 0 && (
        <p className="soft" style={{ margin: 0 }}>
          A mass, volume, area or overall size on the print can prove the model.
        </p>
      )}
      {job.checks.map((c, i) => (
        <div key={i} className={css.check}>
          <Choice
            label={`what check value ${i + 1} is`}
            value={keyOf(c)}
            choose={(key) =>
              put(job.checks.map((x, k) => (k === i ? { ...all.find((o) => o.key === key)!.make, value: c.value } : x)))
            }
            options={all.map((o) => ({ value: o.key, label: o.label }))}
          />
          <NumberBox
            printed
            job={job}
            label={`check value ${i + 1}, as printed`}
            value={c.value}
            quantity="plain"
            commit={(t) => put(job.checks.map((x, k) => (k === i ? { ...x, value: t ?? q } : x)))}
          />
          {c.kind === "mass" ? (
            <Choice
              label="unit of the mass"
              value={c.unit}
              choose={(unit) => put(job.checks.map((x, k) => (k === i ? { ...c, unit: unit as "g" } : x)))}
              options={asWritten(["g", "kg", "lb", "oz"])}
            />
          ) : (
            <span className="soft">{unit(c)}</span>
          )}
          <Bare
            className="faint"
            aria-label={`take away check value ${i + 1}`}
            onClick={() => put(job.checks.filter((_, k) => k !== i))}
          >
            ×
          </Bare>
        </div>
      ))}
    </Section>
  );
}
