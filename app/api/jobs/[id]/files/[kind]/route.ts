import { z } from "zod";
import { exportKinds, exportName, mediaTypes, type ExportKind } from "@/io/exportJob";
import { fileOf } from "@/server/release";
import { answer, gone, problemsResponse } from "@/server/http";

export const dynamic = "force-dynamic";
/** `?setup=20`: of that setup alone; `?part=…`: of another part, by its name. */
const ofWhat = z.object({
  setup: z.coerce.number().int().min(1).max(9999).optional(),
  part: z.string().max(120).optional(),
});

export const GET = (request: Request, { params }: { params: Promise<{ id: string; kind: string }> }) =>
  answer(async () => {
    const { id, kind } = await params;
    if (!(exportKinds as readonly string[]).includes(kind))
      return problemsResponse([{ message: `${kind} is no kind of file`, expected: exportKinds.join(", ") }], 404);
    const of = ofWhat.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!of.success)
      return problemsResponse([{ message: "no such setup or part", expected: "?setup=20 or ?part=name" }], 400);
    const made = await fileOf(id, kind as ExportKind, of.data);
    if (!made) return gone();
    if (!made.file.ok) return problemsResponse(made.file.problems, 422);
    return new Response(made.file.value as Uint8Array<ArrayBuffer>, {
      headers: {
        "content-type": mediaTypes[kind as ExportKind],
        "content-disposition": `attachment; filename="${exportName(made.job, kind as ExportKind, of.data)}"`,
        "x-content-type-options": "nosniff",
      },
    });
  });
