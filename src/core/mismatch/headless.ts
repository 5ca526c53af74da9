import type { Mismatch } from "./explain";

/**
 * The headless answer of `explain`: ranked slips for every check value that is off. Units as in the report; `from`
 * and `to` as typed.
 */
export const headlessExplanations = (mismatches: Mismatch[]) =>
  mismatches.map(({ check: c, explanations, tried, besides, left }) => ({
    tried,
    besides,
    left,
    check: {
      kind: c.kind,
      ...(c.of ? { of: c.of } : {}),
      expected: c.expected,
      actual: c.actual,
      tolerance: c.tolerance,
    },
    explanations: explanations.map((e) => ({
      ...(e.second
        ? {
            second: {
              kind: e.second.kind,
              row: e.second.row,
              field: e.second.field,
              ...(e.second.balloon === undefined ? {} : { balloon: e.second.balloon }),
              from: e.second.from,
              to: e.second.to,
            },
          }
        : {}),
      rank: e.rank,
      kind: e.kind,
      row: e.row,
      field: e.field,
      ...(e.balloon === undefined ? {} : { balloon: e.balloon }),
      from: e.from,
      to: e.to,
      value: e.value,
      residual: e.residual,
      agrees: e.agrees,
      alsoMends: e.alsoMends,
    })),
  }));
