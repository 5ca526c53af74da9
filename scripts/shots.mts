// Refreshes docs/screenshots from the demo data: one picture of each main view, at 1280 x 800. Needs a built
// application.
import { chromium } from "@playwright/test";
import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const port = 4388,
  base = `http://127.0.0.1:${port}`;
const data = mkdtempSync(path.join(tmpdir(), "sgorbia-shots-"));
const server = spawn(
  process.execPath,
  ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(port)],
  { env: { ...process.env, SGORBIA_DATA: data }, stdio: "ignore" },
);
for (
  let i = 0;
  i < 120 &&
  !(await fetch(`${base}/api/jobs`).then(
    (r) => r.ok,
    () => false,
  ));
  i++
)
  await new Promise((r) => setTimeout(r, 500));
mkdirSync("docs/screenshots", { recursive: true });
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium-headless-shell",
  args: [
    "--no-sandbox",
    "--use-gl=angle",
    "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
    "--disable-background-networking",
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shot = (name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` });
const wait = (ms: number) => page.waitForTimeout(ms);
/** Saved, and worked out to the end: nothing is being checked or computed. */
const settled = () =>
  page
    .getByRole("status")
    .filter({ hasText: /^saved$/ })
    .waitFor({ timeout: 90_000 });
const key = async (k: string) => {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press(k);
};
try {
  await page.goto(base);
  await page.locator("article svg").nth(5).waitFor({ timeout: 90_000 });
  await shot("shelf");
  const open = async (name: string) => {
    await page.goto(base);
    await page.getByLabel(`open ${name}`).click();
    await page.waitForFunction(() => performance.getEntriesByName("evaluated").length > 0, null, { timeout: 90_000 });
    await settled();
    await wait(500);
  };
  await open("Sensor clamp, lower half");
  await page.locator('[data-row="4"]').getByRole("button").first().click();
  await wait(1200);
  await shot("shape");
  await key("2");
  await wait(600);
  await shot("stock");
  await key("4");
  const second = page.getByRole("button", { name: "Setup 20", exact: true });
  await second.click();
  await page.getByText("goes in from above").waitFor({ timeout: 60_000 });
  await page.getByRole("slider", { name: "How far the jaws are opened" }).focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press("ArrowRight");
  await wait(900);
  await shot("hold");
  await key("5");
  await page.getByLabel("cutter for row 4").click({ force: true });
  await page.locator(".ant-select-item-option").filter({ hasText: "⌀1/2," }).first().click();
  await wait(1200);
  await shot("paths");
  await page.keyboard.press("Control+z");
  await key("7");
  await wait(600);
  await shot("release");
  await key("3");
  await page.getByLabel("Callout line").fill("4X 8-32 UNC-2B DEEP .3 DRILL DEEP .45 GRID 2 2 BY 1.2 .6 AT .5,0");
  await wait(1500);
  await shot("callout-ghost");
  await open("Gauge housing lid");
  await key("4");
  await second.click();
  await page.getByText("goes in from above").waitFor({ timeout: 60_000 });
  await wait(900);
  await shot("plate");
  await key("3");
  await page.getByRole("button", { name: "Section" }).click();
  await wait(2000);
  await shot("section");
  await open("Chart-drum hub");
  await key("1");
  await wait(1200);
  await page.locator('[data-balloon="3"] button').first().click();
  await wait(600);
  await shot("print");
  await key("6");
  await page.getByRole("button", { name: "Front", exact: true }).click();
  await wait(1200);
  await page.getByLabel("wipe", { exact: true }).check();
  await wait(900);
  await shot("proof");
  await open("Indexing dial");
  await key("6");
  await page.getByRole("button", { name: "look for the slip" }).click();
  await page.locator('[data-rank="1"]').waitFor({ timeout: 60_000 });
  await wait(500);
  await shot("finder");
  await key("3");
  await page.locator('[data-row="5"]').getByRole("button").first().click();
  await wait(600);
  await key("=");
  await wait(500);
  await page.getByLabel("Circle ⌀", { exact: true }).fill("#7");
  await page.keyboard.press("Tab");
  await page.getByLabel("Holes", { exact: true }).fill("12");
  await page.keyboard.press("Tab");
  await wait(600);
  await shot("reckoner");
  await open("Winding ratchet");
  await page
    .getByRole("group", { name: "Outlines" })
    .getByRole("button", { name: /^pawl window/ })
    .click();
  await wait(700);
  await page.getByLabel("line 3").first().fill("ARC TO X ? R 6.5!");
  await page.keyboard.press("Enter");
  await wait(1500);
  await settled();
  await shot("outline");
  await open("Counterweight");
  await page.getByRole("button", { name: "Pictorial" }).click();
  await wait(1500);
  await settled();
  await wait(2500);
  await shot("turned");
  await open("Tide-staff guide");
  await page.getByRole("group", { name: "Planes" }).getByRole("button", { name: "show", exact: true }).first().click();
  await wait(1500);
  await shot("planes");
  await page.getByLabel("Part on the bench").click({ force: true });
  await page.locator(".ant-select-item-option").filter({ hasText: "jaw" }).first().click();
  await wait(2500);
  await settled();
  await shot("parts");
  await open("Float pulley");
  await page.getByRole("button", { name: "dark" }).click();
  await wait(1000);
  await shot("dark");
  await page.getByRole("button", { name: "paper" }).click();
  await page.goto(`${base}/shop`);
  await page.getByText("what fixtures are proposed with").click();
  await wait(800);
  await shot("shop");
} finally {
  await browser.close();
  server.kill("SIGTERM");
  await new Promise((r) => setTimeout(r, 1500));
  rmSync(data, { recursive: true, force: true });
}
process.exit(0);
