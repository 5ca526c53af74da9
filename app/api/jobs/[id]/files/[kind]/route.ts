import { exportKinds, exportName, mediaTypes, type ExportKind } from "@/io/exportJob";
import { fileOf } from "@/server/release";
import { answer, gone, problemsResponse } from "@/server/http";

export const dynamic = "force-dynamic";
export const GET = (_: Request, { params }: { params: Promise<{ id: string; kind: string }> }) =>
  answer(async () => {
    const { id, kind } = await params;
    if (!(exportKinds as readonly string[]).includes(kind))
      return problemsResponse([{ message: `${kind} is no kind of file`, expected: exportKinds.join(", ") }], 404);
    const made = await fileOf(id, kind as ExportKind);
    if (!made) return gone();
    if (!made.file.ok) return problemsResponse(made.file.problems, 422);
    return new Response(made.file.value as Uint8Array<ArrayBuffer>, {
      headers: {
        "content-type": mediaTypes[kind as ExportKind],
        "content-disposition": `attachment; filename="${exportName(made.job, kind as ExportKind)}"`,
        "x-content-type-options": "nosniff",
      },
    });
  });
