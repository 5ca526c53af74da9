import { expect, test, type Page } from "./test";
import { newJob } from "./helpers";

/** The flange of the harbour tide-gauge's float well, as its print words it: no line of it is in the card's own words. */
const ledger = [
  "⌀4.500 ±.010",
  ".750 ±.005 THK",
  "8X ⌀.266 THRU ⌴ ⌀.422 ↧ .25 EQ SP ON ⌀3.750 B.C.",
  "⌀1.625 +.002/-.000 THRU",
];
const rows = [
  "⌀4.500 X .750 THK",
  "BORE ⌀1.625 THRU",
  "8X ⌀.266 THRU ⌴ ⌀.422 ↧ .25 EQ SP ON ⌀3.750 B.C. AT 22.5°",
  "10-32 UNF-2B X .38 DEEP, DRILL .159 X .55 DEEP, 4 PLACES ON ⌀2.500 B.C.",
  "RECESS ⌀2.125 ↧ .125",
  "BREAK ALL EDGES .010",
];

async function typed(page: Page, label: string, lines: string[]): Promise<number> {
  let keys = 0;
  for (const line of lines) {
    await page.getByLabel(label).fill(line);
    await expect(page.getByLabel(label)).not.toHaveAttribute("aria-invalid", "true");
    await page.keyboard.press("Enter");
    await expect(page.getByLabel(label)).toHaveValue("");
    keys += line.length + 1;
  }
  return keys;
}

