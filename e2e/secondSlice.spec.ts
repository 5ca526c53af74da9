import { readFileSync } from "node:fs";
import { expect, test } from "./test";
import { choose, importCard, newJob, row, saved, type, volume } from "./helpers";

test("a part with planes, ends and repeats, typed, opened and mended by keyboard and mouse", async ({ page }) => {
  await newJob(page, "Guide block", "millimetre", "aluminium 6061");
  await type(
    page,
    "LEAVE BLOCK 60 X 40 X 20",
    "CUT POCKET 40 X 30 THRU",
    "CUT ⌀5 DEEP TO NEXT ON LEFT AT 0,10",
    "REPEAT 3 LINE 2X BY 8 ALONG Y",
  );
  // 48000 - 24000 - 2 · π/4 · 25 · 10, in cm³.
  await expect(volume(page)).toContainText("23.607");
  await expect(row(page, 4)).toContainText("repeat");

  // A plane with a name of its own, typed wrongly, then right; the row stands on it.
  await page.getByRole("button", { name: "+ plane" }).click();
  const making = page.getByRole("textbox", { name: "What plane a is" });
  await making.fill("TILT 30 ABOUT");
  await making.press("Enter");
  await expect(page.getByText("the line ends too early: X, Y or Z")).toBeVisible();
  await making.fill("OFFSET -2 FROM TOP");
  await making.press("Enter");
  await page.getByRole("button", { name: "show", exact: true }).click();
  await expect(page.getByTestId("point-names")).toContainText("a");
  await type(page, 'CUT POCKET 6 X 6 DEEP 3 AT 25,0 ON PLANE "a"');
  await expect(volume(page)).toContainText("23.499");
  await page.getByRole("button", { name: "Delete plane a" }).click();
  await expect(page.getByText('plane "a" is used by row 5')).toBeVisible();

  // The plane of a row in its editor: what is no plane stays typed and says so; Escape gives it up.
  await row(page, 5).getByRole("button").first().click();
  const on = row(page, 5).getByRole("textbox", { name: "On plane" });
  await on.fill("SIDE 9 OF 1");
  await on.press("Enter");
  await expect(row(page, 5)).toContainText("row 1 has no flat 9");
  await on.fill("NOWHERE");
  await on.press("Enter");
  await expect(row(page, 5)).toContainText("is not understood here");
  await on.press("Escape");
  await on.fill("TOP");
  await on.press("Enter");
  await expect(row(page, 5)).not.toContainText("PLANE");
  await page.getByRole("button", { name: "Delete plane a" }).click();
  await expect(page.getByRole("textbox", { name: "What plane a is" })).toHaveCount(0);

  // What uses a row is said in it, and the whole stands again after a reload.
  await row(page, 3).getByRole("button").first().click();
  await expect(row(page, 3)).toContainText("used by row 4");
  await saved(page);
  await page.reload();
  await expect(volume(page)).toContainText("23.499");

  // One copy gets figures of its own: nothing changes until they do. Twice is refused, below the steps.
  await row(page, 4).getByRole("button").first().click();
  const copy = row(page, 4).getByLabel("One copy");
  await copy.fill("2");
  await copy.press("Enter");
  await expect(row(page, 5)).toContainText('PLANE "copy 2"');
  await expect(volume(page)).toContainText("23.499");
  await copy.fill("2");
  await copy.press("Enter");
  const news = page.getByText("copy 2 is left out already");
  await expect(news).toBeVisible();
  const steps = (await page.getByRole("navigation").boundingBox())!;
  expect((await news.boundingBox())!.y).toBeGreaterThan(steps.y + steps.height);
});

test("edges go off and on as a class, and a row is put before another", async ({ page }) => {
  await newJob(page, "Block", "millimetre", "aluminium 6061");
  await type(page, "LEAVE BLOCK 60 X 40 X 20", "CUT ROUND 5 VERTICAL", "CUT CHAMFER 1 OUTER TOP");
  await page.getByRole("button", { name: "edges off" }).click();
  await expect(volume(page)).toContainText("48.000");
  await page.getByRole("button", { name: "edges on" }).click();
  await expect(volume(page)).not.toContainText("48.000");
  await row(page, 2).focus();
  await page.getByLabel("Callout line").fill("CUT POCKET 10 X 10 DEEP 5");
  await page.getByRole("button", { name: "before row 2" }).click();
  await page.getByLabel("Callout line").press("Enter");
  await expect(row(page, 2)).toContainText("POCKET");
});

