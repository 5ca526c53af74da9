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
  return d;
}
