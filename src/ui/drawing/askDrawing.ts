"use client";
import { problems } from "./problems";
import type { DrawingAnswer, DrawingWish } from "@/io/drawing";
import { fail, type Result } from "@/core/base/result";

/** Longest a drawing may take to be read, ms. */
const PATIENCE = 20_000;

/**
 * Reads a drawing in a worker of its own, which is ended when it takes too long or is stopped: the page never waits
 * for it.
 */
export function askDrawing<W extends DrawingWish>(
  wish: W,
  patience = PATIENCE,
): { answer: Promise<Result<DrawingAnswer<W>>>; stop: () => void } {
  const worker = new Worker(new URL("./drawing.worker.ts", import.meta.url), { type: "module" });
  let stop = () => {};
  const answer = new Promise<Result<DrawingAnswer<W>>>((resolve) => {
    const end = (r: Result<DrawingAnswer<W>>) => {
      clearTimeout(timer);
      worker.terminate();
      resolve(r);
    };
    const timer = setTimeout(
      () =>
        end(
          fail(problems.readingTooLong(patience / 1000), {
            expected: "a smaller drawing, or the part of it that is needed",
          }),
        ),
      patience,
    );
    worker.onmessage = (e: MessageEvent<Result<DrawingAnswer<W>>>) => end(e.data);
    worker.onerror = () => end(fail(problems.readingTooMuch()));
    stop = () => end(fail(problems.readingStopped()));
    worker.postMessage(wish);
  });
  return { answer, stop: () => stop() };
}
