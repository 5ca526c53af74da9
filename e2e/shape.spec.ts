import { expect, test } from "./test";
import { choose, importCard, newJob, row, saved, type, volume } from "./helpers";

test("a part is entered from the callout line alone, and every change can be undone", async ({ page }) => {
  await newJob(page, "Counterweight", "millimetre", "brass");
  const line = page.getByLabel("Callout line");
  // While typing it says what comes next, and where a mistake stands.
  await line.fill("LEAVE BLOCK 100 X 60");
  await expect(page.locator("#callout-says")).toContainText("next: x");
  await line.fill("LEAVE BLOK 100");
  await expect(page.locator("#callout-says")).toContainText("is no row");
  await expect(line).toHaveAttribute("aria-invalid", "true");
  await line.press("Enter");
  await expect(line).toHaveValue("LEAVE BLOK 100");
  await type(
    page,
    "LEAVE BLOCK 100 X 60 X 20",
    "pocket 50 X 30 R5 DEEP 8",
    "4X M5 DEEP 10 DRILL DEEP 14 GRID 2 2 BY 80 40",
  );
  await expect(row(page, 3)).toContainText("4X M5 DEEP 10 DRILL DEEP 14 GRID 2 2 BY 80 40");
  // 120 - 12 + corners - 4 holes: 120000 - (1500 - 21.46) * 8 - 4 * (π 2.1² 14 + cone)
  const cone = (Math.PI * 2.1 ** 3) / Math.tan((59 * Math.PI) / 180) / 3;
  const expected = (120000 - (1500 - (4 - Math.PI) * 25) * 8 - 4 * (Math.PI * 2.1 ** 2 * 14 + cone)) / 1000;
  await expect(volume(page)).toHaveText(`${expected.toFixed(3)} cm³`);
  await page.getByLabel("Undo").click();
  await expect(row(page, 3)).toHaveCount(0);
  await page.getByLabel("Undo").click();
  await expect(volume(page)).toHaveText("120.000 cm³");
  await page.keyboard.press("Control+Shift+z");
  await page.keyboard.press("Control+Shift+z");
  await expect(volume(page)).toHaveText(`${expected.toFixed(3)} cm³`);
  await saved(page);
  await page.reload();
  await expect(row(page, 3)).toBeVisible();
  await expect(volume(page)).toHaveText(`${expected.toFixed(3)} cm³`);
});

