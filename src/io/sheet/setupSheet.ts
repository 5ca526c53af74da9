import type { SolidKernel } from "@/core/engine/kernel";
import type { Evaluation } from "@/core/evaluate/evaluate";
import type { Job } from "@/core/job/schema";
import { planPaths } from "@/core/paths/plan";
import { dimensionedViews, pathsAndRemarks, pictures, routeTable, titleBlock, type SheetJob } from "./pieces";
import { fonts, ink } from "./style";
import { tablesBelow } from "./tables";

interface PdfMake {
  setFonts(f: unknown): void;
  setUrlAccessPolicy?(p: (url: string) => boolean): void;
  setLocalAccessPolicy?(p: (path: string) => boolean): void;
  createPdf(d: unknown): { getBuffer(): Promise<Uint8Array> };
}

const CAUTION =
  "A plan, not a proven program. The machine builder’s manual, the tool maker’s ratings, shop rules and a qualified person at the machine come first.";

/**
 * The setup sheet: picture, stock, hold, rows with callouts, cutters, findings and cautions, then the holes from
 * the datum, the ledger, and what is not planned.
 * @returns the PDF's bytes
 */
export async function setupSheet(job: Job, evaluation: Evaluation, kernel: SolidKernel): Promise<Uint8Array> {
  const { default: pdfmake } = (await import("pdfmake")) as { default: PdfMake };
  pdfmake.setFonts(fonts);
  // Nothing is fetched: every font and picture is on this machine.
  pdfmake.setUrlAccessPolicy?.(() => false);
  pdfmake.setLocalAccessPolicy?.(() => true);
  const sheet: SheetJob = {
    job,
    evaluation,
    kernel,
    plans: planPaths(job, evaluation.solved.rows, evaluation.stock?.placed.box),
    open: evaluation.findings.filter((f) => !f.waived),
  };
  const document = {
    pageSize: { in: "LETTER", mm: "A4" }[job.unit],
    pageMargins: [32, 28, 32, 40],
    info: { title: `${job.name} rev ${job.revision}, setup sheet`, creator: "Sgorbia" },
    defaultStyle: { font: "Text", fontSize: 8.5, color: ink.line, lineHeight: 1.1 },
    footer: (page: number, pages: number) => ({
      margin: [32, 8, 32, 0],
      fontSize: 7,
      color: ink.soft,
      columns: [
        { width: "*", text: CAUTION },
        { width: 60, text: `${page} / ${pages}`, alignment: "right" },
      ],
    }),
    content: [
      titleBlock(sheet),
      pictures(sheet),
      routeTable(sheet),
      pathsAndRemarks(sheet),
      ...dimensionedViews(sheet),
      ...tablesBelow(sheet),
    ],
  };
  return new Uint8Array(await pdfmake.createPdf(document).getBuffer());
}
