import { createHash } from "node:crypto";
import { type ZodType } from "zod";
import type { Problem } from "@/core/base/result";
import { isDataFolderProblem } from "./folderLock";

/** Largest JSON body taken. */
const MAX_BODY = 8_000_000;

export const problemsResponse = (problems: Problem[], status = 400): Response =>
  Response.json({ problems }, { status });
export const gone = (): Response =>
  problemsResponse([{ message: "this job is gone", expected: "a job on the shelf" }], 404);

/** Reads a JSON body through a schema; a wrong one never reaches a service. */
export async function readBody<T>(
  request: Request,
  schema: ZodType<T>,
  most = MAX_BODY,
): Promise<{ ok: true; value: T } | { ok: false; response: Response }> {
  const bytes = await limitedBody(request, most);
  if (!bytes)
    return {
      ok: false,
      response: problemsResponse([{ message: "the request is too large", expected: `at most ${most / 1e6} MB` }], 413),
    };
  const cut = notWhole(request, bytes);
  if (cut) return { ok: false, response: problemsResponse([cut]) };
  let data: unknown;
  try {
    data = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return { ok: false, response: problemsResponse([{ message: "the request is no JSON" }]) };
  }
  const r = schema.safeParse(data);
  if (r.success) return { ok: true, value: r.data };
  return {
    ok: false,
    response: problemsResponse(
      r.error.issues.slice(0, 10).map((i) => ({ message: i.message, path: i.path.join(".") })),
    ),
  };
}

/** The body's bytes, or null when there are more than `limit`; it stops reading there. */
export async function limitedBody(request: Request, limit: number): Promise<Uint8Array | null> {
  if (Number(request.headers.get("content-length") ?? 0) > limit) return null;
  return readUpTo(request, limit);
}

/**
 * What came is not what was sent: a body shorter or longer than its sender said, or with another hash. Null when it
 * is whole.
 */
export function notWhole(request: Request, bytes: Uint8Array): Problem | null {
  const said = request.headers.get("content-length");
  if (said !== null && Number(said) !== bytes.length)
    return {
      message: `only ${bytes.length} of ${said} bytes came: nothing was kept`,
      expected: "the whole file; send it again",
    };
  const hash = request.headers.get(HASH_HEADER);
  if (hash !== null && hash.toLowerCase() !== createHash("sha256").update(bytes).digest("hex"))
    return { message: "the file was changed on its way: nothing was kept", expected: "the same bytes; send it again" };
  return null;
}
/** Header in which the page says the SHA-256 of what it sends. */
const HASH_HEADER = "x-content-sha256";

async function readUpTo(request: Request, limit: number): Promise<Uint8Array | null> {
  if (!request.body) return new Uint8Array();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > limit) {
      await reader.cancel();
      return null;
    }
    chunks.push(value);
  }
  const all = new Uint8Array(size);
  let at = 0;
  for (const c of chunks) {
    all.set(c, at);
    at += c.length;
  }
  return all;
}

/** Runs a handler; what nobody expected becomes a plain sentence, never a stack trace. */
export async function answer(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (e) {
    console.error(e);
    if (isDataFolderProblem(e))
      return problemsResponse([{ message: e.message, expected: "one server a data folder" }], 503);
    return problemsResponse(
      [{ message: "something went wrong on the server; nothing was changed", expected: "try again" }],
      500,
    );
  }
}
