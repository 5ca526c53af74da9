import { unitNames } from "@/core/number";
import { z } from "zod";
import { allKeepable } from "@/core/base/keepable";
import { createJob, importText, listJobs } from "@/server/jobs";
import { answer, problemsResponse, readBody } from "@/server/http";

export const dynamic = "force-dynamic";

export const GET = (request: Request) =>
  answer(async () =>
    Response.json({ jobs: await listJobs(new URL(request.url).searchParams.get("q")?.slice(0, 100) ?? "") }),
  );

/** A job with its prints and solids enclosed, bytes. */
const MAX_IMPORT = 80_000_000;

const body = z.union([
  z.strictObject({
    name: z.string().trim().min(1).max(120),
    unit: z.enum(unitNames),
    material: z.string().max(120),
  }),
  z.strictObject({ text: z.string() }),
]);

export const POST = (request: Request) =>
  answer(async () => {
    const read = await readBody(request, body, { most: MAX_IMPORT, toldByService: true });
    if (!read.ok) return read.response;
    if ("text" in read.value) {
      const made = await importText(read.value.text);
      return made.ok ? Response.json(made.value, { status: 201 }) : problemsResponse(made.problems);
    }
    const named = allKeepable(body).safeParse(read.value);
    if (!named.success) return problemsResponse(named.error.issues.map((i) => ({ message: i.message, path: "name" })));
    return Response.json(await createJob(read.value.name, read.value.unit, read.value.material), { status: 201 });
  });
