"use client";
import { inBands } from "@/core/print/band";
import { Bars } from "../charts/Bars";
import { Body } from "../common/Section";
import { useBench } from "../store/benchStore";
import { CheckedValues } from "./CheckedValues";
import { Complete } from "./Complete";
import { LedgerProof } from "./LedgerProof";
import { MismatchFinder } from "./MismatchFinder";
import { PrintOver } from "./PrintOver";

/** Farther out of its band than this a dimension's bar is not drawn. */
const WIDEST = 1.5;

/**
 * The Proof step: every balloon against what was measured on the solid, the check values and the finder behind them,
 * the print over the view.
 */
export function ProofCard() {
  const evaluation = useBench((s) => s.evaluated?.evaluation);
  return (
    <Body>
      <Complete evaluation={evaluation} />
      <CheckedValues checks={evaluation?.checks ?? []} />
      <MismatchFinder />
      <Bars
        title="Where it lies between its limits, middle to middle"
        ends={[-WIDEST, WIDEST]}
        bars={inBands(evaluation?.ledger ?? [])
          .filter((b) => Math.abs(b.share) > 1e-6)
          .map((b) => ({
            name: `${b.balloon}`,
            value: Math.max(-WIDEST, Math.min(WIDEST, b.share)),
            shown: `${Math.round(100 * b.share)} %`,
            wrong: !b.inside,
          }))}
      />
      <LedgerProof ledger={evaluation?.ledger ?? []} />
      <PrintOver />
    </Body>
  );
}
