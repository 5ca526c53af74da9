import { parse, stringify } from "devalue";
import type { Mesh } from "../engine/kernel";

/** A picture's numbers apart from everything else, so that they are kept as they are. */
type Carried = { mesh: Omit<Mesh, "positions" | "normals" | "triangles" | "lines"> } & Record<string, unknown>;
const arrays = ["positions", "normals", "triangles", "lines"] as const;

async function through(bytes: Uint8Array, stream: { readable: ReadableStream; writable: WritableStream }) {
  const piped = new Blob([bytes as Uint8Array<ArrayBuffer>]).stream().pipeThrough(stream);
  return new Uint8Array(await new Response(piped).arrayBuffer());
}

/**
 * What was computed of a job and the picture of its part, as bytes: a header of the sizes, the mesh's numbers, and the
 * rest as text, all compressed (RFC 1952).
 */
export async function packStanding<T extends object>(rest: T, picture: { mesh: Mesh }): Promise<Uint8Array> {
  const { mesh, ...other } = picture;
  const text = new TextEncoder().encode(
    stringify(structuredClone({ ...rest, picture: { ...other, groups: mesh.groups } })),
  );
  const parts = arrays.map((a) => new Uint8Array(mesh[a].buffer, mesh[a].byteOffset, mesh[a].byteLength));
  const header = new Uint32Array([...parts.map((p) => p.byteLength), text.byteLength]);
  const all = new Uint8Array(header.byteLength + header.reduce((sum, n) => sum + n, 0));
  let at = 0;
  for (const piece of [new Uint8Array(header.buffer), ...parts, text]) {
    all.set(piece, at);
    at += piece.byteLength;
  }
  return through(all, new CompressionStream("gzip"));
}

/** What was packed. @throws when the bytes are not whole */
export async function unpackStanding<T extends object, P extends { mesh: Mesh }>(
  bytes: Uint8Array,
): Promise<T & { picture: P }> {
  const all = await through(bytes, new DecompressionStream("gzip"));
  const header = new Uint32Array(all.buffer, 0, arrays.length + 1);
  if (header.byteLength + header.reduce((sum, n) => sum + n, 0) !== all.byteLength) throw new Error("not whole");
  let at = header.byteLength;
  const take = (i: number) => {
    const piece = all.slice(at, at + header[i]);
    at += header[i];
    return piece;
  };
  const numbers = arrays.map((a, i) =>
    a === "triangles" ? new Uint32Array(take(i).buffer) : new Float32Array(take(i).buffer),
  );
  const read = parse(new TextDecoder().decode(take(arrays.length))) as T & {
    picture: Carried & { groups: Mesh["groups"] };
  };
  const { groups, ...picture } = read.picture;
  const mesh = { ...Object.fromEntries(arrays.map((a, i) => [a, numbers[i]])), groups };
  return { ...read, picture: { ...picture, mesh } as P };
}
