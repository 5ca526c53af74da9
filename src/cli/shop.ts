import { readFile } from "node:fs/promises";
import { fail, ok, type Result } from "@/core/base/result";
import { shopOf, shopSettingsSchema, usualShop, type Shop } from "@/core/tables";

/** The shop whose figures are asked for with `--shop FILE`; without that one that has set nothing. */
export async function shopFrom(file: string | undefined): Promise<Result<Shop>> {
  if (file === undefined) return ok(usualShop);
  let value: unknown;
  try {
    value = JSON.parse(await readFile(file, "utf8"));
  } catch (e) {
    return fail({
      message: `${file}: the shop's figures cannot be read: ${e instanceof Error ? e.message : "unknown"}`,
    });
  }
  const read = shopSettingsSchema.safeParse(value);
  if (read.success) return ok(shopOf(read.data));
  const problems = read.error.issues.map((i) => ({ message: `${file}: ${i.path.join(".")}: ${i.message}` }));
  return { ok: false, problems };
}
