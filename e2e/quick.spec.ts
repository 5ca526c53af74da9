import { expect, test, type Page } from "./test";
import { importCard, row, saved, volume } from "./helpers";

const marks = (page: Page) =>
  page.evaluate(() => {
    const first = (name: string) => performance.getEntriesByName(name)[0]?.startTime ?? null;
    return { paint: first("first-contentful-paint"), picture: first("picture"), evaluated: first("evaluated") };
  });
const evaluated = (page: Page) =>
  page.waitForFunction(() => performance.getEntriesByName("evaluated").length > 0, null, { timeout: 60_000 });
const figures = async (page: Page) => ({
  volume: await volume(page).textContent(),
  size: await page.getByLabel("Readout").getByRole("button").allTextContents(),
  proved: await page.getByRole("button", { name: /Proof/ }).textContent(),
});

test("a job opens with its picture and its figures, before the engine has caught up", async ({ page }, info) => {
  await page.goto("/");
  await page
    .getByRole("link", { name: /Chart-drum hub/ })
    .first()
    .click();
  await expect(page.getByLabel("Callout line")).toBeVisible();
  // Loaded anew, as by a bookmark: nothing is warm.
  await page.reload();
  // On a busy machine the engine's first rows may be drawn before what was kept has come.
  await page.waitForFunction(() => performance.getEntriesByName("kept").length > 0);
  const early = await figures(page);
  await evaluated(page);
  await saved(page);
  // What was shown at once is what the engine finds, and it stood there before.
  expect(await figures(page)).toEqual(early);
  const first = await marks(page);
  expect(first.picture!).toBeLessThan(first.evaluated!);
  info.annotations.push({
    type: "opening",
    description: `picture ${Math.round(first.picture! - first.paint!)} ms after the first paint, computed anew after ${Math.round(first.evaluated!)} ms`,
  });
});

test("an edit makes the kept picture a past one; the next opening has the new one", async ({ page }) => {
  await importCard(page, 'JOB "Quick plate"\nUNIT mm\nLEAVE BLOCK 60 X 40 X 10\nCUT ⌀8 THRU\n');
  await evaluated(page);
  await expect(volume(page)).toHaveText("23.497 cm³");
  await page.getByLabel("Callout line").fill("CUT ⌀8 THRU AT 20,0");
  await page.getByLabel("Callout line").press("Enter");
  await expect(volume(page)).toHaveText("22.995 cm³");
  await saved(page);
  const kept = page.waitForResponse((r) => r.url().includes("/standing") && r.request().method() === "PUT");
  expect((await kept).status()).toBe(200);
  await page.reload();
  await page.waitForFunction(() => performance.getEntriesByName("picture").length > 0);
  await expect(volume(page)).toHaveText("22.995 cm³");
  await evaluated(page);
  await expect(volume(page)).toHaveText("22.995 cm³");
});

test("stop keeps the rows that stand, and go on takes it up again", async ({ page }) => {
  // Rows of letters: each takes so long that a person, and a slow machine, can press between two of them.
  const marks = ["TIDE 1", "TIDE 2", "TIDE 3", "TIDE 4"];
  const outlines = marks.map(
    (m, i) => `OUTLINE "${m}"\nTEXT "${m}" HEIGHT ${5 + i / 10} MIDDLE AT 0,${i * 8 - 28}\nEND`,
  );
  const rows = marks.map((m) => `CUT ENGRAVE "${m}" V 60 DEEP .2`);
  const block = ["LEAVE BLOCK 90 X 70 X 20", ...rows];
  await importCard(page, ['JOB "Slow block"', "UNIT mm", ...outlines, ...block].join("\n"));
  await expect(page.getByRole("status").filter({ hasText: /row \d+ of 5/ })).toBeVisible();
  await page.getByRole("button", { name: "stop", exact: true }).click();
  await expect(page.getByRole("status").filter({ hasText: /stopped at row \d+ of 5/ })).toBeVisible();
  // The part as it stood there is still looked at.
  await expect(volume(page)).not.toHaveText("0.000 cm³");
  await page.getByRole("button", { name: "go on" }).click();
  await evaluated(page);
  await saved(page);
  await expect(row(page, 5)).toBeVisible();
});

test("while the hub is edited the page's thread is free", async ({ page }, info) => {
  await page.goto("/");
  await page
    .getByRole("link", { name: /Chart-drum hub/ })
    .first()
    .click();
  await evaluated(page);
  await saved(page);
  await page.evaluate(() => {
    const seen: number[] = [];
    Object.assign(window, { longTasks: seen });
    new PerformanceObserver((list) => seen.push(...list.getEntries().map((e) => Math.round(e.duration)))).observe({
      type: "longtask",
    });
  });
  const longest = () =>
    page.evaluate(() => {
      const { longTasks } = window as Window & { longTasks?: number[] };
      return (longTasks ?? []).splice(0).reduce((a, b) => Math.max(a, b), 0);
    });
  const stage = (await page.getByTestId("stage").boundingBox())!;
  const cross = async () => {
    for (let i = 0; i < 12; i++) await page.mouse.move(stage.x + 200 + i * 25, stage.y + 200 + i * 10);
  };
  // The stage is drawn by software here: what a graphics card does in a moment holds the thread. So much it takes by itself.
  await page.mouse.move(stage.x + 200, stage.y + 200);
  await page.mouse.down();
  await cross();
  await page.mouse.up();
  const drawn = Math.max(await longest(), 100);
  const line = page.getByLabel("Callout line");
  await line.click();
  await line.pressSequentially("CUT 2X ⌀3 DEEP 4 ON BC 60 FROM 15", { delay: 60 });
  await line.press("Enter");
  await expect(line).toHaveValue("");
  await cross();
  await saved(page);
  const edited = await longest();
  info.annotations.push({ type: "longest task", description: `${edited} ms while edited, ${drawn} ms while turned` });
  // The hub takes the kernel a second and more: on the page's thread that would be many times one picture.
  expect(edited).toBeLessThan(6 * drawn);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
});
