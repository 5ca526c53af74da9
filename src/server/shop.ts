import { fail, ok, type Result } from "@/core/base/result";
import {
  keptMaterialsSchema,
  noSettings,
  shopMark,
  shopSettingsSchema,
  type ShopMaterial,
  type ShopSettings,
} from "@/core/tables";
import { database, type Database } from "./database";
import { problems } from "./problems";

/** The shop's own materials; what cannot be read any more counts as none. */
export async function shopMaterials(): Promise<ShopMaterial[]> {
  const db = await database();
  const [r] = await db.query<{ value: unknown }>("select value from shop_setting where name = 'materials'");
  const read = keptMaterialsSchema.safeParse(r?.value ?? []);
  return read.success ? read.data : [];
}

export async function keepShopMaterials(list: ShopMaterial[]): Promise<void> {
  const db = await database();
  await db.query(
    "insert into shop_setting (name, value) values ('materials', $1) on conflict (name) do update set value = excluded.value",
    [JSON.stringify(list)],
  );
}

/** What the shop has set for itself; what cannot be read any more counts as not set. */
export async function shopSettings(on?: Database): Promise<ShopSettings> {
  const db = on ?? (await database());
  const [r] = await db.query<{ value: unknown }>("select value from shop_setting where name = 'figures'");
  const read = shopSettingsSchema.safeParse(r?.value ?? {});
  return read.success ? read.data : noSettings;
}

/**
 * Keeps what the shop has set. What was worked out by other figures is dropped with it.
 * @param from the mark of the settings these were made from: where others have been kept since, nothing is
 */
export async function keepShopSettings(settings: ShopSettings, from: string): Promise<Result<ShopSettings>> {
  const db = await database();
  return db.transaction(async (tx) => {
    if (shopMark(await shopSettings(tx)) !== from) return fail(problems.shopMovedOn());
    await tx.query(
      "insert into shop_setting (name, value) values ('figures', $1) on conflict (name) do update set value = excluded.value",
      [JSON.stringify(settings)],
    );
    await tx.query("delete from job_standing");
    await tx.query("delete from job_summary");
    return ok(settings);
  });
}
