import { problems } from "./problems";
import { fail, ok, type Result } from "@/core/base/result";
import { bytesIn, bytesOut, carried, hashOf, PIECE, pieces, taken } from "./bytes";
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
  const dots = kind.type === "image/png" ? dotsOfPng(bytes) : null;
  if (dots && dots.x * dots.y > MOST_DOTS) return fail(problems.pictureOfTooManyDots(dots.x, dots.y, MOST_DOTS / 1e6));
  const hash = await hashOf(bytes);
  const db = into ?? (await database());
  const [there] = await db.query("select 1 from attachment where hash = $1", [hash]);
  if (!there) {
    // Piece by piece, each a statement of its own: what others save goes in between. It is there with its last line.
    for (const [piece, part] of pieces(bytes).entries())
      await db.query(
        `insert into attachment_piece (hash, piece, bytes) values ($1, $2, ${bytesIn("$3")})
          on conflict (hash, piece) do update set bytes = excluded.bytes`,
        [hash, piece, carried(part)],
      );
    await db.query(
      "insert into attachment (hash, media_type, size) values ($1, $2, $3) on conflict (hash) do nothing",
      [hash, kind.type, bytes.length],
    );
  }
  return ok({ hash, mediaType: kind.type, size: bytes.length });
}

/** More dots than a browser draws: an A0 sheet at 300 dots an inch has 140 million. */
const MOST_DOTS = 150e6;

/** How many dots a PNG says it has: the first thing in it (PNG specification, 11.2.2 IHDR). */
function dotsOfPng(bytes: Uint8Array): { x: number; y: number } | null {
  if (bytes.length < 24 || new TextDecoder("latin1").decode(bytes.subarray(12, 16)) !== "IHDR") return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  return { x: view.getUint32(16), y: view.getUint32(20) };
}

/** A kept file: what it is, and its bytes piece by piece as they are read. */
interface KeptFile {
  mediaType: string;
  size: number;
  pieces(): AsyncGenerator<Uint8Array>;
}

export async function openAttachment(hash: string): Promise<KeptFile | null> {
  const db = await database();
  const [r] = await db.query<{ media_type: string; size: number; whole: boolean }>(
    "select media_type, size, bytes is not null as whole from attachment where hash = $1",
    [hash],
  );
  if (!r) return null;
  const count = Math.ceil(r.size / PIECE);
  return {
    mediaType: r.media_type,
    size: r.size,
    async *pieces() {
      // What was kept before files were kept in pieces lies in one.
      if (r.whole) {
        const [all] = await db.query<{ bytes: string }>(`select ${bytesOut("bytes")} from attachment where hash = $1`, [
          hash,
        ]);
        yield taken(all.bytes);
        return;
      }
      for (let piece = 0; piece < count; piece++) {
        const [part] = await db.query<{ bytes: string }>(
          `select ${bytesOut("bytes")} from attachment_piece where hash = $1 and piece = $2`,
          [hash, piece],
        );
        yield taken(part.bytes);
      }
    },
  };
}

/** A kept file with all its bytes. */
export async function readAttachment(hash: string): Promise<{ mediaType: string; bytes: Uint8Array } | null> {
  const kept = await openAttachment(hash);
  if (!kept) return null;
  const parts: Uint8Array[] = [];
  for await (const part of kept.pieces()) parts.push(part);
  return { mediaType: kept.mediaType, bytes: new Uint8Array(Buffer.concat(parts)) };
}
