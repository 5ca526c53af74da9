"use client";
import type { Evaluation } from "@/core/evaluate";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import { checkFigure, checkName } from "./figures";
import css from "./Proof.module.css";

type Checks = Evaluation["checks"];

/** The print's check values beside the model's. */
export function CheckedValues({ checks }: { checks: Checks }) {
  return (
    <Section title="Check values">
      {!checks.length && (
        <p className="soft" style={{ margin: 0 }}>
          The print gives none yet: add them on the Print step.
        </p>
      )}
      {checks.map((c, i) => (
        <CheckedValue key={i} check={c} />
      ))}
    </Section>
  );
}

function CheckedValue({ check: c }: { check: Checks[number] }) {
  const job = useJob((s) => s.job)!;
  const off = c.actual === null ? "…" : `✗ off by ${checkFigure(c, c.actual - c.expected!, job)}`;
  return (
    <div className={css.check} data-check={c.kind} data-agrees={c.agrees}>
      <span>{checkName(c)}</span>
      <span className="num">{checkFigure(c, c.expected, job)}</span>
      <span className="num">{checkFigure(c, c.actual, job)}</span>
      <span className={c.agrees ? undefined : "red"}>{c.problem ?? (c.agrees ? "✓ agrees" : off)}</span>
    </div>
  );
}
