import { duplicateJob } from "@/server/jobs";
import { answer, gone } from "@/server/http";

export const POST = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const copy = await duplicateJob((await params).id);
    return copy ? Response.json(copy, { status: 201 }) : gone();
  });
