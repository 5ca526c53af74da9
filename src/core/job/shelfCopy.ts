/** A dated copy of the whole shelf, as it is kept beside the data folder. */
export interface ShelfCopy {
  /** Name of its file. */
  name: string;
  /** When it was made, ISO 8601. */
  at: string;
  /** Why: `daily`, `asked`, `before 004`. */
  why: string;
  size: number;
}

const NAME = /^shelf-(\d{4}-\d\d-\d\d)T(\d\d)-(\d\d)-(\d\d)-(\d{3})Z-([a-z0-9-]{1,40})\.gz$/;

/** What the name of a copy's file says of it; null where it is no such name. */
export function copyOf(name: string, size: number): ShelfCopy | null {
  const m = NAME.exec(name);
  if (!m) return null;
  const [, day, hour, minute, second, milli, why] = m;
  return { name, at: `${day}T${hour}:${minute}:${second}.${milli}Z`, why: why.replaceAll("-", " "), size };
}
