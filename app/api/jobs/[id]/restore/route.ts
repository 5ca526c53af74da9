import { setDeleted } from "@/server/jobs";
import { answer, gone } from "@/server/http";

export const POST = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => ((await setDeleted((await params).id, false)) ? Response.json({}) : gone()));
