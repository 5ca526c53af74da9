import { keepAttachment, MAX_ATTACHMENT } from "@/server/attachments";
import { answer, limitedBody, notWhole, problemsResponse } from "@/server/http";

export const POST = (request: Request) =>
  answer(async () => {
    const bytes = await limitedBody(request, MAX_ATTACHMENT);
    if (!bytes)
      return problemsResponse(
        [{ message: "the file is too large", expected: `at most ${MAX_ATTACHMENT / 1e6} MB` }],
        413,
      );
    const cut = await notWhole(request, bytes);
    if (cut) return problemsResponse([cut]);
    const kept = await keepAttachment(bytes);
    return kept.ok ? Response.json(kept.value, { status: 201 }) : problemsResponse(kept.problems, 415);
  });
