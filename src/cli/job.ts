import { readFile, writeFile } from "node:fs/promises";
import { keyOf } from "@/core/base/key";
import { evaluate, type Evaluation } from "@/core/evaluate/evaluate";
import type { SolidKernel } from "@/core/engine/kernel";
import { evaluateParts, type EvaluatedPart } from "@/core/evaluate/parts";
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
import { exit } from "node:process";
import { explain } from "@/core/mismatch";
import { setupFile } from "@/io/setupFile";
import { evaluateSetups, setupFindingReport, setupsReport } from "@/core/setups";
import { readableExplanations, readableReport } from "./readable";
import type { Shop } from "@/core/tables";
import { shopFrom } from "./shop";
import { derived } from "./derive";
import { withSolidFiles } from "./solidFiles";
import { readableSetups } from "./readableSetups";

const USAGE = `usage:
  npm run -s job -- check FILE [--json]
  npm run -s job -- format FILE
  npm run -s job -- explain FILE [--json]
  npm run -s job -- export FILE --to ${exportKinds.join("|")} --out F [--newer] [--part NAME | --all | --setup OP]
  npm run -s job -- derive FILE --jaws|--plate|--chuck --setup 10 [--grip G] [--clearance C] [--stations 2x1 --pitch 60x0] [--setups 10,20] --out F.card
  npm run -s job -- outlines FILE.dxf|FILE.svg [--unit in|mm] [--from in|mm] [--layer NAME ...] [--mend GAP]
check, export and derive take --shop FILE.json: the shop's own figures, as the page of the shop keeps them.
FILE is a .card or a job's JSON document. --part: of a part other than the workpiece; --all: every part as a solid of one STEP file. --newer: DXF with polylines instead of R12 lines and arcs.
outlines prints the chains of a drawing as OUTLINE blocks of a card; --unit is the card's (mm), --from what the drawing's numbers are.`;
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
async function outlinesOf(file: string, rest: string[]): Promise<number> {
  const after = (name: string) => (rest.includes(name) ? rest[rest.indexOf(name) + 1] : undefined),
    all = (name: string) => rest.flatMap((w, i) => (rest[i - 1] === name ? [w] : []));
  const unit = after("--unit") ?? "mm",
    from = after("--from"),
    mend = after("--mend") ?? "";
  if (![unit, from ?? "mm"].every((u) => u === "in" || u === "mm") || !/\.(dxf|svg)$/i.test(file)) {
    console.error(USAGE);
    return 2;
  }
  let text: string;
  try {
    const bytes = await readFile(file);
    if (bytes.length > MAX_BYTES) {
      console.error(
        `${file}: the file has ${(bytes.length / 1e6).toFixed(1)} MB; at most ${MAX_BYTES / 1e6} MB are read`,
      );
      return 2;
    }
    text = bytes.toString("utf8");
  } catch (e) {
    console.error(`${file}: the file cannot be read: ${(e as NodeJS.ErrnoException).code ?? "unknown"}`);
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
    console.error(`${file}: ${read.problems[0].message}`);
    return 1;
  }
  const r = read.value;
  for (const p of r.problems) console.error(`${file}: ${p}`);
  const layers = all("--layer"),
    chosen = layers.length ? r.chains.filter((c) => layers.includes(c.layer)) : r.chains;
  const names = rowNames([]);
  for (const o of outlinesOfChains(chosen, mend))
    process.stdout.write(
      `OUTLINE "${o.name.replace(/"/g, "”")}"\n${o.items.map((i) => `${writeOutlineItem(i, names)}\n`).join("")}END\n`,
    );
  return chosen.length ? 0 : 1;
}

