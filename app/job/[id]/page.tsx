import { preload } from "react-dom";
import { drawnOf, readStored } from "@/server/jobs";
import { noSettings } from "@/core/tables";
import { shopSettings } from "@/server/shop";
import { Bench } from "@/ui/bench/Bench";

export const dynamic = "force-dynamic";

/** A job on the bench: it comes with the page, and its last picture is on its way before the page's scripts run. */
export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const stored = await readStored(id).catch(() => null);
  if (stored) preload(`/api/jobs/${id}/standing`, { as: "fetch", crossOrigin: "anonymous" });
  const picture = stored ? await drawnOf(id, stored.revision).catch(() => null) : null;
  const shop = await shopSettings().catch(() => noSettings);
  return <Bench id={id} stored={stored} drawn={picture} shop={shop} />;
}
