import type { OpenCascadeInstance } from "replicad-opencascadejs";

/** The library as it comes; its own typing is kept where it is right. */
export type OC = OpenCascadeInstance;

/** Wants to be freed; several results of the library do, and are not typed so. */
export interface Deletable {
  delete(): void;
}

/**
 * Runs `work` with a helper that remembers kernel objects and frees them afterwards in reverse order.
 * Every kernel object wants delete(); a boolean also wants Clear() before it or it keeps about 2 MB.
 */
export function scope<T>(work: (own: <D extends Deletable>(d: D) => D) => T): T {
  const owned: Deletable[] = [];
  try {
    return work((d) => {
      owned.push(d);
      return d;
    });
  } finally {
    for (const d of owned.reverse()) {
      try {
        const clearable = d as Deletable & { Clear?: () => void; SetToFillHistory?: unknown };
        if (clearable.SetToFillHistory && clearable.Clear) clearable.Clear();
        d.delete();
      } catch {
        /* already gone with its owner */
      }
    }
  }
}

/** Message of whatever the library threw: its own exceptions are not JavaScript errors. */
export function kernelMessage(oc: OC, e: unknown): string {
  if (
    e instanceof Error &&
    !(typeof WebAssembly !== "undefined" && "Exception" in WebAssembly && e instanceof WebAssembly.Exception)
  )
    return e.message;
  try {
    const m = (oc as { getExceptionMessage(x: unknown): [string, string] }).getExceptionMessage(e);
    return m[1] || m[0];
  } catch {
    return "the solid kernel gave up";
  }
}
