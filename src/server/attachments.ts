import { problems } from "./problems";
import { createHash } from "node:crypto";
import { fail, ok, type Result } from "@/core/base/result";
import { bytesIn, bytesOut, carried, taken } from "./bytes";
import { database, type Database } from "./database";

/** Largest print that is kept, bytes. */
export const MAX_ATTACHMENT = 20_000_000;

const kinds: { type: string; starts: number[] }[] = [
  { type: "image/png", starts: [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] },
  { type: "image/jpeg", starts: [0xff, 0xd8, 0xff] },
  { type: "application/pdf", starts: [0x25, 0x50, 0x44, 0x46, 0x2d] },
];

/** An ASCII DXF begins with a group code 0 and SECTION, or with a remark (999). */
const isDxf = (bytes: Uint8Array): boolean =>
  /^\s*(?:999\r?\n[^\n]*\n\s*)*0\s*\r?\n\s*SECTION\s*\r?\n/.test(
    new TextDecoder("latin1").decode(bytes.subarray(0, 4000)).replace(/^\uFEFF|^ï»¿/, ""),
  );

/** A STEP file begins with the name of its standard, ISO 10303-21. */
const isStep = (bytes: Uint8Array): boolean =>
  /^\s*ISO-10303-21\s*;/.test(new TextDecoder("latin1").decode(bytes.subarray(0, 200)));

/** Keeps a picture or a STEP file under its hash. What it is is told from its first bytes, not from its name. */
export async function keepAttachment(
  bytes: Uint8Array,
  into?: Database,
): Promise<Result<{ hash: string; mediaType: string; size: number }>> {
  if (bytes.length === 0) return fail(problems.fileEmpty());
  if (bytes.length > MAX_ATTACHMENT)
    return fail(problems.fileTooLarge((bytes.length / 1e6).toFixed(1)), {
      expected: `at most ${MAX_ATTACHMENT / 1e6} MB`,
    });
  const kind =
    kinds.find((k) => k.starts.every((b, i) => bytes[i] === b)) ??
    (isDxf(bytes) ? { type: "image/vnd.dxf" } : isStep(bytes) ? { type: "model/step" } : undefined);
  if (!kind)
    return fail(problems.fileOfNoKind(), {
      expected: "a PNG or JPEG picture, a PDF, a DXF or a STEP file",
    });
  const hash = createHash("sha256").update(bytes).digest("hex");
  const db = into ?? (await database());
  await db.query(
    `insert into attachment (hash, media_type, size, bytes) values ($1, $2, $3, ${bytesIn("$4")})
      on conflict (hash) do nothing`,
    [hash, kind.type, bytes.length, carried(bytes)],
  );
  return ok({ hash, mediaType: kind.type, size: bytes.length });
}

export async function readAttachment(hash: string): Promise<{ mediaType: string; bytes: Uint8Array } | null> {
  const db = await database();
  const [r] = await db.query<{ media_type: string; bytes: string }>(
    `select media_type, ${bytesOut("bytes")} from attachment where hash = $1`,
    [hash],
  );
  return r ? { mediaType: r.media_type, bytes: taken(r.bytes) } : null;
}
