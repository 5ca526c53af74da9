import { expect, test, type Page } from "./test";
import { importCard, row, volume } from "./helpers";

const garbage = [
  "4..2",
  "-1",
  "1/0",
  "#999",
  "DROP TABLE job;",
  '"><img src=x onerror=alert(1)>',
  "9".repeat(180),
  "((((",
  "∅∅∅",
  "?",
];
const card = [
  'JOB "Garbage"',
  "UNIT mm",
  'MATERIAL "brass"',
  "STOCK PLATE 110 X 70 X 30",
  "#1 100 ±0.1",
  "#2 6X ⌀5",
  "LEAVE BLOCK #1 X 60 X 20 R3",
  "CUT POCKET 40 X 20 R5 DEEP 8",
  "CUT 2X ⌀5 THRU CBORE ⌀9 DEEP 4 AT -40,0 40,0",
  "CUT 4X M5 DEEP 8 DRILL DEEP 12 GRID 2 2 BY 60 40",
  "CUT CHAMFER 1 OUTER TOP",
  "HOLD VISE GRIP 8 ACROSS Y",
  "CHECK SIZE X 100",
].join("\n");

/** Fills every text field that can be seen with a wrong value and leaves it. @returns how many there were */
async function spoil(page: Page, scope: string, seed: number): Promise<number> {
  const fields = page.locator(
    `${scope} input:not([type=checkbox]):not([type=file]):not([type=range]):not([readonly]):visible`,
  );
  const count = await fields.count();
  for (let i = 0; i < count; i++) {
    const field = fields.nth(i);
    if (!(await field.isVisible().catch(() => false))) continue;
    await field.fill(garbage[(i + seed) % garbage.length]).catch(() => {});
    await field.press("Tab").catch(() => {});
  }
  return count;
}

test("garbage in every field of every step breaks nothing, and undo brings everything back", async ({ page }) => {
  test.setTimeout(240_000);
  const errors: string[] = [];
  page.on("pageerror", (e) => errors.push(e.message));
  page.on("dialog", (d) => {
    errors.push(`dialog: ${d.message()}`);
    void d.dismiss();
  });
  await importCard(page, card);
  // The whole of it: while the rows come one by one the strip tells the part as far as it stands.
  await page.waitForFunction(() => performance.getEntriesByName("evaluated").length > 0);
  await expect(volume(page)).not.toHaveText("0.000 cm³");
  const before = await volume(page).textContent();
  let filled = 0;
  for (let n = 1; n <= 5; n++) {
    await row(page, n).getByRole("button").first().click();
    filled += await spoil(page, `[data-row="${n}"]`, n);
    await page.keyboard.press("Escape");
  }
  // Every row is still there, each with its own reason.
  await expect(page.locator("[data-row]")).toHaveCount(5);
  await expect(page.getByRole("alert").filter({ hasText: "cannot be made" }).first()).toBeVisible();
  for (const [key, scope] of [
    ["1", "aside"],
    ["2", "aside"],
    ["4", "aside"],
    ["5", "aside"],
  ] as const) {
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.press(key);
    if (key === "1") await page.locator('[data-balloon="1"] button').first().click();
    if (key === "5") await page.getByRole("button", { name: /cutters$/ }).click();
    filled += await spoil(page, scope, Number(key));
  }
  expect(filled).toBeGreaterThan(40);
  expect(errors).toEqual([]);
  // Never a stack trace, never the markup of what was typed.
  await expect(page.locator("body")).not.toContainText(/at \w+ \(|TypeError|undefined is not/);
  await expect(page.locator('img[src="x"]')).toHaveCount(0);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press("3");
  for (let i = 0; i < 150 && (await page.getByLabel("Undo").isEnabled()); i++) await page.getByLabel("Undo").click();
  await expect(page.getByRole("alert").filter({ hasText: "cannot be made" })).toHaveCount(0);
  await expect(volume(page)).toHaveText(before!);
});
