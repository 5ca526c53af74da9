"use client";
import { Button, Input, Popover } from "antd";
import { useState, type FormEvent } from "react";
import { remarkKey, withTrial } from "@/core/evaluate/triedFixes";
import type { Finding } from "@/core/findings";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./Card.module.css";
import { Bare } from "../fields/Bare";

/** Remarks in the margin of a row. */
export function RedPencil({ rowId }: { rowId: string }) {
  const findings = useBench((s) => s.evaluated?.evaluation.findings);
  const mine = findings?.filter((f) => f.rowId === rowId) ?? [];
  return (
    <div className={`${css.pen} ${mine.some((f) => !f.waived) ? css.has : ""}`}>
      {mine.map((f) => (
        <TriedRemark key={f.rule} finding={f} />
      ))}
    </div>
  );
}

/** Remarks that concern the job as a whole, under the card. */
export function JobRemarks({ rules, rows }: { rules: (rule: string) => boolean; rows?: boolean }) {
  const findings = useBench((s) => s.evaluated?.evaluation.findings);
  const whole = findings?.filter((f) => (rows || f.rowId === null) && rules(f.rule)) ?? [];
  if (!whole.length) return null;
  return (
    <div className={css.whole} aria-label="Remarks on the whole job">
      {whole.map((f) => (
        <TriedRemark key={f.rule} finding={f} wide />
      ))}
    </div>
  );
}

/** A remark of the part: what it offers has been tried on the solid. */
function TriedRemark({ finding, wide }: { finding: Finding; wide?: boolean }) {
  const trial = useBench((s) => s.trials.get(remarkKey(finding)));
  return <Remark finding={withTrial(finding, trial)} wide={wide} />;
}

/** The shape a remark is known by, besides its colour. */
export const marks = { stop: "■", caution: "▲", note: "·" };

/** One remark: what is wrong, the limit and its source, a fix to press, or a written reason to waive it. */
export function Remark({ finding, wide }: { finding: Finding; wide?: boolean }) {
  const edit = useJob((s) => s.edit);
  const { fix, question } = finding;
  if (finding.waived) return <Waived finding={finding} />;
  return (
    <div className={css.remark} data-rule={finding.rule}>
      <span title={finding.text}>
        <span aria-hidden="true">{marks[finding.severity]}</span> <span className="sr">{finding.severity}: </span>
        {finding.text}
      </span>
      <small>{finding.source}</small>
      <span className={wide ? css.inline : undefined}>
        {fix && (
          <Bare className={css.fix} onClick={() => edit(fix.edits, `fix: ${finding.rule}`)}>
            {fix.label}
          </Bare>
        )}
        {question && <em className={css.ask}>{question}</em>}
        <Waive finding={finding} />
      </span>
    </div>
  );
}

/** What a waiver stands on: the rule, and the row where it is about one. */
const about = ({ rule, rowId }: Finding) => ({ rule, ...(rowId ? { row: rowId } : {}) });

function Waived({ finding }: { finding: Finding }) {
  const edit = useJob((s) => s.edit);
  return (
    <p className={css.waived}>
      {finding.rule.replace(/-/g, " ")}: waived, “{finding.waived}”{" "}
      <Bare className={css.tiny} onClick={() => edit([{ edit: "unwaive", ...about(finding) }], "take back waiver")}>
        take back
      </Bare>
    </p>
  );
}

/** Asks why a remark may be let pass, and keeps the reason. */
function Waive({ finding }: { finding: Finding }) {
  const edit = useJob((s) => s.edit);
  const [isAsking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const waive = (e: FormEvent) => {
    e.preventDefault();
    if (!reason.trim()) return;
    edit([{ edit: "waive", ...about(finding), reason: reason.trim() }], "waive");
    setAsking(false);
  };
  const form = (
    <form onSubmit={waive} style={{ display: "flex", gap: 6 }}>
      <Input
        size="small"
        style={{ width: 230 }}
        autoFocus
        value={reason}
        maxLength={500}
        onChange={(e) => setReason(e.target.value)}
        placeholder="why it may stay as it is"
        aria-label="Reason for waiving"
      />
      <Button htmlType="submit" size="small" disabled={!reason.trim()}>
        waive
      </Button>
    </form>
  );
  return (
    <Popover open={isAsking} onOpenChange={setAsking} trigger="click" content={form}>
      <Bare className={css.tiny}>waive …</Bare>
    </Popover>
  );
}
