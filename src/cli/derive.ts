import { writeFile } from "node:fs/promises";
import { readCard, writeDocument } from "@/core/callout";
import type { SolidKernel } from "@/core/engine/kernel";
import { evaluate } from "@/core/evaluate/evaluate";
import { evaluateParts } from "@/core/evaluate/parts";
import { jobOf, type JobDocument } from "@/core/job";
import { unitOf } from "@/core/number";
import { reliefPlacements, type Shop } from "@/core/tables";
import { USAGE, type Arguments } from "./arguments";
import type { Say } from "./say";
import { derive, proposedSetups, shoulderChoices, type FixtureKind, type FixtureWishes } from "@/core/setups";

const kinds: FixtureKind[] = ["jaws", "plate", "chuck"];

/** What a `derive` is asked, in the job's unit; null where something of it cannot be read. */
function wishesOf(option: (name: string) => string | undefined, unit: JobDocument["unit"]): FixtureWishes | null {
  const mm = unitOf[unit].mm;
  const wishes: FixtureWishes = {};
  const number = (text: string) => (/^-?\d*\.?\d+$/.test(text) ? Number(text) : NaN);
  const bad: string[] = [];
  for (const key of ["grip", "clearance", "relief", "spacer"] as const) {
    const text = option(key);
    if (text === undefined) continue;
    const value = number(text) * mm;
    if (Number.isNaN(value)) bad.push(key);
    else wishes[key] = value;
  }
  const pair = (key: "stations" | "pitch", k: number) => {
    const text = option(key);
    if (text === undefined) return;
    const [x, y, ...more] = text.toLowerCase().split("x").map(number);
    if (more.length || Number.isNaN(x) || (y !== undefined && Number.isNaN(y))) bad.push(key);
    else wishes[key] = { x: x * k, y: (y ?? (key === "stations" ? 1 : 0)) * k };
  };
  pair("stations", 1);
  pair("pitch", mm);
  const across = option("across")?.toLowerCase();
  if (across === "x" || across === "y") wishes.across = across;
  else if (across !== undefined) bad.push("across");
  const said = option("placement")?.toLowerCase();
  const placement = reliefPlacements.find((p) => p === said);
  if (placement) wishes.placement = placement;
  else if (said !== undefined) bad.push("placement");
  const ends = option("shoulders")?.toLowerCase();
  const shoulders = shoulderChoices.find((s) => s === ends);
  if (shoulders) wishes.shoulders = shoulders;
  else if (ends !== undefined) bad.push("shoulders");
  const serves = option("setups");
  if (serves !== undefined) wishes.serves = serves.split(",").map(Number);
  const clamps = option("clamps");
  if (clamps) wishes.clamps = clamps;
  const name = option("name");
  if (name) wishes.name = name;
  return bad.length || wishes.serves?.some(Number.isNaN) ? null : wishes;
}

/** Writes the card with a part that holds a setup's piece. @returns the exit code */
export async function derived(
  document: JobDocument,
  asked: Arguments,
  kernel: SolidKernel,
  shop: Shop,
  say: Say,
): Promise<number> {
  const kind = kinds.find((k) => asked.has(k));
  const out = asked.text("out");
  const wishes = wishesOf(asked.text, document.unit);
  const op = Number(asked.text("setup") ?? wishes?.serves?.[0] ?? 10);
  if (!kind || !out || !wishes || !Number.isInteger(op)) {
    say.error(USAGE);
    return 2;
  }
  const parts = await evaluateParts(document, await evaluate(jobOf(document), kernel, shop), kernel, shop.limits);
  const setups = document.setups.length ? document.setups : proposedSetups({ document, parts, kernel, shop });
  const routed: JobDocument = { ...document, setups };
  const input = {
    document: routed,
    parts: parts.map((p) => ({ ...p, job: jobOf(routed, p.id) })),
    kernel,
    shop,
  };
  const made = derive(input, kind, op, wishes);
  if (!made.ok) {
    const [p] = made.problems;
    say.error(`${p.message}${p.expected ? `; expected: ${p.expected}` : ""}`);
    return 1;
  }
  const text = `${writeDocument({ ...routed, setups: made.value.setups })}${made.value.lines.join("\n")}\n`;
  const read = readCard(text);
  if (read.errors.length) {
    for (const e of read.errors) say.error(`${e.line}:${e.column}: ${e.message}; expected: ${e.expected}`);
    return 1;
  }
  await writeFile(out, writeDocument(read.document));
  return 0;
}
