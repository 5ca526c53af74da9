import { expect, test, type Page } from "@playwright/test";
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
});
