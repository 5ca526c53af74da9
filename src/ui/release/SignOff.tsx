"use client";
import { Alert, Button, Input, Space } from "antd";
import { useState, type FormEvent } from "react";
import { contentOf, nextRevision, releaseState, type Job } from "@/core/job";
import { completeness } from "@/core/evaluate/complete";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { Section } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

const today = () => new Date().toISOString().slice(0, 10);

/** What is not as it should be when somebody is about to sign, in words. */
function openPoints(job: Job, e: Evaluation): string[] {
  const whole = completeness(job, e);
  const n = (count: number, one: string, many = `${one}s`) => (count ? [`${count} ${count === 1 ? one : many}`] : []);
  const ledger = (state: string) => e.ledger.filter((l) => l.state === state).length;
  return [
    ...n(e.findings.filter((f) => !f.waived && f.severity === "stop").length, "stop"),
    ...n(e.solved.rows.filter((r) => r.state === "failed").length, "failed row"),
    ...n(ledger("off"), "balloon off", "balloons off"),
    ...n(ledger("stale"), "balloon stale", "balloons stale"),
    ...n(e.checks.filter((c) => !c.agrees).length, "check value off", "check values off"),
    ...n(whole.unused, "balloon unused", "balloons unused"),
    ...n(whole.drives, "balloon not measured", "balloons not measured"),
    ...n(whole.unsourced, "number without a source", "numbers without a source"),
  ];
}

/** Who signs the job off. With anything open a reason is asked for; after a change the next revision is. */
export function SignOff() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const e = useBench((s) => s.evaluated?.evaluation);
  const busy = useBench((s) => s.busy);
  const state = releaseState(job);
  const signed = job.signOff;
  const takeBack = () => edit([{ edit: "setHead", head: { signOff: undefined } }], "take back sign-off");
  return (
    <Section title="Sign-off" aside={`revision ${job.revision || "—"}`}>
      {signed && (
        <p style={{ margin: "0 0 6px" }}>
          {signed.by}, {signed.on}, revision {signed.revision}
          {state.state === "earlier" ? " (an earlier revision)" : ""}{" "}
          <Button size="small" onClick={takeBack}>
            take back
          </Button>
          {signed.reason && (
            <>
              <br />
              <span className="red">signed with something open: {signed.reason}</span>
            </>
          )}
        </p>
      )}
      {state.state === "changed" && <Changed job={job} />}
      {(state.state === "draft" || state.state === "earlier") &&
        (e && !busy ? (
          <Sign job={job} open={openPoints(job, e)} />
        ) : (
          <p className="soft">The part is being computed: it is signed when it is checked.</p>
        ))}
    </Section>
  );
}

function Changed({ job }: { job: Job }) {
  const edit = useJob((s) => s.edit);
  const next = nextRevision(job.revision);
  return (
    <Alert
      type="error"
      showIcon
      title="Changed since release"
      description={`Revision ${job.revision} was signed as it was then. What has been changed since wants a revision of its own.`}
      action={
        <Button size="small" onClick={() => edit([{ edit: "setHead", head: { revision: next } }], "revision")}>
          make it revision {next}
        </Button>
      }
    />
  );
}

/** Who signs the job off, and why where something is still open. */
function Sign({ job, open }: { job: Job; open: string[] }) {
  const edit = useJob((s) => s.edit);
  const [by, setBy] = useState("");
  const [reason, setReason] = useState("");
  const isOpen = open.length > 0;
  const isReady = by.trim() !== "" && (!isOpen || reason.trim() !== "");
  const sign = (e: FormEvent) => {
    e.preventDefault();
    if (!isReady) return;
    const why = isOpen ? { reason: `${open.join(", ")}: ${reason.trim()}`.slice(0, 500) } : {};
    const signOff = { by: by.trim(), on: today(), revision: job.revision, content: contentOf(job), ...why };
    edit([{ edit: "setHead", head: { signOff } }], "sign off");
  };
  return (
    <form onSubmit={sign}>
      <Space orientation="vertical" style={{ width: "100%" }} size={6}>
        {isOpen && <StillOpen open={open} reason={reason} setReason={setReason} />}
        <Space.Compact style={{ width: "100%" }}>
          <Input
            placeholder="name"
            aria-label="Who signs off"
            value={by}
            maxLength={120}
            onChange={(e) => setBy(e.target.value)}
          />
          <Button htmlType="submit" disabled={!isReady}>
            sign off
          </Button>
        </Space.Compact>
      </Space>
    </form>
  );
}

interface StillOpenProps {
  open: string[];
  reason: string;
  setReason: (reason: string) => void;
}

const StillOpen = ({ open, reason, setReason }: StillOpenProps) => (
  <>
    <Alert
      type="warning"
      showIcon
      title={`Still open: ${open.join(", ")}`}
      description="Signed all the same, it says why: the reason goes on the record and on the sheet."
    />
    <Input
      placeholder="why it is signed all the same"
      aria-label="Why it is signed all the same"
      value={reason}
      maxLength={400}
      onChange={(e) => setReason(e.target.value)}
    />
  </>
);
