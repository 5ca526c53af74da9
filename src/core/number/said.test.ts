import { inUnit, problemIn, saidLength, saidMost, saidPlace } from "./said";

test("a marked length is told in the job's unit, without digits that say nothing", () => {
  expect(inUnit(`at most ${saidLength(12.7)}`, "in")).toBe("at most .5 in");
  expect(inUnit(`at most ${saidLength(12.7)}`, "mm")).toBe("at most 12.7 mm");
  expect(inUnit(`${saidLength(100)} and ${saidLength(0)}`, "mm")).toBe("100 mm and 0 mm");
  expect(inUnit(saidLength(254), "in")).toBe("10 in");
});

test("a marked place has its unit once", () => {
  expect(inUnit(`an open end at ${saidPlace({ x: 25.4, y: -6.35 })}`, "in")).toBe("an open end at 1, -.25 in");
  expect(inUnit(saidPlace({ x: -1e-9, y: 3.14159 }), "mm")).toBe("0, 3.1416 mm");
});

test("both sentences of a problem are told so, and the rest stays", () => {
  const p = { message: `${saidLength(2)} is too much`, expected: `at most ${saidLength(1)}`, path: "size", item: 3 };
  expect(problemIn(p, "mm")).toEqual({ message: "2 mm is too much", expected: "at most 1 mm", path: "size", item: 3 });
});

test("the most a length may be is never told larger than it is", () => {
  for (const most of [6.349, 0.12999, 12.7, 1 / 3, 25.39999])
    for (const [unit, mm] of [
      ["in", 25.4],
      ["mm", 1],
    ] as const)
      expect(parseFloat(inUnit(saidMost(most), unit)) * mm).toBeLessThanOrEqual(most + 1e-9);
  expect(inUnit(saidMost(12.7), "in")).toBe(".5 in");
});

test("what only looks like a marked length is left as it is", () => {
  expect(inUnit('outline "⟦x⟧"', "in")).toBe('outline "⟦x⟧"');
});
