import { XMLParser } from "fast-xml-parser";
import { viewOf } from "@/core/engine/views";
import { v3 } from "@/core/geometry/vec";
import { featureLabels } from "@/core/print/labels";
import { prepare, solve } from "@/core/engine";
import { kernel, mm, jobOf } from "../../tests/helpers/card";
import { labelledView, spread } from "./labelledView";

const job = jobOf(
  mm(
    "#1 60",
    "#2 ⌀8",
    "#3 6 DEEP",
    "#4 2X ⌀5",
    "LEAVE BLOCK #1 X 40 X 20",
    "CUT ⌀#2 DEEP #3 AT 10,5",
    "CUT 2X ⌀#4 THRU GRID 2 1 BY 30 0 AT 0,-10",
    "CUT ⌀#2 DEEP 4 ON FRONT AT 0,10",
  ),
);

test("every balloon stands once, at the feature it is first used for", async () => {
  const { rows } = await solve(prepare(job), await kernel());
  const labels = featureLabels(job, rows);
  expect(labels.map((l) => l.balloons.map((b) => b.number))).toEqual([[1], [2, 3], [4]]);
  expect(labels[1].at).toEqual(v3(10, 5, 20));
  expect(labels[1].balloons[0].text).toContain("8");
});

test("a view carries the dimensions of what faces it, in a drawing that can be read", async () => {
  const k = await kernel();
  const { rows, finalKey } = await solve(prepare(job), k);
  const svg = labelledView(k.drawing(finalKey!, viewOf.top, false), viewOf.top, featureLabels(job, rows), "#000");
  const texts = new XMLParser({ ignoreAttributes: false }).parse(svg).svg.text as unknown[];
  expect(texts).toHaveLength(4);
  const bare = labelledView(k.drawing(finalKey!, viewOf.right, false), viewOf.right, featureLabels(job, rows), "#000");
  expect(bare).not.toContain("<text");
});

test("lines of a column keep their distance and stay beside the part", () => {
  const lines = spread([5, 5, 5, 4.9, 0], 1, 0, 10);
  expect(lines).toHaveLength(5);
  for (let i = 1; i < lines.length; i++) expect(lines[i - 1] - lines[i]).toBeGreaterThanOrEqual(1 - 1e-12);
  expect(Math.min(...lines)).toBeGreaterThanOrEqual(0);
});
