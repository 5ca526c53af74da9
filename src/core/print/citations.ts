import type { SolvedRow } from "../engine/solve";
import type { Balloon, Job } from "../job/schema";
import { valueOf } from "../engine/numbers";
import type { NumberScope, NumberText } from "../number";
import { balloonsOfThread } from "../balloons/threads";
import { wholeOf } from "../job/toleranceKinds";

/** Number texts a balloon itself is made of. */
const textsOf = (b: Balloon): NumberText[] =>
  [b.kind === "count" ? undefined : b.value, b.count, ...(wholeOf(b.tolerance) ?? [])].filter(
    (t): t is NumberText => t !== undefined,
  );

/**
 * Rows whose numbers are made from a balloon, directly, through a named value or through another balloon; threads by
 * their designation.
 */
export function citations(job: Job, rows: SolvedRow[], scope: NumberScope): Map<number, SolvedRow[]> {
  const direct = new Map<number, Set<SolvedRow>>();
  const put = (n: number, r: SolvedRow) => direct.set(n, (direct.get(n) ?? new Set()).add(r));
  for (const r of rows) {
    if (r.state === "off") continue;
    for (const n of [...r.numbers, ...r.outlineNumbers, ...r.planeNumbers])
      for (const cited of n.value?.cites ?? []) put(cited, r);
    if ("thread" in r.row.body) for (const b of balloonsOfThread(r.row.body.thread, job.balloons)) put(b.number, r);
  }
  // A balloon made from another passes on what it drives.
  for (let changed = true; changed;) {
    changed = false;
    for (const b of job.balloons)
      for (const text of textsOf(b)) {
        const v = valueOf(text, "plain", scope);
        if (!v.ok) continue;
        for (const n of v.value.cites)
          for (const r of direct.get(b.number) ?? [])
            if (!direct.get(n)?.has(r)) {
              put(n, r);
              changed = true;
            }
      }
  }
  return new Map([...direct].map(([n, s]) => [n, [...s].sort((a, b) => a.number - b.number)]));
}

/** For every balloon the balloons its own number is made from, directly or through others. */
export function ancestorsOf(job: Job, scope: NumberScope): Map<number, Set<number>> {
  const direct = new Map(
    job.balloons.map((b) => [
      b.number,
      new Set(
        textsOf(b).flatMap((t) => {
          const v = valueOf(t, "plain", scope);
          return v.ok ? v.value.cites : [];
        }),
      ),
    ]),
  );
  const out = new Map<number, Set<number>>();
  for (const b of job.balloons) {
    const found = new Set<number>();
    const open = [...(direct.get(b.number) ?? [])];
    while (open.length) {
      const n = open.pop()!;
      if (found.has(n)) continue;
      found.add(n);
      open.push(...(direct.get(n) ?? []));
    }
    out.set(b.number, found);
  }
  return out;
}

/** Whether a number of a part is made from a balloon, as its rows, outlines and planes are written. */
export function citesBalloon(
  { rows, outlines, planes }: Pick<Job, "rows" | "outlines" | "planes">,
  n: number,
): boolean {
  const cited = new RegExp(`#${n}(?!\\d)`);
  const isCited = (v: unknown): boolean => {
    if (typeof v === "string") return cited.test(v);
    return typeof v === "object" && v !== null && Object.values(v).some(isCited);
  };
  return [rows.map((r) => r.body), outlines.map((o) => o.items), planes ?? []].some(isCited);
}
