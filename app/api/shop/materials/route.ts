import { materialsToKeep } from "@/core/tables";
import { answer, readBody } from "@/server/http";
import { keepShopMaterials, shopMaterials } from "@/server/shop";

export const dynamic = "force-dynamic";

export const GET = () => answer(async () => Response.json({ materials: await shopMaterials() }));

export const PUT = (request: Request) =>
  answer(async () => {
    const read = await readBody(request, materialsToKeep(await shopMaterials()));
    if (!read.ok) return read.response;
    await keepShopMaterials(read.value);
    return Response.json({ materials: read.value });
  });
