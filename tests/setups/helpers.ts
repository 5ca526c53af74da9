import { readCard, writeDocument } from "@/core/callout";
import type { JobDocument } from "@/core/job";
import { applyEdits, jobOf, readJob } from "@/core/job";
import { evaluate } from "@/core/evaluate/evaluate";
import { evaluateParts } from "@/core/evaluate/parts";
import { derive, evaluateSetups, proposedSetups, type FixtureKind, type FixtureWishes } from "@/core/setups";
import { usualShop, type Shop } from "@/core/tables";
import { loadKernel } from "@/kernel/node";

/** A card that must be right, as a document. */
export function documentOfCard(text: string): JobDocument {
  const { document, errors } = readCard(text);
  if (errors.length) throw new Error(errors.map((e) => `${e.line}:${e.column} ${e.message}`).join("; "));
  return document;
}

/** A job with its setups, everything computed. */
export const setUp = (text: string, shop?: Shop) => setUpDocument(documentOfCard(text), shop);

/** The same of a job's document. */
export async function setUpDocument(document: JobDocument, shop: Shop = usualShop) {
  const kernel = await loadKernel();
  const { limits } = shop;
  const parts = await evaluateParts(document, await evaluate(jobOf(document), kernel, { limits }), kernel, limits);
  return { kernel, document, parts, ...evaluateSetups({ document, parts, kernel, shop }) };
}

/** Remarks of a rule in a job with setups. */
export const remarks = async (text: string, rule: string, shop?: Shop) =>
  (await setUp(text, shop)).findings.filter((f) => f.rule === rule);

/** The job with the fix of a remark pressed. */
export async function pressed(text: string, rule: string, shop?: Shop) {
  const { document, findings } = await setUp(text, shop);
  const found = findings.find((f) => f.rule === rule);
  if (!found) throw new Error(`no ${rule}; there are ${findings.map((f) => f.rule).join(", ")}`);
  if (!found.fix) throw new Error(`${rule} has no fix: ${found.text}`);
  const edited = applyEdits(document, found.fix.edits);
  if (!edited.ok) throw new Error(edited.problems[0].message);
  const kept = readJob(JSON.parse(JSON.stringify(edited.value.job)));
  if (!kept.ok) throw new Error(kept.problems[0].message);
  return { found, after: await setUpDocument(kept.value, shop) };
}

/** The card with the part that an assistant writes for a setup; the reason where it writes none. */
export async function derivedCard(
  text: string,
  kind: FixtureKind,
  op: number,
  wishes: FixtureWishes = {},
  shop: Shop = usualShop,
) {
  const { kernel, document, parts } = await setUp(text, shop);
  const setups = document.setups.length ? document.setups : proposedSetups({ document, parts, kernel, shop });
  const routed = { ...document, setups };
  const own = parts.map((p) => ({ ...p, job: jobOf(routed, p.id) }));
  const made = derive({ document: routed, parts: own, kernel, shop }, kind, op, wishes);
  if (!made.ok) return made.problems[0].message;
  return `${writeDocument({ ...routed, setups: made.value.setups })}${made.value.lines.join("\n")}\n`;
}
