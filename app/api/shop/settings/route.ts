import { z } from "zod";
import { shopSettingsSchema } from "@/core/tables";
import { answer, problemsResponse, readBody } from "@/server/http";
import { keepShopSettings, shopSettings } from "@/server/shop";

export const dynamic = "force-dynamic";
const asked = z.strictObject({ settings: shopSettingsSchema, from: z.string().max(64) });

export const GET = () => answer(async () => Response.json({ settings: await shopSettings() }));

export const PUT = (request: Request) =>
  answer(async () => {
    const read = await readBody(request, asked);
    if (!read.ok) return read.response;
    const kept = await keepShopSettings(read.value.settings, read.value.from);
    return kept.ok ? Response.json({ settings: kept.value }) : problemsResponse(kept.problems, 409);
  });
