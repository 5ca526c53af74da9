"use client";

/** A page of a PDF that is to be counted. */
export interface PdfPage {
  data: Uint8Array;
  page: number;
}
/** What it is made of; or that it cannot be read, and whether it is locked. */
export type PdfCount = { ok: true; strokes: number } | { ok: false; isLocked: boolean };

/** Counting a page takes no longer, ms; our own figure, no source. */
const PATIENCE = 8000;
/** A page of more is not drawn: a dense sheet has a tenth. Our own figure, no source. */
const MOST_STROKES = 1_000_000;

const LOCKED = "this PDF asks for a password; save it without one";
const DAMAGED = "this PDF cannot be read; it may be damaged";
const TOO_LONG =
  "reading this page took too long: it is made of more lines than can be drawn here, or this computer is busy; try it again, or save it as a picture (PNG)";
const TOO_MUCH =
  "this page is made of more lines than can be drawn here; save it as a picture (PNG), or the part of it that is needed";

/** Why a page of a PDF is not drawn; null where it can be. It is counted in a worker, which is ended in time. */
export function whyNotDrawn(page: PdfPage): Promise<string | null> {
  const worker = new Worker(new URL("./pdfCount.worker.ts", import.meta.url), { type: "module" });
  return new Promise((resolve) => {
    const end = (why: string | null) => {
      clearTimeout(timer);
      worker.terminate();
      resolve(why);
    };
    const timer = setTimeout(() => end(TOO_LONG), PATIENCE);
    worker.onmessage = (e: MessageEvent<PdfCount>) => end(reasonOf(e.data));
    worker.onerror = () => end(DAMAGED);
    worker.postMessage(page);
  });
}

function reasonOf(count: PdfCount): string | null {
  if (!count.ok) return count.isLocked ? LOCKED : DAMAGED;
  return count.strokes > MOST_STROKES ? TOO_MUCH : null;
}
