import type { Vec3 } from "../geometry/vec";
import type { Finding } from "../findings/finding";
import { partInStock } from "../findings/stockRules";
import type { SetupFinding } from "./finding";

/**
 * What makes other things go wrong, the first cause first: a piece that does not stand as it should is met by
 * cutters, screws and walls that would not meet it. What is not named here causes nothing else.
 */
const CAUSES = [partInStock, "setup-refused", "row-not-taken", "row-unreachable", "goes-in-from-above", "datum-same"];
const rank = { stop: 0, caution: 1, note: 2 };

/** The same remark at several places is one, with how often; the gravest come first, and causes before what follows. */
export function saidOnce(found: SetupFinding[]): SetupFinding[] {
  const groups = new Map<string, SetupFinding[]>();
  for (const f of found) {
    const key = JSON.stringify([f.rule, f.severity, f.part, f.rowId, f.text]);
    groups.set(key, [...(groups.get(key) ?? []), f]);
  }
  return [...groups.values()].map(asOne).sort((a, b) => rank[a.severity] - rank[b.severity] || cause(a) - cause(b));
}
const cause = ({ rule }: SetupFinding): number => (CAUSES.includes(rule) ? CAUSES.indexOf(rule) : CAUSES.length);

function asOne(all: SetupFinding[]): SetupFinding {
  const [first] = all;
  if (all.length === 1) return first;
  const places = all.flatMap((f): Vec3[] => f.places ?? (f.place ? [f.place] : []));
  return { ...first, text: `${first.text} (${all.length} times)`, place: places[0] ?? null, places };
}

/** The workpiece's remark that its stock is too small, said before what it does to a setup. */
export function stockFirst(work: Finding[], setup: number | null): SetupFinding[] {
  return work
    .filter((f) => f.rule === partInStock && f.severity === "stop" && !f.waived)
    .map((f) => ({ ...f, setup, text: `${f.text}: remarks below may follow from that, mend it first` }));
}
