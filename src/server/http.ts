import { type ZodType } from "zod";
import { allKeepable } from "@/core/base/keepable";
import type { Problem } from "@/core/base/result";
import { hashOf } from "./bytes";
import { isDataFolderProblem } from "./folderLock";

/** Largest JSON body taken. */
const MAX_BODY = 8_000_000;

export const problemsResponse = (problems: Problem[], status = 400): Response =>
  Response.json({ problems }, { status });
export const gone = (): Response =>
  problemsResponse([{ message: "this job is gone", expected: "a job on the shelf" }], 404);

/** How a body is read. */
interface BodyRules {
  /** Most bytes that are taken. */
  most?: number;
  /** The service itself tells where text that cannot be kept stands in what was sent: in which row, on which line. */
  toldByService?: true;
}

/** Reads a JSON body through a schema; a wrong one never reaches a service. */
export async function readBody<T>(
  request: Request,
  schema: ZodType<T>,
  { most = MAX_BODY, toldByService }: BodyRules = {},
): Promise<{ ok: true; value: T } | { ok: false; response: Response }> {
  const bytes = await limitedBody(request, most);
  if (!bytes)
    return {
      ok: false,
      response: problemsResponse([{ message: "the request is too large", expected: `at most ${most / 1e6} MB` }], 413),
    };
  const cut = await notWhole(request, bytes);
  if (cut) return { ok: false, response: problemsResponse([cut]) };
  let data: unknown;
  try {
    data = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return { ok: false, response: problemsResponse([{ message: "the request is no JSON" }]) };
  }
  const r = (toldByService ? schema : allKeepable(schema)).safeParse(data);
  if (r.success) return { ok: true, value: r.data };
  return {
    ok: false,
    response: problemsResponse(
      r.error.issues.slice(0, 10).map((i) => ({ message: i.message, path: i.path.join(".") })),
    ),
  };
}

/** What an error of the system or of the database's says about its cause, where a person can do something about it. */
function causeOf(e: unknown): { problem: Problem; status: number } | null {
  const code = typeof e === "object" && e !== null && "code" in e ? String(e.code) : "";
  const words = e instanceof Error ? e.message : "";
  if (DISK_FULL.has(code) || /no space left on device|ENOSPC/i.test(words))
    return {
      problem: { message: "the disk is full: nothing of this was kept", expected: "room on the disk" },
      status: 507,
    };
  if (READ_ONLY.has(code) || /read-only file system|EROFS/i.test(words))
    return { problem: { message: "the data folder cannot be written to: nothing of this was kept" }, status: 507 };
  // Class 22, data exception: what was sent is at fault, and not the server (PostgreSQL manual, appendix A).
  if (/^22[0-9A-Z]{3}$/.test(code))
    return {
      problem: { message: `this cannot be kept: ${words}`, expected: "text and numbers that can" },
      status: 422,
    };
  return null;
}
/** `ENOSPC` and `EDQUOT` of the system, `disk_full` of the database. */
const DISK_FULL = new Set(["ENOSPC", "EDQUOT", "53100"]);
const READ_ONLY = new Set(["EROFS", "EACCES", "EPERM", "25006"]);

/** The body's bytes, or null when there are more than `limit`; it stops reading there. */
export async function limitedBody(request: Request, limit: number): Promise<Uint8Array | null> {
  if (Number(request.headers.get("content-length") ?? 0) > limit) return null;
  return readUpTo(request, limit);
}

/**
 * What came is not what was sent: a body shorter or longer than its sender said, or with another hash. Null when it
 * is whole.
 */
export async function notWhole(request: Request, bytes: Uint8Array): Promise<Problem | null> {
  const said = request.headers.get("content-length");
  if (said !== null && Number(said) !== bytes.length)
    return {
      message: `only ${bytes.length} of ${said} bytes came: nothing was kept`,
      expected: "the whole file; send it again",
    };
  const hash = request.headers.get(HASH_HEADER);
  if (hash !== null && hash.toLowerCase() !== (await hashOf(bytes)))
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
    const cause = causeOf(e);
    if (cause) return problemsResponse([cause.problem], cause.status);
    return problemsResponse(
      [{ message: "something went wrong on the server; nothing was changed", expected: "try again" }],
      500,
    );
  }
}
