import { expect, test } from "./test";

test("a new job begins at its unit, and Enter takes the material that was typed", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  // The keyboard is at the first unit: the space bar takes it.
  await expect(page.getByRole("radio", { name: "inch" })).toBeFocused();
  await page.keyboard.press("Space");
  const material = page.getByRole("combobox", { name: "Material" });
  await material.focus();
  await page.keyboard.type("al");
  await expect(page.getByRole("option").first()).toBeAttached();
  await page.keyboard.press("Enter");
  await expect(material).toHaveValue("al");
  // Gone to by the arrows, a name is taken with Enter; its density is in the job's unit.
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(material).toHaveValue(/^aluminium/);
  await expect(page.getByRole("status").filter({ hasText: "lb/in³" })).toBeVisible();
});

test("copies of the shelf are made, listed, and put back in its place", async ({ page }) => {
  await page.goto("/");
  const jobs = page.locator("article");
  await expect(jobs.first()).toBeVisible();
  const before = await jobs.count();
  await page.getByRole("button", { name: "Copies", exact: true }).click();
  await page.getByRole("button", { name: "Make a copy now" }).click();
  await expect(page.getByRole("table").getByText("asked").first()).toBeVisible();
  await page.keyboard.press("Escape");
  await page
    .getByLabel(/^more for /)
    .first()
    .click();
  await page.getByRole("menuitem", { name: "duplicate" }).click();
  await expect(jobs).toHaveCount(before + 1);
  await page.getByRole("button", { name: "Copies", exact: true }).click();
  await page
    .getByRole("button", { name: /^Put back/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByText(/The shelf is as it was on/)).toBeVisible();
  // What was there until then is kept too.
  await expect(page.getByRole("table").getByText("before restore")).toBeVisible();
  await expect(jobs).toHaveCount(before);
});
