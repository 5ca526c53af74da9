"use client";
import { useEffect, useState } from "react";
import type { Print } from "@/core/job";
import { askDrawing } from "../drawing/askDrawing";
import { whyNotDrawn } from "./pdfCount";

/**
 * A page of a print as a picture the page and the stage can show: where it is, how high it is for its width, how
 * many pages there are.
 */
export interface PagePicture {
  url: string;
  aspect: number;
  pages: number;
}
type PageState = { picture: PagePicture | null; problem: string };

const kept = new Map<string, Promise<PagePicture>>();
const WIDTH = 2000;

/** Loads a page once; pictures as they are, PDF pages and DXF drawings drawn to a picture. */
function loadPage(print: Print, page: number): Promise<PagePicture> {
  const key = `${print.attachment}|${page}`;
  let p = kept.get(key);
  if (!p) {
    p =
      print.mediaType === "application/pdf"
        ? pdfPage(print.attachment, page)
        : print.mediaType === "image/vnd.dxf"
          ? dxfPage(print.attachment)
          : image(`/api/attachments/${print.attachment}`);
    kept.set(key, p);
    p.catch(() => kept.delete(key));
  }
  return p;
}

export function usePage(print: Print | undefined, page: number): PageState {
  const [state, setState] = useState<PageState & { key: string }>({ picture: null, problem: "", key: "" });
  const key = print ? `${print.attachment}|${page}` : "";
  useEffect(() => {
    if (!print) return;
    let live = true;
    loadPage(print, page).then(
      (picture) => {
        if (live) setState({ picture, problem: "", key });
      },
      (e) => {
        if (live)
          setState({ picture: null, problem: e instanceof Error ? e.message : "this page cannot be shown", key });
      },
    );
    return () => {
      live = false;
    };
    // The attachment never changes under its hash.
  }, [key]);
  return state.key === key ? state : { picture: null, problem: "" };
}

function image(url: string): Promise<PagePicture> {
  return new Promise((resolve, reject) => {
    const img = new Image();
    img.onload = () => resolve({ url, aspect: img.height / img.width, pages: 1 });
    img.onerror = () => reject(new Error("this picture cannot be shown; the server may have lost it"));
    img.src = url;
  });
}

async function bytes(hash: string): Promise<ArrayBuffer> {
  const r = await fetch(`/api/attachments/${hash}`);
  if (!r.ok) throw new Error("this print is gone from the server");
  return r.arrayBuffer();
}

/** Drawing a page takes no longer, ms. */
const PATIENCE = 20_000;

async function pdfPage(hash: string, page: number): Promise<PagePicture> {
  const data = new Uint8Array(await bytes(hash));
  // Counted first, on a copy: what is handed to a worker is gone from here.
  const why = await whyNotDrawn({ data: data.slice(), page });
  if (why) throw new Error(why);
  const pdf = await import("pdfjs-dist");
  pdf.GlobalWorkerOptions.workerSrc = "/kernel/pdf.worker.mjs";
  const document = await pdf.getDocument({ data, isEvalSupported: false, useSystemFonts: true }).promise;
  const leaf = await document.getPage(Math.min(page, document.numPages));
  const plain = leaf.getViewport({ scale: 1 });
  const viewport = leaf.getViewport({ scale: WIDTH / plain.width });
  const canvas = window.document.createElement("canvas");
  canvas.width = Math.round(viewport.width);
  canvas.height = Math.round(viewport.height);
  const drawing = leaf.render({ canvasContext: canvas.getContext("2d")!, viewport });
  const timer = setTimeout(() => drawing.cancel(), PATIENCE);
  try {
    await drawing.promise;
  } catch {
    throw new Error("drawing this page took too long and was given up; save it as a picture (PNG)");
  } finally {
    clearTimeout(timer);
  }
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, "image/png"));
  const pages = document.numPages;
  void document.destroy();
  if (!blob) throw new Error("this page is too large to be shown");
  return { url: URL.createObjectURL(blob), aspect: canvas.height / canvas.width, pages };
}

async function dxfPage(hash: string): Promise<PagePicture> {
  const made = await askDrawing({ want: "picture", text: new TextDecoder().decode(await bytes(hash)) }).answer;
  if (!made.ok) throw new Error(made.problems[0].message);
  const { svg, width, height } = made.value;
  return { url: URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" })), aspect: height / width, pages: 1 };
}
