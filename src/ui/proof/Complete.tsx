"use client";
import { Button } from "antd";
import type { Evaluation } from "@/core/evaluate";
import { completeness } from "@/core/evaluate/complete";
import { recordProofs } from "../bench/actions";
import { Section } from "../common/Section";
import { useJob } from "../store/jobStore";
import css from "./Proof.module.css";

/** How far the model answers the print, and what of it is on record. */
export function Complete({ evaluation }: { evaluation: Evaluation | undefined }) {
  const job = useJob((s) => s.job)!;
  const complete = evaluation && completeness(job, evaluation);
  const recorded =
    evaluation?.ledger.filter((l) => job.proofs.some((p) => p.number === l.number && p.basis === l.basis)).length ?? 0;
  const last = job.proofs.reduce((t, p) => (p.on > t ? p.on : t), "");
  const record = evaluation && job.balloons.length > 0 && (
    <Button
      size="small"
      onClick={() => recordProofs(evaluation.ledger)}
      disabled={!complete?.proved && !complete?.stale}
      title="keep what is proved now, on what and when"
    >
      record the proof
    </Button>
  );
  return (
    <Section title="Complete?" aside={record}>
      <p className={css.complete} data-testid="complete">
        {complete?.text ?? "…"}
      </p>
      {job.proofs.length > 0 && (
        <p className="soft" style={{ margin: "3px 0 0" }}>
          {recorded} on record as they are now{complete?.stale ? `, ${complete.stale} changed since` : ""}; last
          recorded {last}
        </p>
      )}
    </Section>
  );
}
