import { z } from "zod";
import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { parsedJob, readJob } from "./read";
import type { JobDocument } from "./schema";

/** A job with the files it names: its prints and its solids, each by the hash of its content. */
export interface EnclosedJob {
  job: JobDocument;
  files: Map<string, Uint8Array>;
}

const filesSchema = z.record(z.string().regex(/^[0-9a-f]{64}$/), z.base64());

/** Hashes of the files a job names. */
export const filesNamed = ({ prints, solids }: JobDocument): string[] => [
  ...new Set([...prints, ...(solids ?? [])].map((f) => f.attachment)),
];

/** The text of a job with its files beside the document, under `files` in base64: so that it can be kept and mailed whole. */
export function enclosedText(job: JobDocument, files: ReadonlyMap<string, Uint8Array>): string {
  const named = filesNamed(job).flatMap((hash) => {
    const bytes = files.get(hash);
    return bytes ? [[hash, toBase64(bytes)] as const] : [];
  });
  return JSON.stringify({ ...job, ...(named.length ? { files: Object.fromEntries(named) } : {}) }, null, 2) + "\n";
}

/** Reads a job's text with the files enclosed in it, if any. Whether a file is what its hash says is for its keeper to ask. */
export function readEnclosed(text: string): Result<EnclosedJob> {
  const parsed = parsedJob(text);
  if (!parsed.ok) return parsed;
  const { value } = parsed;
  if (typeof value !== "object" || value === null || !("files" in value)) {
    const job = readJob(value);
    return job.ok ? ok({ job: job.value, files: new Map() }) : job;
  }
  const { files, ...document } = value;
  const read = filesSchema.safeParse(files);
  if (!read.success) return fail(problems.filesNotReadable(), { path: "files" });
  const job = readJob(document);
  return job.ok
    ? ok({ job: job.value, files: new Map(Object.entries(read.data).map(([hash, data]) => [hash, fromBase64(data)])) })
    : job;
}

/** Bytes turned at a time: a call takes only so many arguments. */
const AT_ONCE = 0x8000;
function toBase64(bytes: Uint8Array): string {
  let text = "";
  for (let i = 0; i < bytes.length; i += AT_ONCE) text += String.fromCharCode(...bytes.subarray(i, i + AT_ONCE));
  return btoa(text);
}
const fromBase64 = (data: string): Uint8Array => Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
