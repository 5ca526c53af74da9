import { Readable } from "node:stream";
import { openAttachment } from "@/server/attachments";
import { answer, problemsResponse } from "@/server/http";

export const GET = (_: Request, { params }: { params: Promise<{ hash: string }> }) =>
  answer(async () => {
    const kept = await openAttachment((await params).hash);
    if (!kept) return problemsResponse([{ message: "this picture is gone" }], 404);
    return new Response(Readable.toWeb(Readable.from(kept.pieces())) as ReadableStream, {
      headers: {
        "content-length": String(kept.size),
        "content-type": kept.mediaType,
        "cache-control": "private, max-age=31536000, immutable",
        "x-content-type-options": "nosniff",
      },
    });
  });
