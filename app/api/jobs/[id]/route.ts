import { z } from "zod";
import type { Patches } from "mutative";
import { readStored, saveEdits, setDeleted } from "@/server/jobs";
import { answer, gone, problemsResponse, readBody } from "@/server/http";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

export const GET = (_: Request, { params }: Context) =>
  answer(async () => {
    const stored = await readStored((await params).id);
    return stored ? Response.json(stored) : gone();
  });

const patch = z.object({
  op: z.enum(["add", "remove", "replace"]),
  path: z.array(z.union([z.string(), z.number()])).max(20),
  value: z.unknown().optional(),
});
const body = z.strictObject({
  base: z.number().int(),
  save: z
    .string()
    .regex(/^[A-Za-z0-9_-]{8,64}$/)
    .optional(),
  patches: z.array(patch).max(50_000),
});

export const PUT = (request: Request, { params }: Context) =>
  answer(async () => {
    const read = await readBody(request, body, { toldByService: true });
    if (!read.ok) return read.response;
    const saved = await saveEdits((await params).id, read.value.base, read.value.patches as Patches, read.value.save);
    if (!saved.ok) return problemsResponse(saved.problems, 422);
    return saved.value.saved
      ? Response.json({ revision: saved.value.revision })
      : Response.json(saved.value.conflict, { status: 409 });
  });

export const DELETE = (_: Request, { params }: Context) =>
  answer(async () => ((await setDeleted((await params).id, true)) ? Response.json({}) : gone()));
