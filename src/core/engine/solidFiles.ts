import type { Job } from "../job/schema";
import type { Recipe } from "../rows";
import type { SolidKernel } from "./kernel";

/** A recipe with the content of the file it is made from, by what the job keeps; as it is where there is none. */
export function withContent(recipe: Recipe, solids: Job["solids"]): Recipe {
  if (recipe.op !== "leave" || recipe.body.body !== "imported") return recipe;
  return { ...recipe, body: { ...recipe.body, content: contentOf(recipe.body.file, solids) } };
}

/** The content of a file by its name, as the job keeps it: the very name first. Null where there is none. */
export function contentOf(file: string, solids: Job["solids"]): string | null {
  const kept = solids?.find((s) => s.name === file) ?? solids?.find((s) => s.name.toLowerCase() === file.toLowerCase());
  return kept?.attachment ?? null;
}

/**
 * Gives the kernel the files of a job's solids before it is solved.
 * @param load the bytes of an attachment by its hash; null where they are not there: its row says so
 */
export async function giveSolids(
  solids: Job["solids"],
  kernel: SolidKernel,
  load: (attachment: string) => Promise<Uint8Array | null>,
): Promise<void> {
  for (const { attachment } of solids ?? []) {
    if (kernel.hasFile(attachment)) continue;
    const bytes = await load(attachment);
    if (bytes) kernel.giveFile(attachment, bytes);
  }
}
