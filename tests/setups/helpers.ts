import { readCard, writeDocument } from "@/core/callout";
import type { JobDocument } from "@/core/job";
import { jobOf } from "@/core/job";
import { evaluate } from "@/core/evaluate/evaluate";
import { evaluateParts } from "@/core/evaluate/parts";
import { derive, evaluateSetups, proposedSetups, type FixtureKind, type FixtureWishes } from "@/core/setups";
import { loadKernel } from "@/kernel/node";

/** A card that must be right, as a document. */
export function documentOfCard(text: string): JobDocument {
  const { document, errors } = readCard(text);
  if (errors.length) throw new Error(errors.map((e) => `${e.line}:${e.column} ${e.message}`).join("; "));
  return document;
}

/** A job with its setups, everything computed. */
export async function setUp(text: string) {
  const kernel = await loadKernel();
  const document = documentOfCard(text);
  const parts = await evaluateParts(document, await evaluate(jobOf(document), kernel), kernel);
  return { kernel, document, parts, ...evaluateSetups({ document, parts, kernel }) };
}

/** Remarks of a rule in a job with setups. */
export const remarks = async (text: string, rule: string) =>
  (await setUp(text)).findings.filter((f) => f.rule === rule);

/** The card with the part that an assistant writes for a setup; the reason where it writes none. */
export async function derivedCard(text: string, kind: FixtureKind, op: number, wishes: FixtureWishes = {}) {
  const { kernel, document, parts } = await setUp(text);
  const setups = document.setups.length ? document.setups : proposedSetups({ document, parts, kernel });
  const routed = { ...document, setups };
  const own = parts.map((p) => ({ ...p, job: jobOf(routed, p.id) }));
  const made = derive({ document: routed, parts: own, kernel }, kind, op, wishes);
  if (!made.ok) return made.problems[0].message;
  return `${writeDocument({ ...routed, setups: made.value.setups })}${made.value.lines.join("\n")}\n`;
}