test("a round that is too large for some edges is taken on the others", async ({ page }) => {
  await newJob(page, "Ribbed block", "millimetre", "aluminium 6061");
  await type(page, "LEAVE BLOCK 60 X 40 X 12", "LEAVE BLOCK 10 X 4 X 10 AT 0,10 ON TOP", "CUT ROUND 3 VERTICAL");
  await expect(row(page, 3)).toContainText("cannot be made");
  await row(page, 3).getByRole("button", { name: "take those that fit" }).click();
  await expect(row(page, 3)).toContainText("FITTING");
  await expect(row(page, 3)).not.toContainText("cannot be made");
  // 28.8 and 0.4 less the four corners of the plate, 92.7 mm³: the rib keeps its own.
  await expect(volume(page)).toContainText("29.107");
});

test("parts of a job: a plate that follows the workpiece, chosen in the title block", async ({ page }) => {
  await importCard(page, readFileSync("tests/shape/plate.card", "utf8"));
  await expect(volume(page)).toContainText("42.950");
  await choose(page.getByLabel("Part on the bench"), "plate");
  await expect(volume(page)).toContainText("575.944");
  await choose(page.getByLabel("Part on the bench"), "workpiece");
  await row(page, 1).getByRole("button").first().click();
  await row(page, 1).getByLabel("Length").fill("66");
  await row(page, 1).getByLabel("Length").press("Enter");
  await choose(page.getByLabel("Part on the bench"), "plate");
  // Each nest has grown by 6 x 40.2 x 5.
  await expect(volume(page)).toContainText("573.532");
  // A part that is used cannot go; a new one can be made and taken away again.
  await choose(page.getByLabel("Part on the bench"), "parts …");
  await page.getByRole("button", { name: "+ part" }).click();
  await expect(page.getByText("No rows yet.")).toBeVisible();
  await choose(page.getByLabel("Part on the bench"), "parts …");
  await page.getByRole("button", { name: "Delete part soft jaws" }).click();
  await expect(page.getByLabel("Name of part 3")).toHaveCount(0);
  await page.keyboard.press("Escape");
  await saved(page);
  await page.goto("/");
  await expect(page.locator(`[data-job="Sensor clamp"]`)).toContainText("2 parts");
});

test("a solid that came as a STEP file is cut further; a file that is none says so", async ({ page }) => {
  await newJob(page, "Block", "millimetre", "aluminium 6061");
  await type(page, "LEAVE BLOCK 60 X 40 X 20", "CUT ROUND 5 VERTICAL");
  await expect(volume(page)).toContainText("47.571");
  await saved(page);
  const from = /job\/([^?]+)/.exec(page.url())![1];
  const step = await (await page.request.get(`/api/jobs/${from}/files/step`)).body();
  await newJob(page, "Cut further", "millimetre", "aluminium 6061");
  const pick = async (name: string, buffer: Buffer) => {
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "read STEP" }).click();
    await (await chooser).setFiles({ name, mimeType: "model/step", buffer });
  };
  await pick("words.step", Buffer.from("not a solid"));
  await expect(page.getByText(/words\.step: this is neither/)).toBeVisible();
  // A row may name a file that is still to come.
  await type(page, 'LEAVE SOLID "block.step"');
  await expect(row(page, 1)).toContainText('there is no file "block.step"');
  await pick("block.step", step);
  await expect(volume(page)).toContainText("47.571");
  await expect(page.locator("[data-row]")).toHaveCount(1);
  await type(page, "CUT POCKET 20 X 10 DEEP 5");
  await expect(volume(page)).toContainText("46.571");
  await saved(page);
  await page.reload();
  await expect(row(page, 1)).toContainText('SOLID "block.step"');
  await expect(volume(page)).toContainText("46.571");
  // The same file is its stock: what the pocket took is what is left to cut.
  await page.getByRole("button", { name: /^Stock/ }).click();
  await page.getByLabel("Form").click();
  await page.getByTitle("solid from a STEP file").click();
  await expect(page.getByText("It lies as its file has it")).toBeVisible();
  await expect(page.getByTestId("readout-last")).toContainText("1.000");
});
