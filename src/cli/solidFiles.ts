import { createHash } from "node:crypto";
import { readFile } from "node:fs/promises";
import path from "node:path";
import type { JobDocument } from "@/core/job";
import { giveSolids } from "@/core/engine/solidFiles";
import type { SolidKernel } from "@/core/engine/kernel";

/** Larger files are no part that is cut further row by row, bytes. */
const MAX_BYTES = 20_000_000;

/**
 * A document with the STEP files its rows and stocks name, enclosed in it or read beside it, and given to the kernel. What cannot be read is left
 * out: its row says so.
 */
export async function withSolidFiles(
  document: JobDocument,
  file: string,
  kernel: SolidKernel,
  enclosed: ReadonlyMap<string, Uint8Array> = new Map(),
): Promise<JobDocument> {
  const names = document.parts.flatMap((p) =>
    [...p.rows.map((r) => r.body), ...(p.stock ? [p.stock] : [])].flatMap((n) => ("file" in n ? [String(n.file)] : [])),
  );
  if (!names.length) return document;
  const read = new Map<string, Uint8Array>();
  const solids: NonNullable<JobDocument["solids"]> = [];
  for (const name of new Set(names)) {
    const inside = document.solids?.find((s) => s.name.toLowerCase() === name.toLowerCase());
    const bytes =
      (inside && enclosed.get(inside.attachment)) ??
      (await readFile(path.resolve(path.dirname(file), name)).catch(() => null));
    if (!bytes || bytes.length > MAX_BYTES) continue;
    const attachment = createHash("sha256").update(bytes).digest("hex");
    read.set(attachment, bytes);
    solids.push({ name, attachment });
  }
  await giveSolids(solids, kernel, async (hash) => read.get(hash) ?? null);
  return { ...document, solids };
}
