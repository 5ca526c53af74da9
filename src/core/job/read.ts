import { problems } from "./problems";
import { fail, ok, type Problem, type Result } from "../base/result";
import { migrated } from "./migrate";
import { jobSchema, JOB_FORMAT, JOB_VERSION, type JobDocument } from "./schema";

/**
 * Reads a job document that came from outside.
 * @returns the job, or problems that name the place (`rows[2].body.deep`)
 */
export function readJob(data: unknown): Result<JobDocument> {
  if (typeof data !== "object" || data === null || Array.isArray(data)) return fail(problems.notADocument());
  const d = data as { format?: unknown; version?: unknown };
  if (d.format !== JOB_FORMAT)
    return fail(problems.notADocumentOfJobs(), { path: "format", expected: JSON.stringify(JOB_FORMAT) });
  if (typeof d.version === "number" && d.version > JOB_VERSION)
    return fail(problems.newerVersion(d.version, JOB_VERSION), { path: "version" });
  const read = jobSchema.safeParse(migrated(data));
  if (read.success) return ok(read.data as JobDocument);
  const found: Problem[] = read.error.issues.slice(0, 20).map((i) => ({
    message: i.message,
    path: pathText(i.path),
    place: i.path,
  }));
  return { ok: false, problems: found };
}

/** Why a changed job could not be saved, in words, by the very schema it is saved through; null when it could. */
export function refusedBySchema(job: JobDocument): string | null {
  const read = jobSchema.safeParse(job);
  if (read.success) return null;
  const [first] = read.error.issues;
  const place = placeWords(first.path);
  return `this cannot be kept: ${place ? `${place}: ` : ""}${first.message}`;
}

/** Reads job JSON text; a broken text names line and column. */
export function readJobText(text: string): Result<JobDocument> {
  const parsed = parsedJob(text);
  return parsed.ok ? readJob(parsed.value) : parsed;
}

/** JSON of a job before it is looked at. */
export function parsedJob(text: string): Result<unknown> {
  try {
    return ok(JSON.parse(text) as unknown);
  } catch (e) {
    const message = (e as Error).message;
    const at = /position (\d+)/.exec(message);
    const place = at ? lineAndColumn(text, Number(at[1])) : null;
    return fail(problems.notJson(place ? `: line ${place.line}, column ${place.column}` : ""), {
      at: at ? Number(at[1]) : 0,
    });
  }
}

export function lineAndColumn(text: string, at: number): { line: number; column: number } {
  const before = text.slice(0, at).split("\n");
  return { line: before.length, column: before[before.length - 1].length + 1 };
}

/** A place in a document as people say it: `row 3, name`, `balloon #4`; of the workpiece nobody says that it is a part. */
export function placeWords(path: readonly PropertyKey[]): string {
  const [head, at, ...rest] = path;
  if (head === "parts" && typeof at === "number")
    return [...(at > 0 ? [`part ${at + 1}`] : []), ...(rest.length ? [placeWords(rest)] : [])].join(", ");
  if (typeof at !== "number") return path.map(String).join(", ");
  const one = String(head).replace(/s$/, "");
  return [`${one} ${at + 1}`, ...rest.map(String)].join(", ");
}

const pathText = (path: PropertyKey[]): string =>
  path.map((k, i) => (typeof k === "number" ? `[${k}]` : `${i ? "." : ""}${String(k)}`)).join("");
