"use client";
import { Button, Input, Popover } from "antd";
import { useState } from "react";
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
        <Remark key={f.rule} finding={f} />
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
        <Remark key={f.rule} finding={f} wide />
      ))}
    </div>
  );
}

/** The shape a remark is known by, besides its colour. */
export const marks = { stop: "■", caution: "▲", note: "·" };

/** One remark: what is wrong, the limit and its source, a fix to press, or a written reason to waive it. */
export function Remark({ finding: f, wide }: { finding: Finding; wide?: boolean }) {
  const edit = useJob((s) => s.edit);
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  if (f.waived)
    return (
      <p className={css.waived}>
        {f.rule.replace(/-/g, " ")}: waived, “{f.waived}”{" "}
        <Bare
          className={css.tiny}
          onClick={() =>
            edit([{ edit: "unwaive", rule: f.rule, ...(f.rowId ? { row: f.rowId } : {}) }], "take back waiver")
          }
        >
          take back
        </Bare>
      </p>
    );
  const waive = () => {
    if (!reason.trim()) return;
    edit([{ edit: "waive", rule: f.rule, ...(f.rowId ? { row: f.rowId } : {}), reason: reason.trim() }], "waive");
    setAsking(false);
  };
  return (
    <div className={css.remark} data-rule={f.rule}>
      <span>
        <span aria-hidden="true">{marks[f.severity]}</span> <span className="sr">{f.severity}: </span>
        {f.text}
      </span>
      <small>{f.source}</small>
      <span className={wide ? css.inline : undefined}>
        {f.fix && (
          <Bare className={css.fix} onClick={() => edit(f.fix!.edits, `fix: ${f.rule}`)}>
            {f.fix.label}
          </Bare>
        )}
        {f.question && <em className={css.ask}>{f.question}</em>}
        <Popover
          open={asking}
          onOpenChange={setAsking}
          trigger="click"
          content={
            <form
              onSubmit={(e) => {
                e.preventDefault();
                waive();
              }}
              style={{ display: "flex", gap: 6 }}
            >
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
          }
        >
          <Bare className={css.tiny}>waive …</Bare>
        </Popover>
      </span>
    </div>
  );
}