test("a flange goes from its print's own words to a part, nothing refused", async ({ page }, info) => {
  const began = Date.now();
  await newJob(page, "Float well flange", "inch", "aluminium 6061");
  await page.keyboard.press("1");
  let keys = await typed(page, "Next balloon", ledger);
  await expect(page.locator("[data-balloon]")).toHaveCount(7);
  await expect(page.locator('[data-balloon="6"]')).toContainText("⌀3.750");
  await expect(page.locator('[data-balloon="6"]')).toContainText("B.C.");
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press("3");
  keys += await typed(page, "Callout line", rows);
  await expect(page.locator('[data-row="3"]')).toContainText("CBORE ⌀.422 DEEP .25");
  await expect(page.locator('[data-row="6"]')).toContainText("BREAK .010 ALL SHARP");
  await expect(page.getByText(/failed/)).toHaveCount(0);
  // Seven numbers are the print's: one press links them.
  await page.getByRole("button", { name: "link all that match" }).click();
  keys += 1;
  await expect(page.locator('[data-row="1"]')).toHaveAttribute("aria-label", /ROUND ⌀#1 X #2/);
  await expect(page.locator('[data-row="3"]')).toHaveAttribute("aria-label", /⌀#3 THRU CBORE ⌀#4 DEEP #5 ON BC #6/);
  await expect(page.getByRole("button", { name: "link all that match" })).toHaveCount(0);
  info.annotations.push({
    type: "keys and seconds",
    description: `${keys}, ${((Date.now() - began) / 1000).toFixed(1)}`,
  });
});

test("what is not understood says what to type instead, and Tab takes it", async ({ page }) => {
  await newJob(page, "Gauge board", "inch", "brass");
  await page.keyboard.press("3");
  await typed(page, "Callout line", ["4 X 3 X .75"]);
  const line = page.getByLabel("Callout line");
  await line.fill("4X ⌀.25 TRHU GRID 2 2 BY 2 1");
  await expect(page.locator("#callout-says")).toContainText("CUT 4X ⌀.25 THRU GRID 2 2 BY 2 1");
  await line.press("Tab");
  await expect(line).toHaveValue("CUT 4X ⌀.25 THRU GRID 2 2 BY 2 1");
  await line.press("Enter");
  await expect(line).toHaveValue("");
  // A tolerance typed with a row is kept in the ledger when it is asked for.
  await line.fill("⌀.2500 +.0005/-.0000 ↧ .5");
  await page.getByRole("button", { name: /in the ledger/ }).click();
  await expect(page.locator('[data-row="3"]')).toContainText("⌀.2500 DEEP .5");
  // A line that says what is done from both sides becomes two rows, shown before Enter; one undo takes both back.
  await line.fill("⌀.125 THRU CSK ⌀.25 X 82° BOTH SIDES AT 1,1");
  await expect(page.locator("#callout-says")).toContainText("(2 rows); Enter puts them last");
  await line.press("Enter");
  await expect(page.locator('[data-row="5"]')).toContainText("CSK ⌀.25 X 82 AT 1,-1 ON BOTTOM");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.locator("[data-row]")).toHaveCount(3);
});

/** π/4 D² h, cm³. */
const cylinder = (d: number, h: number) => ((Math.PI / 4) * d * d * h) / 1000;
const shownVolume = async (page: Page) => parseFloat((await page.getByTestId("volume").textContent())!);

test("a metric turned part from its print's own words, volume by hand", async ({ page }, info) => {
  const began = Date.now();
  await newJob(page, "Winding drum spindle", "millimetre", "brass");
  await page.keyboard.press("1");
  let keys = await typed(page, "Next balloon", [
    "⌀48 h9",
    "12 ±0,1 THK",
    "⌀30 h7",
    "25 ±0,1 LG",
    "⌀16 H7 THRU",
    "6X ⌀4.5 THRU EQ SP ON ⌀39 PCD",
    "⌀22 ↧ 6",
  ]);
  await expect(page.locator("[data-balloon]")).toHaveCount(9);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press("3");
  keys += await typed(page, "Callout line", [
    "⌀48 × 12 THK",
    "LEAVE ROUND ⌀30 × 25 LG ON TOP OF 1",
    "⌀16 BORE THRU",
    "⌀22 ↧ 6 COUNTERBORE",
    "6X ⌀4.5 THRU EQ SP ON ⌀39 PCD ON TOP OF 1",
    "CHAMFER 1 × 45° OUTER BOTTOM",
  ]);
  await expect(page.locator('[data-row="4"]')).toHaveAttribute("aria-label", /CBORE ⌀22 DEEP 6/);
  await expect(page.getByText(/failed/)).toHaveCount(0);
  // Two cylinders less bore, counterbore, six holes and a chamfered rim (Pappus: a triangle round the axis).
  const rim = (2 * Math.PI * (24 - 1 / 3) * 0.5) / 1000;
  const byHand =
    cylinder(48, 12) +
    cylinder(30, 25) -
    cylinder(16, 37) -
    (cylinder(22, 6) - cylinder(16, 6)) -
    6 * cylinder(4.5, 12) -
    rim;
  await expect.poll(() => shownVolume(page)).toBeCloseTo(byHand, 3);
  await page.getByRole("button", { name: "link all that match" }).click();
  await expect(page.locator('[data-row="1"]')).toHaveAttribute("aria-label", /ROUND ⌀#1 X #2/);
  info.annotations.push({
    type: "keys and seconds",
    description: `${keys}, ${((Date.now() - began) / 1000).toFixed(1)}`,
  });
});

test("a plate from its outline, said aloud, volume by hand", async ({ page }, info) => {
  const began = Date.now();
  await newJob(page, "Gauge plate", "millimetre", "brass");
  await page.keyboard.press("3");
  await page.getByRole("button", { name: "+ outline" }).click();
  const name = page.getByLabel("Name of the outline");
  await name.fill("gauge plate");
  await name.press("Enter");
  let keys = 12;
  const steps = ["0,0", "RIGHT 72", "UP 30", "LEFT 20", "UP 18", "LEFT 52", "CLOSE", "FILLET R6 OUTSIDE"];
  for (const said of steps) {
    const line = page.getByLabel("Next line of the outline");
    await line.fill(said);
    await line.press("Enter");
    await expect(line).toHaveValue("");
    keys += said.length + 1;
  }
  await expect(page.getByTestId("outline-state")).toHaveText("fully located, in ink");
  await expect(page.getByTestId("point-names")).toContainText("P3");
  await page.getByRole("button", { name: "back to the route card" }).click();
  keys += await typed(page, "Callout line", [
    'PLATE "gauge plate" X 8 THK',
    "4X ⌀5,5 THRU AT (8, 8) AND (64, 8) AND (8, 40) AND (44, 40)",
    "SLOT 20 X 6 THRU AT (36, 18)",
    "M6 ↧ 6 AT (60, 22)",
  ]);
  await expect(page.getByText(/failed/)).toHaveCount(0);
  // An L of 72 by 30 and 52 by 18, five rounded outside corners (each takes r²(1 - π/4)); holes, slot, tap drill 5.
  const area = 72 * 30 + 52 * 18 - 5 * 36 * (1 - Math.PI / 4);
  const holes = 4 * cylinder(5.5, 8) + (14 * 6 * 8) / 1000 + cylinder(6, 8);
  const plate = (area * 8) / 1000 - holes;
  // The tapped hole is drilled on to its point: deeper than its thread, no deeper than the plate.
  const isBetween = async () => {
    const v = await shownVolume(page);
    return v < plate - cylinder(5, 6) + 0.001 && v > plate - cylinder(5, 8) - 0.001;
  };
  await expect.poll(isBetween).toBe(true);
  info.annotations.push({
    type: "keys and seconds",
    description: `${keys}, ${((Date.now() - began) / 1000).toFixed(1)}`,
  });
});
