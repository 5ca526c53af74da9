import { shopMaterialsSchema, type ShopMaterial } from "@/core/tables";
import { database } from "./database";

/** The shop's own materials; what cannot be read any more counts as none. */
export async function shopMaterials(): Promise<ShopMaterial[]> {
  const db = await database();
  const [r] = await db.query<{ value: unknown }>("select value from shop_setting where name = 'materials'");
  const read = shopMaterialsSchema.safeParse(r?.value ?? []);
  return read.success ? read.data : [];
}

export async function keepShopMaterials(list: ShopMaterial[]): Promise<void> {
  const db = await database();
  await db.query(
    "insert into shop_setting (name, value) values ('materials', $1) on conflict (name) do update set value = excluded.value",
    [JSON.stringify(list)],
  );
}
