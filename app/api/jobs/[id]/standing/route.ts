import { z } from "zod";
import { answer, limitedBody, notWhole, problemsResponse } from "@/server/http";
import { shopMark } from "@/core/tables";
import { shopSettings } from "@/server/shop";
import { engineAtHand, keepStanding, MOST_STANDING, readStanding } from "@/server/standing";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };
/** What stands is by one engine and by the shop's figures. */
const engineNow = async () => engineAtHand() + shopMark(await shopSettings());
const asked = z.object({ revision: z.coerce.number().int().positive(), engine: z.string().min(1).max(128) });

export const GET = (_: Request, { params }: Context) =>
  answer(async () => {
    const bytes = await readStanding((await params).id, await engineNow());
    return bytes
      ? new Response(bytes as Uint8Array<ArrayBuffer>, { headers: { "content-type": "application/octet-stream" } })
      : new Response(null, { status: 204 });
  });

export const PUT = (request: Request, { params }: Context) =>
  answer(async () => {
    const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    const engine = await engineNow();
    if (!read.success || read.data.engine !== engine)
      return problemsResponse([
        {
          message: "this was computed by another engine or by other figures of the shop",
          expected: "the page, loaded anew",
        },
      ]);
    const bytes = await limitedBody(request, MOST_STANDING);
    if (!bytes) return problemsResponse([{ message: "this picture is too large to keep" }], 413);
    const cut = await notWhole(request, bytes);
    if (cut) return problemsResponse([cut]);
    // The two first bytes of what was packed (RFC 1952).
    if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return problemsResponse([{ message: "this is no packed picture" }]);
    const kept = await keepStanding((await params).id, read.data.revision, engine, bytes);
    return kept.ok ? Response.json({}) : problemsResponse(kept.problems, 409);
  });
