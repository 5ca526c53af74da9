import { readFile, writeFile } from "node:fs/promises";
import { keyOf } from "@/core/base/key";
import { evaluate, type Evaluation } from "@/core/evaluate/evaluate";
import type { SolidKernel } from "@/core/engine/kernel";
import { evaluateParts, type EvaluatedPart } from "@/core/evaluate/parts";
import { offered } from "@/core/evaluate/triedFixes";
import { errorReport, headlessReport } from "@/core/evaluate/report";
import { headlessExplanations } from "@/core/mismatch/headless";
import { readCard, writeDocument, type CardError, type ReadCard } from "@/core/callout";
import { readEnclosed } from "@/core/job/enclosed";
import { lineAndColumn } from "@/core/job/read";
import type { Job } from "@/core/job/schema";
import { loadKernel } from "@/kernel/node";
import { exportJob, exportKinds } from "@/io/exportJob";
import { outlinesOfChains } from "@/io/chainItems";
import { readDrawing } from "@/io/drawing";
import { writeOutlineItem } from "@/core/callout";
import { jobOf, rowNames, type JobDocument } from "@/core/job";
import type { LengthUnit } from "@/core/number";
import type { Say } from "./say";
import { explain } from "@/core/mismatch";
import { setupFile } from "@/io/setupFile";
import { evaluateSetups, gougeFindings, setupFindingReport, setupsReport } from "@/core/setups";
import { readableExplanations, readableReport } from "./readable";
import type { Shop } from "@/core/tables";
import { argumentsOf, USAGE, type Arguments } from "./arguments";
import { shopFrom } from "./shop";
import { tableOf } from "./table";
import { derived } from "./derive";
import { withSolidFiles } from "./solidFiles";
import { readableSetups } from "./readableSetups";

const MAX_BYTES = 20_000_000;

type Read =
  | {
      job: Job;
      document: JobDocument;
      /** Files enclosed in it, by their hash. */
      files?: ReadonlyMap<string, Uint8Array>;
      places: ReadCard["places"] | null;
      outlineLines: ReadCard["outlineLines"] | null;
    }
  | { errors: CardError[] };

/** Reads a card or a JSON document; all errors of a card are listed. */
async function read(file: string): Promise<Read> {
  let text: string;
  try {
    const bytes = await readFile(file);
    if (bytes.length > MAX_BYTES)
      return {
        errors: [{ line: 1, column: 1, message: "the file is too large", expected: `at most ${MAX_BYTES / 1e6} MB` }],
      };
    text = bytes.toString("utf8");
  } catch (e) {
    return {
      errors: [
        {
          line: 1,
          column: 1,
          message: `the file cannot be read: ${(e as NodeJS.ErrnoException).code ?? "unknown"}`,
          expected: "a .card or JSON file",
        },
      ],
    };
  }
  if (text.trimStart().startsWith("{")) {
    const job = readEnclosed(text);
    if (job.ok) {
      const { job: document, files } = job.value;
      return { job: jobOf(document), document, files, places: null, outlineLines: null };
    }
    return {
      errors: job.problems.map((p) => ({
        ...(p.at !== undefined ? lineAndColumn(text, p.at) : { line: 1, column: 1 }),
        message: p.path ? `${p.path}: ${p.message}` : p.message,
        expected: p.expected ?? "",
      })),
    };
  }
  const card = readCard(text);
  return card.errors.length
    ? { errors: card.errors }
    : { job: card.job, document: card.document, places: card.places, outlineLines: card.outlineLines };
}

/** What is wrong with a line, what was expected, and what could be typed instead. */
const lineOf = ({ message, expected, instead }: CardError): string =>
  [message, expected && `expected: ${expected}`, instead && `type: ${instead}`].filter(Boolean).join("; ");

/** Prints the chains of a drawing as blocks of a card; what is wrong with the file goes to standard error. */
async function outlinesOf(asked: Arguments, say: Say): Promise<number> {
  const { file } = asked;
  const unit = asked.text("unit") ?? "mm",
    from = asked.text("from"),
    mend = asked.text("mend") ?? "";
  if (![unit, from ?? "mm"].every((u) => u === "in" || u === "mm") || !/\.(dxf|svg)$/i.test(file)) {
    say.error(USAGE);
    return 2;
  }
  let text: string;
  try {
    const bytes = await readFile(file);
    if (bytes.length > MAX_BYTES) {
      say.error(`${file}: the file has ${(bytes.length / 1e6).toFixed(1)} MB; at most ${MAX_BYTES / 1e6} MB are read`);
      return 2;
    }
    text = bytes.toString("utf8");
  } catch (e) {
    say.error(`${file}: the file cannot be read: ${(e as NodeJS.ErrnoException).code ?? "unknown"}`);
    return 2;
  }
  const read = readDrawing({
    want: "chains",
    name: file,
    text,
    unit: unit as LengthUnit,
    taken: from as LengthUnit | undefined,
  });
  if (!read.ok) {
    say.error(`${file}: ${read.problems[0].message}`);
    return 1;
  }
  const r = read.value;
  for (const p of r.problems) say.error(`${file}: ${p}`);
  const layers = asked.all("layer"),
    chosen = layers.length ? r.chains.filter((c) => layers.includes(c.layer)) : r.chains;
  const names = rowNames([]);
  for (const o of outlinesOfChains(chosen, mend))
    say.text(
      `OUTLINE "${o.name.replace(/"/g, "”")}"\n${o.items.map((i) => `${writeOutlineItem(i, names)}\n`).join("")}END\n`,
    );
  return chosen.length ? 0 : 1;
}

