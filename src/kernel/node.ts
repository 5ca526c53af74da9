import { OpenCascadeKernel } from "./openCascade";
import type { OC } from "./oc";

let loading: Promise<{ oc: OC; kernel: OpenCascadeKernel }> | null = null;

/**
 * The Node door: the library itself and one kernel on it, loaded once. It prints to standard output, which is
 * silenced.
 */
export function loadEngine(): Promise<{ oc: OC; kernel: OpenCascadeKernel }> {
  loading ??= (async () => {
    const { default: init } = await import("replicad-opencascadejs");
    const oc = await init({ print: () => {}, printErr: () => {} });
    return { oc, kernel: new OpenCascadeKernel(oc) };
  })();
  return loading;
}

/** The kernel, ready; one that broke in its own memory is replaced by a new one. */
export async function loadKernel(): Promise<OpenCascadeKernel> {
  if ((await loadEngine()).kernel.broken) loading = null;
  return (await loadEngine()).kernel;
}
