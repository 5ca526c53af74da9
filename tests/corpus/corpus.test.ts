import { readFileSync } from "node:fs";
import path from "node:path";
import { readLedgerLine, readRowLine, writeBalloonText, writeRow } from "@/core/callout";
import type { LengthUnit } from "@/core/number";
import { names, withRowsBefore } from "./rowsBefore";

const REFUSED = "✗";

/** What a row becomes, and what that becomes when it is read again. */
function row(line: string, unit: LengthUnit): string {
  const { typed, earlier } = withRowsBefore(line);
  const r = readRowLine(typed, names, "x", new Set(), { earlier, unit });
  if (!r.ok) return REFUSED;
  return [r.row, ...r.more]
    .map((one) => {
      const text = writeRow(one, names);
      const again = readRowLine(text, names, "x");
      expect(again.ok && again.row).toEqual(one);
      return text;
    })
    .join(" | ");
}
function ledger(typed: string, unit: LengthUnit): string {
  const r = readLedgerLine(typed, 1, new Set(), new Set(), unit);
  if (!r.ok) return REFUSED;
  for (const b of r.balloons) {
    const again = readLedgerLine(writeBalloonText(b), b.number, new Set(), new Set(), unit);
    expect(again.ok && again.balloons).toEqual([b]);
  }
  return r.balloons.map(writeBalloonText).join(" | ");
}

/** Lines with an arrow: as prints and people write it, and what it must become. */
const corpus = (file: string): [string, string][] =>
  readFileSync(path.join("tests/corpus", file), "utf8")
    .split("\n")
    .filter((l) => l && !l.startsWith(";"))
    .map((l) => l.split(" → ") as [string, string]);

describe.each([
  ["rows.in.txt", "in", row],
  ["rows.mm.txt", "mm", row],
  ["ledger.in.txt", "in", ledger],
  ["ledger.mm.txt", "mm", ledger],
] as const)("as prints write it: %s", (file, unit, read) => {
  it.each(corpus(file))("%s", (typed, becomes) => {
    expect(read(typed, unit)).toBe(becomes);
  });
});

it("is at least four hundred lines, of which nine in ten are read", () => {
  const all = ["rows.in.txt", "rows.mm.txt", "ledger.in.txt", "ledger.mm.txt"].flatMap(corpus);
  expect(all.length).toBeGreaterThanOrEqual(400);
  expect(all.filter(([, b]) => b === REFUSED).length).toBeLessThan(all.length / 10);
});
