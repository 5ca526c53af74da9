"use client";
import { Button } from "antd";
import { checkKindOf, checkKinds, type CheckValue } from "@/core/job";
import { toNumberText, unitOf } from "@/core/number";
import { NumberBox } from "../common/NumberBox";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import css from "./PrintCard.module.css";
import { Bare } from "../fields/Bare";
import { Choice, asWritten } from "../fields/Choice";
import { kindOf } from "@/core/rows";

const q = toNumberText("?");
/** Which check value one is, whatever its figure. */
const keyOf = (c: CheckValue) => `${c.kind} ${"of" in c ? c.of : "row" in c ? c.row : ""}`;
/** The unit a figure is typed in; a mass has one of its own. */
const unitText = (c: CheckValue, unit: string) =>
  ({ mass: unit, volume: `${unit}³`, area: `${unit}²`, length: unit, count: "" })[checkKindOf(c).measure];

/** Check values of the print: what the finished part must weigh, hold and measure. */
export function CheckValues() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  // Floors that a row cut can be asked for too.
  const floors = job.rows.flatMap((r, i) =>
    kindOf(r.body).traits?.floor ? Object.values(checkKinds).flatMap((k) => k.ofFloor?.(r.id, i + 1) ?? []) : [],
  );
  const all = [...Object.values(checkKinds).flatMap((k) => k.choices), ...floors].map((o) => ({
    ...o,
    key: keyOf(o.make),
  }));
  const put = (checks: CheckValue[]) => edit([{ edit: "setChecks", checks }], "check value");
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
            <span className="soft">{unitText(c, job.unit)}</span>
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
