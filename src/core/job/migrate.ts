/** Any JSON object of an older version. */
type Old = Record<string, unknown>;
const list = (v: unknown): Old[] => (Array.isArray(v) ? v : []);

const firstSetup = ({ up, ...hold }: Old): Old => ({ op: 10, machine: "mill", up, hold });

/** Steps from one version to the next; step n takes a document of version n. */
const steps: Record<number, (d: Old) => Old> = {
  // 2: outlines, named values, records of proof, tolerance "default", several calibrated regions on a page.
  1: (d) => ({
    ...d,
    version: 2,
    names: [],
    outlines: [],
    proofs: [],
    balloons: list(d.balloons).map((b) =>
      (b.tolerance as Old | undefined)?.kind === "byDecimals" ? { ...b, tolerance: { kind: "default" } } : b,
    ),
    prints: list(d.prints).map(({ calibration, ...p }) => ({
      ...p,
      regions: calibration ? [{ ...(calibration as Old), page: 1 }] : [],
    })),
  }),
  // 3: parts with a stock, outlines and rows of their own, and setups; what was held is held in the first setup.
  2: ({ stock, outlines, rows, hold, ...d }) => ({
    ...d,
    version: 3,
    parts: [{ id: "work", name: "", kind: "work", stock: stock ?? null, outlines: outlines ?? [], rows: rows ?? [] }],
    setups: hold ? [firstSetup(hold as Old)] : [],
  }),
};

/**
 * Brings a document of an older version up to this one; what is not a known version is left for the schema to
 * refuse.
 */
export function migrated(data: unknown): unknown {
  let d = data as Old;
  while (typeof d.version === "number" && steps[d.version]) d = steps[d.version](d);
  return onOneLine(d);
}

const LINE_ENDS = /[\p{Cc}\u2028\u2029]+/gu;

/** Names that were taken with a line break in them before names had to stand on one line: it becomes a blank. */
function onOneLine(data: unknown): unknown {
  if (Array.isArray(data)) {
    const list = data.map(onOneLine);
    return list.every((v, i) => v === data[i]) ? data : list;
  }
  if (typeof data !== "object" || data === null) return data;
  const entries = Object.entries(data).map(([key, value]: [string, unknown]) => {
    const mended = key === "name" && typeof value === "string" ? value.replace(LINE_ENDS, blank) : onOneLine(value);
    return [key, mended] as const;
  });
  return entries.every(([k, v]) => v === (data as Old)[k]) ? data : Object.fromEntries(entries);
}
/** A character that cannot be kept at all is left for the schema, which names it. */
const blank = (ends: string): string => (ends.includes("\u0000") ? ends : " ");
