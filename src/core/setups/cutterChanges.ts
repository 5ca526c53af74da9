/** A row that is to be put in a setup: those that can cut it whole, and the cutters it takes. */
export interface Placing {
  /** Numbers of setups that cut it whole, the earliest first; none where it takes several. */
  among: number[];
  /** Setups that cut parts of it, where none cuts it whole. */
  parts: { setup: number }[];
  cutters: string[];
}

/** Passes over the rows: each moves rows only where that saves a cutter or goes to an earlier setup, so that they come to an end before long. */
const MOST_PASSES = 8;

/**
 * The setup of each row such that cutters are changed as seldom as can be found: each is put in the spindle once a setup
 * that uses it. Rows go in turn where they need the fewest further cutters, the earliest such setup, until none gains
 * by going elsewhere.
 * @returns a setup a row; null for those that no setup cuts whole
 */
export function fewestChanges(rows: Placing[]): (number | null)[] {
  const uses = new Map<string, number>();
  const spot = (setup: number, cutter: string) => `${setup}/${cutter}`;
  const count = (setup: number, cutters: string[], by: 1 | -1) => {
    for (const c of cutters) uses.set(spot(setup, c), (uses.get(spot(setup, c)) ?? 0) + by);
  };
  for (const r of rows) if (!r.among.length) for (const { setup } of r.parts) count(setup, r.cutters, 1);
  const at = rows.map((r) => r.among[0] ?? null);
  rows.forEach((r, i) => at[i] !== null && count(at[i], r.cutters, 1));
  const fresh = (setup: number, cutters: string[]) => cutters.filter((c) => !uses.get(spot(setup, c))).length;
  // Rows alike in both go together: one alone would leave its cutter to the others.
  const alike = groupsOf(rows);
  for (let pass = 0, moved = true; moved && pass < MOST_PASSES; pass++) {
    moved = false;
    for (const { members, among, cutters } of alike) {
      const from = at[members[0]]!;
      members.forEach(() => count(from, cutters, -1));
      const to = among.reduce((b, s) => (fresh(s, cutters) < fresh(b, cutters) ? s : b), among[0]);
      members.forEach((i) => {
        count(to, cutters, 1);
        at[i] = to;
      });
      moved ||= to !== from;
    }
  }
  return at;
}

/** Rows that several setups can cut, those with the same choice and the same cutters together. */
function groupsOf(rows: Placing[]): { members: number[]; among: number[]; cutters: string[] }[] {
  const groups = new Map<string, { members: number[]; among: number[]; cutters: string[] }>();
  rows.forEach(({ among, cutters }, i) => {
    if (among.length < 2) return;
    const key = JSON.stringify([among, [...cutters].sort()]);
    const group = groups.get(key) ?? { members: [], among, cutters };
    group.members.push(i);
    groups.set(key, group);
  });
  return [...groups.values()];
}
