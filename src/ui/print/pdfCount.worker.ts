/**
 * How many strokes, letters and pictures a page of a PDF is made of, counted where it holds nothing up: a file of two
 * kilobytes can ask for sixty million.
 */
import * as pdf from "pdfjs-dist";
import type { PdfCount, PdfPage } from "./pdfCount";

const answer = (count: PdfCount) => postMessage(count);

addEventListener("message", (e: MessageEvent<PdfPage>) => {
  const { data, page } = e.data;
  count(data, page).then(answer, (error: { name?: string }) =>
    answer({ ok: false, isLocked: error.name === "PasswordException" }),
  );
});

async function count(data: Uint8Array, page: number): Promise<PdfCount> {
  // Given its own worker: the library looks for a window before it makes one.
  const worker = pdf.PDFWorker.fromPort({ port: new Worker("/kernel/pdf.worker.mjs", { type: "module" }) });
  const document = await pdf.getDocument({ data, worker, isEvalSupported: false, disableFontFace: true }).promise;
  const leaf = await document.getPage(Math.min(page, document.numPages));
  const { fnArray } = await leaf.getOperatorList();
  return { ok: true, strokes: fnArray.length };
}