async function main(argv: string[]): Promise<number> {
  const [verb, file, ...rest] = argv;
  const json = rest.includes("--json");
  if (!["check", "format", "export", "explain", "outlines", "derive"].includes(verb) || !file) {
    console.error(USAGE);
    return 2;
  }
  if (verb === "outlines") return outlinesOf(file, rest);
  const input = await read(file);
  if ("errors" in input) {
    if (verb === "check" && json) console.log(JSON.stringify(headlessReport(null, null, input.errors, null)));
    else if (verb === "explain" && json)
      console.log(JSON.stringify({ ok: false, ...errorReport(input.errors), checks: [] }));
    else for (const e of input.errors) console.error(`${file}:${e.line}:${e.column}: ${lineOf(e)}`);
    return 2;
  }
  if (verb === "format") {
    process.stdout.write(writeDocument(input.document));
    return 0;
  }
  const kernel = await loadKernel();
  const document = await withSolidFiles(input.document, file, kernel, input.files);
  if (document !== input.document) Object.assign(input, { document, job: jobOf(document) });
  const shop = await shopFrom(rest);
  if (!shop.ok) {
    for (const p of shop.problems) console.error(p.message);
    return 2;
  }
  const { limits } = shop.value;
  if (verb === "derive") return derived(input.document, rest, kernel, shop.value);
  const evaluation = await evaluate(input.job, kernel, { limits });
  const parts = await evaluateParts(input.document, evaluation, kernel, limits);
  const failed = parts.some(isFailed);
  if (verb === "check") {
    const setups = evaluateSetups({ document: input.document, parts, kernel, shop: shop.value });
    if (json) {
      const report = headlessReport(input.job, evaluation, [], input.places, input.outlineLines, parts);
      const findings = [...report.findings, ...setups.findings.map(setupFindingReport)];
      console.log(
        JSON.stringify({ ...report, findings, ...setupsReport(setups, (piece) => gougeOf(kernel, evaluation, piece)) }),
      );
    } else
      console.log(
        [...parts.map((p) => readableReport(p.job, p.evaluation)), readableSetups(setups, input.job.unit)].join("\n"),
      );
    return failed ? 1 : 0;
  }
  if (verb === "explain") {
    const found = await explain(input.job, evaluation, kernel);
    console.log(
      json ? JSON.stringify(headlessExplanations(found)) : readableExplanations(input.job, evaluation, found),
    );
    return failed ? 1 : 0;
  }
  return exported(input.document, parts, rest, kernel, shop.value);
}

/** Writes a file of a part, or of all parts. @returns the exit code */
async function exported(
  document: JobDocument,
  parts: EvaluatedPart[],
  rest: string[],
  kernel: SolidKernel,
  shop: Shop,
): Promise<number> {
  const option = (name: string) => (rest.includes(name) ? rest[rest.indexOf(name) + 1] : undefined);
  const to = exportKinds.find((k) => k === option("--to"));
  const out = option("--out");
  if (!to || !out) {
    console.error(USAGE);
    return 2;
  }
  const wanted = option("--part");
  const part = wanted === undefined ? parts[0] : parts.find((p) => p.name.toLowerCase() === wanted.toLowerCase());
  if (!part) {
    console.error(`there is no part "${wanted}"; there are ${parts.map((p) => `"${p.name}"`).join(", ")}`);
    return 2;
  }
  const op = option("--setup");
  const setup = op === undefined ? undefined : setupFile(document, parts, Number(op), kernel, shop);
  if (setup === null) {
    console.error(`there is no setup ${op} that stands`);
    return 2;
  }
  const all = rest.includes("--all") ? parts : undefined;
  const options = { newer: rest.includes("--newer"), part: part.id, all, setup };
  const made = await exportJob(to, document, part.evaluation, kernel, options);
  if (!made.ok) {
    console.error(made.problems[0].message);
    return 1;
  }
  await writeFile(out, made.value);
  return parts.some(isFailed) ? 1 : 0;
}

/** How much of the finished part is missing from a piece, mm³; null where it cannot be told. */
function gougeOf(kernel: SolidKernel, { solved }: Evaluation, piece: string): number | null {
  const part = solved.finalKey;
  if (part === null) return null;
  const missing = kernel.without(keyOf(part, { missingFrom: piece }), part, piece);
  return missing.ok ? missing.value.volume : null;
}

const isFailed = (p: EvaluatedPart): boolean => p.evaluation.solved.rows.some((r) => r.state === "failed");

main(process.argv.slice(2)).then(
  (code) => exit(code),
  (e) => {
    console.error(e instanceof Error ? e.message : String(e));
    exit(3);
  },
);
