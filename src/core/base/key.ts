/**
 * Short key of a value's JSON: 53-bit string hash (cyrb53, public domain), enough to tell some hundreds of states
 * apart.
 * A state's key holds the key of the state before it, so it stands for the whole prefix.
 */
export function keyOf(before: string | null, value: unknown): string {
  const text = `${before ?? ""}|${JSON.stringify(value)}`;
  let h1 = 0xdeadbeef,
    h2 = 0x41c6ce57;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    h1 = Math.imul(h1 ^ c, 2654435761);
    h2 = Math.imul(h2 ^ c, 1597334677);
  }
  h1 = Math.imul(h1 ^ (h1 >>> 16), 2246822507) ^ Math.imul(h2 ^ (h2 >>> 13), 3266489909);
  h2 = Math.imul(h2 ^ (h2 >>> 16), 2246822507) ^ Math.imul(h1 ^ (h1 >>> 13), 3266489909);
  return `${(4294967296 * (2097151 & h2) + (h1 >>> 0)).toString(36)}-${text.length.toString(36)}`;
}

/** Key of a value's content: the order its keys come in, which a database does not keep, changes nothing. */
export const keyOfContent = (value: unknown): string => keyOf(null, inOrder(value));

function inOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== "object" || value === null) return value;
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([k, v]) => [k, inOrder(v)]));
}
