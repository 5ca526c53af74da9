import { noSettings } from "@/core/tables";
import { shopSettings } from "@/server/shop";
import { ShopPage } from "@/ui/shop/ShopPage";

export const dynamic = "force-dynamic";

/** The shop's own figures, as the server has them. */
export default async function Page() {
  return <ShopPage kept={await shopSettings().catch(() => noSettings)} />;
}
