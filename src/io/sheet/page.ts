import { unitOf } from "@/core/number";
import type { Job } from "@/core/job/schema";
import { fonts, ink, type Piece } from "./style";

interface PdfMake {
  setFonts(f: unknown): void;
  setUrlAccessPolicy?(p: (url: string) => boolean): void;
  setLocalAccessPolicy?(p: (path: string) => boolean): void;
  createPdf(d: unknown): { getBuffer(): Promise<Uint8Array> };
}

const CAUTION =
  "A plan, not a proven program. The machine builder’s manual, the tool maker’s ratings, shop rules and a qualified person at the machine come first.";

/** A sheet of pieces, on the paper of the job's unit, with the caution at its foot. @returns the PDF's bytes */
export async function page(job: Job, what: string, content: Piece[]): Promise<Uint8Array> {
  const { default: pdfmake } = (await import("pdfmake")) as { default: PdfMake };
  pdfmake.setFonts(fonts);
  // Nothing is fetched: every font and picture is on this machine.
  pdfmake.setUrlAccessPolicy?.(() => false);
  pdfmake.setLocalAccessPolicy?.(() => true);
  const document = {
    pageSize: unitOf[job.unit].inFiles.paper,
    pageMargins: [32, 28, 32, 40],
    info: { title: `${job.name} rev ${job.revision}, ${what}`, creator: "Sgorbia" },
    defaultStyle: { font: "Text", fontSize: 8.5, color: ink.line, lineHeight: 1.1 },
    footer: (at: number, pages: number) => ({
      margin: [32, 8, 32, 0],
      fontSize: 7,
      color: ink.soft,
      columns: [
        { width: "*", text: CAUTION },
        { width: 60, text: `${at} / ${pages}`, alignment: "right" },
      ],
    }),
    content,
  };
  return new Uint8Array(await pdfmake.createPdf(document).getBuffer());
}
