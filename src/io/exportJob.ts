import { problems } from "./problems";
import type { AnyJob } from "@/core/job/edits";
import { documentOf, jobOf } from "@/core/job/parts";
import { releaseState, releaseWords, signedWith } from "@/core/job/release";
import type { Job } from "@/core/job/schema";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { EvaluatedPart } from "@/core/evaluate/parts";
import type { SolidKernel } from "@/core/engine/kernel";
import { viewOf } from "@/core/engine/views";
import { writeCard, writeDocument } from "@/core/callout/card";
import { pathFile } from "@/core/paths/file";
import type { Frame } from "@/core/geometry/vec";
import { planPaths } from "@/core/paths/plan";
import type { EvaluatedSetup } from "@/core/setups";
import { oneSetupSheet } from "./sheet/oneSetup";
import { fail, ok, type Result } from "@/core/base/result";
import { pathsDxf } from "./dxf";
import { outlineDxf, outlineDxfNewer } from "./dxfOutlines";
import { pathsNc } from "./ncWords";
import { setupSheet } from "./sheet/setupSheet";
import { withHeader } from "./stepHeader";
import { stlBytes } from "./stl";
import { drawingSvg, outlinesSvg } from "./svg";

export const exportKinds = ["step", "stl", "dxf", "svg", "pdf", "nc", "json", "card"] as const;
export type ExportKind = (typeof exportKinds)[number];

export const mediaTypes: Record<ExportKind, string> = {
  step: "model/step",
  stl: "model/stl",
  dxf: "image/vnd.dxf",
  svg: "image/svg+xml",
  pdf: "application/pdf",
  nc: "text/plain; charset=utf-8",
  json: "application/json",
  card: "text/plain; charset=utf-8",
};

/** Any file of a job. Kinds that show the part need one; job and card always work. */
export async function exportJob(
  kind: ExportKind,
  given: AnyJob,
  evaluation: Evaluation,
  kernel: SolidKernel,
  options: { newer?: boolean; part?: string; all?: EvaluatedPart[]; setup?: SetupFile } = {},
): Promise<Result<Uint8Array>> {
  const job = "parts" in given ? signedWith(jobOf(given, options.part), jobOf(given)) : given;
  const text = (t: string) => ok(new TextEncoder().encode(t));
  if (kind === "json") return text(JSON.stringify("parts" in given ? given : documentOf(given), null, 2) + "\n");
  if (kind === "card") return text("parts" in given ? writeDocument(given) : writeCard(job));
  // Outlines go out as DXF with the paths, and alone where there is no part yet.
  if (kind === "dxf" && job.outlines.length && (options.newer || evaluation.solved.finalKey === null))
    return text((options.newer ? outlineDxfNewer : outlineDxf)(evaluation.outlines, job.unit));
  // An outline alone can be shown as SVG too.
  if (kind === "svg" && job.outlines.length && evaluation.solved.finalKey === null)
    return text(outlinesSvg(evaluation.outlines));
  const key = evaluation.solved.finalKey;
  if (key === null) return fail(problems.nothingToExport());
  switch (kind) {
    case "step":
      return ok(withHeader(kernel.step(solidsOf(job, key, options)), job, exportName(job, kind)));
    case "stl":
      return ok(stlBytes(kernel.closedMesh(key), job.name));
    case "svg":
      return text(drawingSvg(kernel.drawing(key, viewOf.top, true)));
    case "dxf":
      if (options.setup) return text(pathsDxf(options.setup.evaluated.plans, job.unit, []));
      return text(pathsDxf(plansOf(job, evaluation), job.unit, evaluation.outlines));
    case "nc": {
      // Words with another zero and another side up than the setup says would crash a cutter.
      if (options.setup) return fail(problems.noWordsOfSetup());
      const words = pathsNc(
        pathFile(job, evaluation, plansOf(job, evaluation)),
        job.unit,
        `${job.name} rev ${job.revision}, ${releaseWords(job)}`,
      );
      return words.ok ? text(words.value) : words;
    }
    case "pdf":
      return ok(
        await (options.setup
          ? oneSetupSheet(job, options.setup, evaluation, kernel)
          : setupSheet(job, evaluation, kernel)),
      );
  }
}

/** What a file of one setup is made of: what stands in it, and its paths. */
export interface SetupFile {
  assembly: { key: string; name: string; place: Frame }[];
  evaluated: EvaluatedSetup;
  /** Balloons of the job that span a turn-over. */
  marked: number[];
}

/** The solids a STEP file holds: what stands in a setup, every part, or the one part. */
const solidsOf = (job: Job, key: string, { setup, all }: { setup?: SetupFile; all?: EvaluatedPart[] }) =>
  setup?.assembly ?? (all ? namedStates(all) : [{ key, name: job.part?.name ?? job.name }]);

const namedStates = (parts: EvaluatedPart[]): { key: string; name: string }[] =>
  parts.flatMap(({ name, evaluation }) => {
    const key = evaluation.solved.finalKey;
    return key === null ? [] : [{ key, name }];
  });

const plansOf = (job: Job, e: Evaluation) => planPaths(job, e.solved.rows, e.stock?.placed.box);

/** A file name that says what it is: name, revision, kind. */
export const exportName = (given: AnyJob, kind: ExportKind, of: { setup?: number; part?: string } = {}): string => {
  const job = "parts" in given ? jobOf(given) : given;
  const what = of.setup === undefined ? (of.part ? `-${slug(of.part)}` : "") : `-setup-${of.setup}`;
  const revision = job.revision.toLowerCase().replace(/[^a-z0-9]+/g, "") || "x";
  // What was signed is another thing than what is in this file.
  const state = releaseState(job).state === "changed" ? "-changed-since-release" : "";
  return `${slug(job.name) || "job"}${what}-rev-${revision}${state}.${kind === "json" ? "job.json" : kind}`;
};
const slug = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
