import type { LedgerEntry } from "./ledger";
import { ROUNDING } from "../geometry/tolerance";

/** Where a measured dimension lies in its tolerance: −1 at the lower limit, 0 in the middle, 1 at the upper one. */
interface InBand {
  balloon: number;
  share: number;
  inside: boolean;
}

/** Balloons measured on the solid, in the order of the ledger, each in its band. One without a width to its band has none. */
export function inBands(ledger: readonly LedgerEntry[]): InBand[] {
  return ledger.flatMap((l): InBand[] => {
    if (l.measured === null || l.low === null || l.high === null || l.high - l.low < ROUNDING) return [];
    const share = (l.measured - (l.low + l.high) / 2) / ((l.high - l.low) / 2);
    return [{ balloon: l.number, share, inside: l.state !== "off" }];
  });
}
