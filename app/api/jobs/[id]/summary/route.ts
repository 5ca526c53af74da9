import { summaryOf } from "@/server/release";
import { answer, gone } from "@/server/http";

export const dynamic = "force-dynamic";
export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const summary = await summaryOf((await params).id);
    return summary ? Response.json(summary) : gone();
  });