test("a row opens in place, shows value and source, keeps wrong text, and takes a balloon", async ({ page }) => {
  await importCard(
    page,
    'JOB "Clamp"\nUNIT in\n#1 .4 DEEP\n#2 2.5\nLEAVE BLOCK 4 X #2 X .75\nCUT POCKET 2 X 1-1/4 R.2 DEEP .4\n',
  );
  await row(page, 2).getByRole("button").first().click();
  const depth = row(page, 2).getByLabel("Depth").last();
  await expect(row(page, 2).getByLabel("Width")).toHaveValue("1-1/4");
  await expect(row(page, 2)).toContainText("1.250");
  // A literal equal to an unused balloon offers to be linked to it.
  await row(page, 2).getByRole("button", { name: "= #1?" }).click();
  await expect(depth).toHaveValue("#1");
  await expect(row(page, 2)).toContainText(".4 DEEP");
  await depth.fill("4..2");
  await depth.press("Enter");
  await expect(depth).toHaveValue("4..2");
  await expect(row(page, 2).getByRole("alert")).toContainText("cannot be made");
  await expect(row(page, 1).getByRole("alert")).toHaveCount(0);
  await expect(volume(page)).toHaveText("7.500 in³");
  await depth.fill("1/0");
  await depth.press("Enter");
  await expect(row(page, 2)).toContainText("division by zero");
  await depth.fill("(#1 + .1)/2");
  await depth.press("Enter");
  await expect(row(page, 2)).toHaveAttribute("aria-label", /DEEP \(#1 \+ \.1\)\/2/);
  await expect(row(page, 2).getByRole("alert")).toHaveCount(0);
  await row(page, 2).getByLabel("Corner radius").fill("");
  await row(page, 2).getByLabel("Corner radius").press("Enter");
  await expect(row(page, 2)).toContainText("sharp inside corners");
  await row(page, 2).locator('[data-rule="sharp-inside-corner"]').getByRole("button", { name: /^R\./ }).click();
  await expect(row(page, 2)).not.toContainText("sharp inside corners");
  // Choices change the row's form without knowing the grammar.
  await choose(row(page, 2).getByLabel("Places"), "on a grid");
  await expect(row(page, 2).getByRole("alert")).toContainText("no value yet");
  await row(page, 2).getByLabel("Spacing x").fill(".1");
  await row(page, 2).getByLabel("Spacing x").press("Tab");
  await row(page, 2).getByLabel("Spacing y").fill(".1");
  await row(page, 2).getByLabel("Spacing y").press("Tab");
  await expect(row(page, 2)).toContainText("GRID 2 2 BY .1 .1");
  await expect(row(page, 2).getByRole("alert")).toHaveCount(0);
});

test("rows move by keyboard and by dragging, switch off, duplicate, delete, copy and paste as text", async ({
  page,
}) => {
  await importCard(
    page,
    'JOB "Rows"\nUNIT mm\nLEAVE BLOCK 60 X 40 X 20\nCUT POCKET 20 X 10 R3 DEEP 5\nCUT ⌀4 THRU ON FLOOR OF 2\n',
  );
  await expect(volume(page)).not.toHaveText("0.000 cm³");
  await row(page, 3).focus();
  await page.keyboard.press("Alt+ArrowUp");
  await expect(row(page, 2)).toContainText("⌀4 THRU ON FLOOR OF 3");
  await expect(row(page, 2).getByRole("alert")).toContainText("row 3 is no row before");
  await page.keyboard.press("Alt+ArrowDown");
  await expect(row(page, 3)).toContainText("ON FLOOR OF 2");
  const from = (await row(page, 3).getByTitle("drag to another place").boundingBox())!,
    to = (await row(page, 2).boundingBox())!;
  await page.mouse.move(from.x + 5, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 5, from.y - 20, { steps: 5 });
  await page.mouse.move(to.x + 20, to.y + 8, { steps: 8 });
  await page.mouse.up();
  await expect(row(page, 2)).toContainText("FLOOR OF 3");
  await page.keyboard.press("Control+z");
  await expect(row(page, 3)).toContainText("FLOOR OF 2");
  await row(page, 3).getByRole("button").first().click();
  await row(page, 3).getByRole("button", { name: "switch off" }).click();
  await expect(row(page, 3)).toContainText("off");
  await row(page, 3).getByRole("button", { name: "switch on" }).click();
  await row(page, 3).getByRole("button", { name: "duplicate" }).click();
  await expect(row(page, 4)).toContainText("⌀4 THRU ON FLOOR OF 2");
  await row(page, 4).focus();
  await page.keyboard.press("Delete");
  await expect(row(page, 4)).toHaveCount(0);
  await row(page, 2).focus();
  await page.keyboard.press("Control+c");
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe("; UNIT mm\nCUT POCKET 20 X 10 R3 DEEP 5\n");
  await page.evaluate(() => navigator.clipboard.writeText("CUT ⌀3 THRU AT 20,10\nCUT ⌀3 THRU AT -20,10\n"));
  await row(page, 3).focus();
  await page.keyboard.press("Control+v");
  await expect(row(page, 5)).toContainText("⌀3 THRU AT -20,10");
  await page.evaluate(() => navigator.clipboard.writeText("CUT ⌀3 THRU\nCUT NONSENSE\n"));
  await page.keyboard.press("Control+v");
  await expect(page.getByText(/line 2, column 5/)).toBeVisible();
  await expect(row(page, 6)).toHaveCount(0);
  // Deleting a row that another stands on says which.
  await row(page, 2).focus();
  await page.keyboard.press("Delete");
  await expect(page.getByText(/was used by row 3/)).toBeVisible();
});

test("the stage steps through the rows, and a picked face names its row", async ({ page }) => {
  await importCard(
    page,
    'JOB "Stage"\nUNIT mm\nSTOCK PLATE 110 X 70 X 25\nLEAVE BLOCK 100 X 60 X 20\nCUT POCKET 50 X 30 R5 DEEP 8\nCUT ⌀10 THRU AT 38,18\n',
  );
  await expect(volume(page)).toHaveText(/^10[67]\.\d+ cm³$/);
  await page.keyboard.press("[");
  await expect(page.getByText("after row 3 of 3")).toBeVisible();
  await page.keyboard.press("[");
  await page.keyboard.press("[");
  await expect(volume(page)).toHaveText("120.000 cm³");
  await page.keyboard.press("]");
  await page.keyboard.press("]");
  await page.keyboard.press("]");
  await page.getByRole("button", { name: "Top" }).click();
  await page.waitForTimeout(700);
  const stage = page.getByTestId("stage");
  const box = (await stage.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await expect(page.getByRole("region", { name: "Readout" }).getByText("Picked: floor of row 2")).toBeVisible();
  await expect(page.getByTestId("readout-last")).toHaveText(`${(1500 - (4 - Math.PI) * 25).toFixed(2)} mm²`);
  await expect(row(page, 2)).toHaveAttribute("aria-current", "true");
  await page.keyboard.press("u");
  await expect(volume(page)).toHaveText(/in³/);
  await page.keyboard.press("m");
  await page.mouse.click(box.x + box.width / 2 - 60, box.y + box.height / 2);
  await page.mouse.click(box.x + box.width / 2 + 60, box.y + box.height / 2);
  await expect(page.getByText("Measured")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Section" }).click();
  await choose(page.getByLabel("Section looks from"), "from the right");
  await page.getByLabel("Place of the section plane").press("ArrowLeft");
  await page.keyboard.press("Escape");
  await page.locator("body").press("?");
  await expect(page.getByText("to the callout line")).toBeVisible();
});

test("typing is never blocked while the solid is worked out", async ({ page }) => {
  await importCard(page, 'JOB "Busy"\nUNIT mm\nLEAVE BLOCK 300 X 200 X 20\n');
  await expect(volume(page)).toHaveText("1200.000 cm³");
  await type(page, "⌀3 DEEP 5 GRID 20 20 BY 12 8");
  const line = page.getByLabel("Callout line");
  const start = Date.now();
  await line.pressSequentially("POCKET 20 X 10 R3 DEEP 5");
  expect(Date.now() - start).toBeLessThan(4000);
  await expect(page.locator("#callout-says")).toContainText("pocket");
  await expect(volume(page)).not.toHaveText("1200.000 cm³", { timeout: 60_000 });
});

test("rows are grouped by name, folded to one line, switched off together, and stay so in the card", async ({
  page,
}) => {
  await importCard(
    page,
    'JOB "Grouped"\nUNIT mm\nLEAVE BLOCK 60 X 40 X 20\nCUT ⌀6 THRU AT -20,0\nCUT ⌀6 THRU AT 20,0\nCUT FACE DEEP 1\n',
  );
  await expect(volume(page)).toHaveText(/44\.\d+ cm³/);
  for (const n of [2, 3]) {
    await row(page, n).getByRole("button").first().click();
    await row(page, n).getByLabel("Group of the row").fill("ports");
    await row(page, n).getByLabel("Group of the row").press("Enter");
    await row(page, n).getByRole("button", { name: "close" }).click();
  }
  const group = page.locator('[data-group="ports"]');
  await expect(group).toContainText("rows 2–3");
  // Folded by keyboard: the rows are gone from the list, and the row after them keeps its number.
  await group.getByRole("button", { name: "ports", exact: true }).focus();
  await page.keyboard.press("Enter");
  await expect(page.locator("[data-row]")).toHaveCount(2);
  await expect(row(page, 4)).toContainText("FACE");
  // Arrows come through a folded group: what is at hand shows.
  await row(page, 4).focus();
  await page.keyboard.press("ArrowUp");
  await expect(row(page, 3)).toBeFocused();
  await group.getByRole("button", { name: /rows 2 to 3 off/ }).click();
  await expect(volume(page)).toHaveText(/45\.600 cm³/);
  await expect(group).toContainText("off");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(volume(page)).toHaveText(/44\.\d+ cm³/);
  await saved(page);
  await page.reload();
  await expect(page.locator('[data-group="ports"]')).toContainText("rows 2–3");
});
