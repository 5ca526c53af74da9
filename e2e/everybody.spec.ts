import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "./test";
import { row, volume } from "./helpers";
import { walk } from "./walk";

const steps = ["Print", "Stock", "Shape", "Hold", "Paths", "Proof", "Release"];
const none = { small: [], targets: [], cutOff: [], sideways: [], names: [], headings: [] };

/** Which rules of accessibility are asked: all, those of colour where only the light is another, or none. */
type Asked = "all" | "colours" | "none";

async function serious(page: Page, asked: Asked): Promise<string[]> {
  if (asked === "none") return [];
  // Legacy mode sums up on the page itself, not on one more that is opened for it: half the time.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({
    resultTypes: ["violations"],
    ...(asked === "colours" ? { runOnly: ["color-contrast"] } : {}),
  });
  const found = await axe.analyze();
  return found.violations
    .filter((v) => v.impact === "serious" || v.impact === "critical")
    .map(
      (v) =>
        `${v.id}: ${v.nodes
          .slice(0, 3)
          .map((n) => n.html.slice(0, 120))
          .join(" | ")}`,
    );
}

async function goTo(page: Page, key: number): Promise<void> {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.locator("body").press(String(key));
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(steps[key - 1]);
  await page.waitForTimeout(500);
}

/** What is wrong on the screen at hand: by the rules of accessibility, and by the walk through all it shows. */
async function faultless(page: Page, where: string, asked: Asked): Promise<void> {
  expect.soft([where, await serious(page, asked)]).toEqual([where, []]);
  expect.soft([where, await walk(page)]).toEqual([where, none]);
}

// Colours do not hang on the width, nor places on the light, nor names on either: three of the four are all there is.
for (const [light, width, height, asked] of [
  ["paper", 1280, 800, "all"],
  ["paper", 640, 400, "none"],
  ["dark", 1280, 800, "colours"],
] as const)
  test(`every step can be read and hit: ${light}, ${width} x ${height}`, async ({ page }) => {
    const said: string[] = [];
    page.on("console", (m) => {
      if (["warning", "error"].includes(m.type()) && !/GPU stall|GL Driver|favicon/.test(m.text())) said.push(m.text());
    });
    await page.setViewportSize({ width, height });
    await page.goto("/");
    await expect(page.locator("article svg").first()).toBeVisible();
    if (light === "dark") await page.getByRole("button", { name: "dark", exact: true }).click();
    await faultless(page, "shelf", asked);
    await page.getByRole("link", { name: "The shop’s figures" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText("The shop’s own figures");
    await faultless(page, "the shop's figures", asked);
    await page.getByText("what fixtures are proposed with").click();
    await faultless(page, "the shop's fixtures", asked);
    await page.goto("/");
    await page.getByRole("link", { name: "open Sensor clamp, lower half" }).click();
    await page.waitForFunction(() => performance.getEntriesByName("evaluated").length > 0);
    // Colours are the same on cards alike: of those one is seen in the other light.
    for (const key of asked === "colours" ? [1, 3, 6] : steps.map((_, i) => i + 1)) {
      await goTo(page, key);
      await faultless(page, steps[key - 1], asked);
      if (width > 1000) continue;
      await page.getByText("picture", { exact: true }).first().click();
      await expect(page.getByRole("region", { name: "Readout" })).toBeVisible();
      await faultless(page, `${steps[key - 1]}, its picture`, asked);
      await page.getByText("card", { exact: true }).first().click();
    }
    await goTo(page, 3);
    await row(page, 3).getByRole("button").first().click();
    await faultless(page, "a row open", asked);
    expect(said).toEqual([]);
  });

test("where there is room for one pane, a row is typed in one and seen in the other", async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await page.goto("/");
  await page.getByRole("link", { name: "open Sensor clamp, lower half" }).click();
  const line = page.getByLabel("Callout line");
  await line.fill("CUT DIA .25 THRU AT 1,0");
  await expect(volume(page)).toBeHidden();
  await page.getByText("picture", { exact: true }).click();
  await expect(volume(page)).toHaveText(/in³/);
  const before = await volume(page).textContent();
  await page.getByText("card", { exact: true }).click();
  await expect(line).toHaveValue("CUT DIA .25 THRU AT 1,0");
  await line.press("Enter");
  await page.getByText("picture", { exact: true }).click();
  await expect(volume(page)).not.toHaveText(before!);
});

test("the address says where one is: Back goes back, a reload comes back, and what was done can be undone", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: "open Sensor clamp, lower half" }).click();
  await expect(page).toHaveTitle("Sensor clamp, lower half · Sgorbia");
  await goTo(page, 5);
  await expect(page).toHaveURL(/step=paths/);
  await goTo(page, 3);
  await row(page, 2).getByRole("button").first().click();
  await expect(page).toHaveURL(/step=shape&row=/);
  await page.goBack();
  await expect(page).not.toHaveURL(/row=/);
  await page.goBack();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Paths");
  await page.goForward();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Shape");
  const rows = await page.locator("[data-row]").count();
  await page.getByLabel("Callout line").fill("CUT DIA .25 THRU AT 1,0");
  await page.getByLabel("Callout line").press("Enter");
  await expect(page.locator("[data-row]")).toHaveCount(rows + 1);
  await goTo(page, 6);
  await expect(page.getByRole("status").filter({ hasText: /^saved$/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Proof");
  await page.getByRole("button", { name: "Undo" }).click();
  await goTo(page, 3);
  await expect(page.locator("[data-row]")).toHaveCount(rows);
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(page.locator("[data-row]")).toHaveCount(rows + 1);
  await page.goto("/");
  await page.goBack();
  await expect(page.locator("[data-row]")).toHaveCount(rows + 1);
  // An address of a row that somebody has taken away since.
  await page.goto(page.url().replace(/\?.*/, "?step=shape&row=gone"));
  await expect(page.getByText("the row of this address is gone")).toBeVisible();
  await expect(page).not.toHaveURL(/row=/);
});

test("the part is turned, brought nearer and picked by keyboard, and what is picked is said", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "open Sensor clamp, lower half" }).click();
  await page.waitForFunction(() => performance.getEntriesByName("evaluated").length > 0);
  const stage = page.getByTestId("stage");
  await page.waitForTimeout(500);
  const picture = () => stage.locator("canvas").evaluate((c: HTMLCanvasElement) => c.toDataURL());
  const seen = [await picture()];
  await stage.focus();
  for (const key of ["ArrowRight", "ArrowUp", "+"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(300);
    seen.push(await picture());
  }
  expect(new Set(seen).size).toBe(4);
  const said = page.getByTestId("picked-words");
  await page.keyboard.press(".");
  await expect(said).toHaveText(/^picked: .* of row \d+, face 1 of \d+$/);
  await page.keyboard.press(".");
  await expect(said).toHaveText(/face 2 of/);
  await page.keyboard.press(",");
  await page.keyboard.press(",");
  await expect(said).toHaveText(/face (\d+) of \1$/);
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/row=/);
});
