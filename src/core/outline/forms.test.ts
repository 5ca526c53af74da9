import { readOutlineLine, writeOutlineItem } from "@/core/callout";
import { rowNames } from "@/core/job";
import { outlineForms } from "@/core/outline/items";

const names = rowNames([{ id: "a" }, { id: "b" }]);

it.each(["in", "mm"] as const)(
  "every line to start from (%s) reads as an outline’s line, and comes back as it was",
  (unit) => {
    for (const { text } of outlineForms(unit).flatMap((g) => g.lines)) {
      const r = readOutlineLine(text, names);
      expect([text, r.ok]).toEqual([text, true]);
      if (r.ok) expect(readOutlineLine(writeOutlineItem(r.item, names), names)).toEqual(r);
    }
    expect(outlineForms(unit).flatMap((g) => g.lines).length).toBeGreaterThan(40);
  },
);

it("an inch job is shown inches: no length to start from is a metric one", () => {
  const [inch, mm] = (["in", "mm"] as const).map((u) => outlineForms(u).flatMap((g) => g.lines.map((l) => l.text)));
  const other = inch.filter((t, i) => t !== mm[i]);
  expect(other.length).toBeGreaterThan(25);
  for (const t of other) expect(t).toMatch(/\.\d/);
});
