import { expect, test } from "./test";
import { choose, newJob, row, saved, step, type, volume } from "./helpers";

test("a routing proposed, soft jaws written for its second side, and both follow the piece", async ({ page }) => {
  await newJob(page, "Clamp", "millimetre", "aluminium 6061");
  await type(
    page,
    "LEAVE BLOCK 60 X 40 X 20",
    "CUT POCKET 30 X 20 R5 DEEP 8",
    "CUT 4X ⌀6 THRU GRID 2 2 BY 48 28",
    "CUT POCKET 20 X 10 R4.5 DEEP 5 ON BOTTOM",
  );
  await expect(volume(page)).toBeVisible();
  await step(page, "Hold");
  await page.getByRole("button", { name: "propose" }).click();
  await expect(page.getByText("2 setups, 1 turn-over")).toBeVisible();
  await expect(page.getByText("every row has a setup")).toBeVisible();
  const rowsOf = (op: number) => page.getByLabel(`Rows of setup ${op}`, { exact: true });
  await expect(rowsOf(10)).toHaveText("123");
  await expect(rowsOf(20)).toHaveText("14");

  // The holes go to the other setup by mouse, and by keyboard; undone, they are back.
  const holes = page.getByLabel("Row 3 of setup 10", { exact: true });
  const undo = page.getByRole("button", { name: "Undo" });
  await holes.hover();
  await page.mouse.down();
  await page.getByRole("button", { name: "Setup 20", exact: true }).hover();
  await page.getByText("mill, bottom up").hover();
  await page.mouse.up();
  await expect(rowsOf(10)).toHaveText("12");
  await expect(rowsOf(20)).toHaveText("134");
  await undo.click();
  await expect(rowsOf(20)).toHaveText("14");
  await holes.focus();
  for (const key of ["Space", "ArrowDown", "Space"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(120);
  }
  await expect(rowsOf(20)).toHaveText("134");
  await undo.click();
  await expect(rowsOf(10)).toHaveText("123");

  // Soft jaws: a grip that is too deep is refused with its reason, and nothing is written.
  await page.getByRole("button", { name: "Setup 20", exact: true }).click();
  await page.getByRole("button", { name: "soft jaws …" }).click();
  const grip = page.getByLabel("Grip, nest depth");
  await grip.fill("25");
  await grip.press("Enter");
  await page.getByRole("button", { name: "write it" }).click();
  await expect(page.getByText("as deep as the piece is high")).toBeVisible();
  await grip.fill("5");
  await grip.press("Enter");
  await page.getByRole("button", { name: "write it" }).click();
  await expect(page.getByText("goes in from above")).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText("every corner")).toBeVisible();
  await expect(page.getByRole("button", { name: "soft jaws, fixed jaw: STEP" })).toBeVisible();

  // The jaws are opened by keyboard; nothing of the job changes.
  const slider = page.getByRole("slider", { name: "How far the jaws are opened" });
  await slider.focus();
  await slider.press("ArrowRight");
  await expect(slider).toHaveAttribute("aria-valuenow", "0.05");

  // The piece when the setup is done, and as it comes.
  await page.getByText("when cut", { exact: true }).click();
  await expect(page.getByText("end of setup 20")).toBeVisible();
  await page.getByText("as it comes", { exact: true }).click();

  // A file of what stands in it.
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "as it stands: STEP" }).click(),
  ]);
  expect(file.suggestedFilename()).toBe("Clamp setup 20.step");

  // The piece becomes longer: the jaws follow, nothing new is remarked.
  await step(page, "Shape");
  await row(page, 1).getByRole("button").first().click();
  const length = row(page, 1).getByRole("combobox").first();
  await length.fill("66");
  await length.press("Enter");
  await step(page, "Hold");
  await page.getByRole("button", { name: "Setup 20", exact: true }).click();
  await expect(page.getByText("goes in from above")).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText("every corner")).toBeVisible();

  // Rows are typed into another setup; what is no row says so and stays typed.
  const typed = page.getByLabel("Rows", { exact: true });
  await typed.fill("1 x");
  await typed.press("Enter");
  await expect(page.getByText("is not understood here")).toBeVisible();
  await typed.fill("1");
  await typed.press("Enter");
  await expect(page.getByText("not cut whole: rows 4")).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText("row 4 is in no setup; it is seen from bottom")).toBeVisible();
  await page.getByRole("button", { name: "undo" }).click();
  await expect(page.getByText("every row has a setup")).toBeVisible({ timeout: 30_000 });

  // All of it is there again after a reload.
  await saved(page);
  await page.reload();
  await step(page, "Hold");
  await expect(rowsOf(20)).toHaveText("14");
  await expect(page.getByText('"soft jaws" across y, grip 5')).toBeVisible();
});

test("a chuck says what it grips, and a vise on a round that it holds on nothing", async ({ page }) => {
  await newJob(page, "Disc", "millimetre", "brass");
  await type(page, "LEAVE ROUND ⌀50 X 30");
  await step(page, "Hold");
  await choose(page.getByLabel("Fixture"), "chuck");
  const grip = page.getByLabel("Grip depth");
  await grip.fill("8");
  await grip.press("Enter");
  await expect(page.getByText("gripped ⌀")).toBeVisible({ timeout: 30_000 });
  // π · 50 · 8
  await expect(page.getByText("1256.64 mm²")).toBeVisible();
  await grip.fill("30");
  await grip.press("Enter");
  await expect(page.getByText("as long as the piece")).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "grip 10" }).click();
  await expect(page.getByText("as long as the piece")).toHaveCount(0, { timeout: 30_000 });
  await choose(page.getByLabel("Fixture"), "vise, plain jaws");
  await expect(page.getByText("nothing flat stands opposite itself")).toBeVisible({ timeout: 30_000 });
});