/**
 * Does what the words of a command ask.
 * @param from the folder its files are named from
 * @returns its exit code
 */
export async function command(argv: string[], from: string, say: Say): Promise<number> {
  const asked = argumentsOf(argv, from);
  if (typeof asked === "string") {
    say.error(`${asked}\n${USAGE}`);
    return 2;
  }
  const { verb, file } = asked;
  const json = asked.has("json");
  if (verb === "outlines") return outlinesOf(asked, say);
  if (verb === "table") return tableOf(asked, say);
  const input = await read(file);
  if ("errors" in input) {
    if (verb === "check" && json) say.line(JSON.stringify(headlessReport(null, null, input.errors, null)));
    else if (verb === "explain" && json)
      say.line(JSON.stringify({ ok: false, ...errorReport(input.errors), checks: [] }));
    else for (const e of input.errors) say.error(`${file}:${e.line}:${e.column}: ${lineOf(e)}`);
    return 2;
  }
  if (verb === "format") {
    say.text(writeDocument(input.document));
    return 0;
  }
  const kernel = await loadKernel();
  const document = await withSolidFiles(input.document, file, kernel, input.files);
  if (document !== input.document) Object.assign(input, { document, job: jobOf(document) });
  const shop = await shopFrom(asked.text("shop"));
  if (!shop.ok) {
    for (const p of shop.problems) say.error(p.message);
    return 2;
  }
  const { limits } = shop.value;
  if (verb === "derive") return derived(input.document, asked, kernel, shop.value, say);
  const evaluation = await evaluate(input.job, kernel, { limits });
  const parts = await evaluateParts(input.document, evaluation, kernel, limits);
  const failed = parts.some(isFailed);
  if (verb === "check") {
    for (const { job, evaluation: its } of parts)
      its.findings = await offered({ job, evaluation: its, kernel, limits }, asked.has("fixes"));
    const setups = evaluateSetups({ document: input.document, parts, kernel, shop: shop.value });
    if (json) {
      const report = headlessReport(input.job, evaluation, [], input.places, input.outlineLines, parts);
      const gouge = remembered((piece: string) => gougeOf(kernel, evaluation, piece));
      const ofSetups = [...setups.findings, ...gougeFindings(setups, input.job.unit, gouge)];
      const findings = [...report.findings, ...ofSetups.map(setupFindingReport)];
      say.line(JSON.stringify({ ...report, findings, ...setupsReport(setups, gouge) }));
    } else
      say.line(
        [...parts.map((p) => readableReport(p.job, p.evaluation)), readableSetups(setups, input.job.unit)].join("\n"),
      );
    return failed ? 1 : 0;
  }
  if (verb === "explain") {
    const found = await explain(input.job, evaluation, kernel);
    say.line(json ? JSON.stringify(headlessExplanations(found)) : readableExplanations(input.job, evaluation, found));
    return failed ? 1 : 0;
  }
  return exported(input.document, parts, asked, kernel, shop.value, say);
}

/** Writes a file of a part, or of all parts. @returns the exit code */
async function exported(
  document: JobDocument,
  parts: EvaluatedPart[],
  asked: Arguments,
  kernel: SolidKernel,
  shop: Shop,
  say: Say,
): Promise<number> {
  const to = exportKinds.find((k) => k === asked.text("to"));
  const out = asked.text("out");
  if (!to || !out) {
    say.error(USAGE);
    return 2;
  }
  const wanted = asked.text("part");
  const part = wanted === undefined ? parts[0] : parts.find((p) => p.name.toLowerCase() === wanted.toLowerCase());
  if (!part) {
    say.error(`there is no part "${wanted}"; there are ${parts.map((p) => `"${p.name}"`).join(", ")}`);
    return 2;
  }
  const op = asked.text("setup");
  const setup = op === undefined ? undefined : setupFile(document, parts, Number(op), kernel, shop);
  if (setup === null) {
    say.error(`there is no setup ${op} that stands`);
    return 2;
  }
  const all = asked.has("all") ? parts : undefined;
  const options = { newer: asked.has("newer"), part: part.id, all, setup };
  const made = await exportJob(to, document, part.evaluation, kernel, options);
  if (!made.ok) {
    say.error(made.problems[0].message);
    return 1;
  }
  await writeFile(out, made.value);
  return parts.some(isFailed) ? 1 : 0;
}

/** A figure asked for twice is worked out once. */
function remembered<T>(work: (of: string) => T): (of: string) => T {
  const known = new Map<string, T>();
  return (of) => {
    if (!known.has(of)) known.set(of, work(of));
    return known.get(of)!;
  };
}

/** How much of the finished part is missing from a piece, mm³; null where it cannot be told. */
function gougeOf(kernel: SolidKernel, { solved }: Evaluation, piece: string): number | null {
  const part = solved.finalKey;
  if (part === null) return null;
  const missing = kernel.without(keyOf(part, { missingFrom: piece }), part, piece);
  return missing.ok ? missing.value.volume : null;
}

const isFailed = (p: EvaluatedPart): boolean => p.evaluation.solved.rows.some((r) => r.state === "failed");
