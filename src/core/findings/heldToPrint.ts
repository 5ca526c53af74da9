import { reportNumbers } from "../engine/numbers";
import type { JobEdit } from "../job/edits";
import type { Finding } from "./finding";
import type { RuleContext } from "./rule";

/**
 * A fix never changes what the print says: where a number it would change is made from balloons, it becomes a
 * question for the print.
 * Only the machinist's own numbers get a change by one press.
 */
export function heldToPrint(c: RuleContext, f: Finding): Finding {
  if (!f.fix) return f;
  const printed = [...new Set(f.fix.edits.flatMap((e) => balloonsChanged(c, e)))].sort((a, b) => a - b);
  if (!printed.length) return f;
  const { fix, ...rest } = f;
  return {
    ...rest,
    asked: fix,
    question: `ask: ${fix.label} instead of balloon ${printed.map((n) => `#${n}`).join(", ")}?`,
  };
}

/** Balloons whose number an edit of a row would do without or change. */
function balloonsChanged(c: RuleContext, e: JobEdit): number[] {
  if (e.edit !== "setNumber" && e.edit !== "setRow") return [];
  const row = c.rows.find((r) => r.row.id === e.id);
  if (!row) return [];
  if (e.edit === "setNumber") return row.numbers.find((n) => n.path === e.path)?.value?.cites ?? [];
  const after = reportNumbers(e.body, c.scope);
  return row.numbers.flatMap((n) =>
    after.find((m) => m.path === n.path)?.text === n.text ? [] : (n.value?.cites ?? []),
  );
}
