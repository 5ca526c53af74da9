"use client";
import { Alert, Button, Input, Space } from "antd";
import { useState } from "react";
import { contentOf, nextRevision, releaseState, type Job } from "@/core/job";
import type { Evaluation } from "@/core/evaluate/evaluate";
import { Section } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";

const today = () => new Date().toISOString().slice(0, 10);

/** What is not as it should be when somebody is about to sign, in words. */
function openPoints(e: Evaluation): string[] {
  const n = (count: number, one: string, many = `${one}s`) => (count ? [`${count} ${count === 1 ? one : many}`] : []);
  const ledger = (state: string) => e.ledger.filter((l) => l.state === state).length;
  return [
    ...n(e.findings.filter((f) => !f.waived && f.severity === "stop").length, "stop"),
    ...n(e.solved.rows.filter((r) => r.state === "failed").length, "failed row"),
    ...n(ledger("off"), "balloon off", "balloons off"),
    ...n(ledger("stale"), "balloon stale", "balloons stale"),
    ...n(e.checks.filter((c) => !c.agrees).length, "check value off", "check values off"),
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
          <Sign job={job} open={openPoints(e)} />
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

function Sign({ job, open }: { job: Job; open: string[] }) {
  const edit = useJob((s) => s.edit);
  const [by, setBy] = useState("");
  const [reason, setReason] = useState("");
  const ready = by.trim() !== "" && (!open.length || reason.trim() !== "");
  const sign = () => {
    if (!ready) return;
    edit(
      [
        {
          edit: "setHead",
          head: {
            signOff: {
              by: by.trim(),
              on: today(),
              revision: job.revision,
              content: contentOf(job),
              ...(open.length ? { reason: `${open.join(", ")}: ${reason.trim()}`.slice(0, 500) } : {}),
            },
          },
        },
      ],
      "sign off",
    );
  };
  return (
    <form
      onSubmit={(ev) => {
        ev.preventDefault();
        sign();
      }}
    >
      <Space orientation="vertical" style={{ width: "100%" }} size={6}>
        {open.length > 0 && (
          <Alert
            type="warning"
            showIcon
            title={`Still open: ${open.join(", ")}`}
            description="Signed all the same, it says why: the reason goes on the record and on the sheet."
          />
        )}
        {open.length > 0 && (
          <Input
            placeholder="why it is signed all the same"
            aria-label="Why it is signed all the same"
            value={reason}
            maxLength={400}
            onChange={(ev) => setReason(ev.target.value)}
          />
        )}
        <Space.Compact style={{ width: "100%" }}>
          <Input
            placeholder="name"
            aria-label="Who signs off"
            value={by}
            maxLength={120}
            onChange={(ev) => setBy(ev.target.value)}
          />
          <Button htmlType="submit" disabled={!ready}>
            sign off
          </Button>
        </Space.Compact>
      </Space>
    </form>
  );
}
