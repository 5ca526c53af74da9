import { z } from "zod";
import { answer, problemsResponse, readBody } from "@/server/http";
import { keepLeftover, leftoversOf } from "@/server/leftovers";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };
const body = z.strictObject({ job: z.unknown(), base: z.number().int().min(0).max(2_000_000_000) });

/** States of the job that another window's replaced. */
export const GET = (_: Request, { params }: Context) =>
  answer(async () => Response.json({ leftovers: await leftoversOf((await params).id) }));

export const POST = (request: Request, { params }: Context) =>
  answer(async () => {
    const read = await readBody(request, body);
    if (!read.ok) return read.response;
    const kept = await keepLeftover((await params).id, read.value.job, read.value.base);
    return kept.ok ? Response.json(kept.value, { status: 201 }) : problemsResponse(kept.problems, 422);
  });
