import { answer, problemsResponse } from "@/server/http";
import { dropLeftover } from "@/server/leftovers";

export const DELETE = (_: Request, { params }: { params: Promise<{ id: string; leftover: string }> }) =>
  answer(async () => {
    const { id, leftover } = await params;
    return (await dropLeftover(id, leftover))
      ? Response.json({})
      : problemsResponse([{ message: "this was decided about already" }], 404);
  });
