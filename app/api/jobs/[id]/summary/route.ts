import { z } from "zod";
import { summarySchema } from "@/io/summary";
import { answer, gone, problemsResponse, readBody } from "@/server/http";
import { keepSummary, summaryOf } from "@/server/release";

export const dynamic = "force-dynamic";
export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const summary = await summaryOf((await params).id);
    return summary ? Response.json(summary) : gone();
  });

const worked = z.strictObject({ revision: z.number().int().positive(), summary: summarySchema });

/** The page has worked the part out: it need not be done again for the shelf. */
export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const body = await readBody(request, worked);
    if (!body.ok) return body.response;
    const kept = await keepSummary((await params).id, body.value.revision, body.value.summary);
    return kept.ok ? Response.json({}) : problemsResponse(kept.problems, 409);
  });
