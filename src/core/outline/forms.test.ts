import { readOutlineLine, writeOutlineItem } from "@/core/callout";
import { rowNames } from "@/core/job";
import { outlineForms } from "@/core/outline/items";

const names = rowNames([{ id: "a" }, { id: "b" }]);

it("every line to start from reads as an outline’s line, and comes back as it was", () => {
  for (const { text } of outlineForms.flatMap((g) => g.lines)) {
    const r = readOutlineLine(text, names);
    expect([text, r.ok]).toEqual([text, true]);
    if (r.ok) expect(readOutlineLine(writeOutlineItem(r.item, names), names)).toEqual(r);
  }
  expect(outlineForms.flatMap((g) => g.lines).length).toBeGreaterThan(40);
});
