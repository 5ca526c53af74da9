import type { BalloonState } from "@/core/print/ledger";
import css from "./Proof.module.css";

const signs: Record<BalloonState, string> = { unused: "?", drives: "→", proved: "✓", off: "✗", stale: "~" };
/** State of a balloon: a sign and a word, never colour alone. */
export const StateMark = ({ state }: { state: BalloonState }) => (
  <span className={`${css.state} ${state === "off" ? css.bad : ""}`} data-state={state}>
    <span aria-hidden="true">{signs[state]}</span> {state}
  </span>
);
