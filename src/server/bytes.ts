import { createHash } from "node:crypto";

/**
 * Bytes go to the database and come back as base64. Its own reading and writing of `bytea` takes 11 and 5 s for 20 MB
 * on two cores, this way 1 and a third of a second (measured; docs/truth.md).
 */
export const carried = (bytes: Uint8Array): string =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString("base64");

/** The bytes of what {@link bytesOut} gave. */
export const taken = (text: string): Uint8Array => new Uint8Array(Buffer.from(text, "base64"));

/** SQL: a parameter that was {@link carried}, as bytes. */
export const bytesIn = (parameter: string): string => `decode(${parameter}::text, 'base64')`;

/** SQL: a column of bytes, to be {@link taken}. */
export const bytesOut = (column: string): string => `encode(${column}, 'base64') as bytes`;

/** Bytes of one piece of a kept file: some milliseconds of the database. */
export const PIECE = 256 * 1024;

/** A file's bytes in pieces, without copying them. */
export const pieces = (bytes: Uint8Array): Uint8Array[] =>
  Array.from({ length: Math.ceil(bytes.length / PIECE) }, (_, i) => bytes.subarray(i * PIECE, (i + 1) * PIECE));

/** SHA-256 of bytes; between its pieces others are served. */
export async function hashOf(bytes: Uint8Array): Promise<string> {
  const hash = createHash("sha256");
  for (const piece of pieces(bytes)) {
    hash.update(piece);
    await new Promise((next) => setImmediate(next));
  }
  return hash.digest("hex");
}
