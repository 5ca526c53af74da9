import { readAttachment } from "@/server/attachments";
import { answer, problemsResponse } from "@/server/http";

export const GET = (_: Request, { params }: { params: Promise<{ hash: string }> }) =>
  answer(async () => {
    const kept = await readAttachment((await params).hash);
    if (!kept) return problemsResponse([{ message: "this picture is gone" }], 404);
    return new Response(kept.bytes as Uint8Array<ArrayBuffer>, {
      headers: {
        "content-type": kept.mediaType,
        "cache-control": "private, max-age=31536000, immutable",
        "x-content-type-options": "nosniff",
      },
    });
  });
