"use client";
import { Button } from "antd";
import { checkKindOf, checkKinds, type CheckValue, type Job } from "@/core/job";
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

/** Every check value that a print of this job may give, floors that a row cut among them. */
function choicesFor(job: Job) {
  const kinds = Object.values(checkKinds);
  const floors = job.rows.flatMap((r, i) =>
    kindOf(r.body).traits?.floor ? kinds.flatMap((k) => k.ofFloor?.(r.id, i + 1) ?? []) : [],
  );
  return [...kinds.flatMap((k) => k.choices), ...floors].map((o) => ({ ...o, key: keyOf(o.make) }));
}

/** Check values of the print: what the finished part must weigh, hold and measure. */
export function CheckValues() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const choices = choicesFor(job);
  const put = (checks: CheckValue[]) => edit([{ edit: "setChecks", checks }], "check value");
  const mass: CheckValue = { kind: "mass", value: q, unit: unitOf[job.unit].mass.name };
  return (
    <Section
      title="Check values"
      aside={
        <Button size="small" onClick={() => put([...job.checks, mass])}>
          one more
        </Button>
      }
    >
      {job.checks.length === 0 && (
        <p className="soft" style={{ margin: 0 }}>
          A mass, volume, area or overall size on the print can prove the model.
        </p>
      )}
      {job.checks.map((check, i) => (
        <CheckLine
          key={i}
          job={job}
          check={check}
          number={i + 1}
          choices={choices}
          put={(next) => put(job.checks.map((c, k) => (k === i ? next : c)))}
          remove={() => put(job.checks.filter((_, k) => k !== i))}
        />
      ))}
    </Section>
  );
}

interface LineProps {
  job: Job;
  check: CheckValue;
  number: number;
  choices: ReturnType<typeof choicesFor>;
  put: (check: CheckValue) => void;
  remove: () => void;
}

/** One check value: what it is, its figure as printed, and its unit. */
function CheckLine({ job, check, number, choices, put, remove }: LineProps) {
  return (
    <div className={css.check}>
      <Choice
        label={`what check value ${number} is`}
        value={keyOf(check)}
        choose={(key) => put({ ...choices.find((o) => o.key === key)!.make, value: check.value })}
        options={choices.map((o) => ({ value: o.key, label: o.label }))}
      />
      <NumberBox
        printed
        job={job}
        label={`check value ${number}, as printed`}
        value={check.value}
        quantity="plain"
        commit={(t) => put({ ...check, value: t ?? q })}
      />
      {check.kind === "mass" ? (
        <Choice
          label="unit of the mass"
          value={check.unit}
          choose={(unit) => put({ ...check, unit: unit as typeof check.unit })}
          options={asWritten(["g", "kg", "lb", "oz"])}
        />
      ) : (
        <span className="soft">{unitText(check, job.unit)}</span>
      )}
      <Bare className="faint" aria-label={`take away check value ${number}`} onClick={remove}>
        ×
      </Bare>
    </div>
  );
}
