import { del, get, set } from "idb-keyval";
import { shopSettingsSchema, type ShopSettings } from "@/core/tables";
import { quietly } from "./unsent";

/** Figures of the shop that the server has not acknowledged, and what they were set on. */
interface UnsentShop {
  base: ShopSettings;
  settings: ShopSettings;
}
const KEY = "unsent-shop-figures";

export const keepShop = (unsent: UnsentShop) => quietly(() => set(KEY, unsent));
export const forgetShop = () => quietly(() => del(KEY));

/** What a page that was left had set and not got kept; null where there is none that can be read. */
export async function readShop(): Promise<UnsentShop | null> {
  const kept = await quietly(() => get<UnsentShop>(KEY));
  const [base, settings] = [kept?.base, kept?.settings].map((s) => shopSettingsSchema.safeParse(s));
  return base.success && settings.success ? { base: base.data, settings: settings.data } : null;
}
