import { expect, test, type Page } from "./test";
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { importCard, row, saved, type, volume } from "./helpers";

const card = (name: string, ...rows: string[]) => [`JOB "${name}"`, "UNIT mm", 'MATERIAL "brass"', ...rows].join("\n");
const step = (page: Page, name: string) =>
  page
    .getByRole("navigation", { name: "Steps of the job" })
    .getByRole("button", { name: new RegExp(`^${name}`) })
    .click();
const stored = async (page: Page) => {
  const r = await page.request.get(`/api/jobs/${page.url().split("/").pop()}`);
  return (await r.json()) as { revision: number; job: { parts: { rows: unknown[] }[]; signOff?: { reason?: string } } };
};

test("a file over 10 MB is kept whole, or refused", async ({ request, baseURL }) => {
  const png = (size: number) => {
    const bytes = Buffer.alloc(size, 7);
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]).copy(bytes);
    return bytes;
  };
  const send = (data: Buffer, headers = {}) =>
    request.post("/api/attachments", { data, headers: { origin: baseURL!, ...headers } });
  for (const size of [10_485_761, 14_000_000, 19_999_999]) {
    const bytes = png(size);
    const r = await send(bytes);
    expect(r.status()).toBe(201);
    const kept = (await r.json()) as { hash: string; size: number };
    expect(kept).toMatchObject({ size, hash: createHash("sha256").update(bytes).digest("hex") });
    expect((await (await request.get(`/api/attachments/${kept.hash}`)).body()).length).toBe(size);
  }
  expect((await send(png(20_000_001))).status()).toBe(413);
  expect((await send(png(1000), { "x-content-sha256": "0".repeat(64) })).status()).toBe(400);
});

test("a second server on the same data folder says so and does not start", async ({ data }) => {
  const child = spawn(process.execPath, ["scripts/start.mjs"], {
    env: { ...process.env, PORT: "4393", SGORBIA_DATA: data },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let out = "";
  child.stdout.on("data", (d) => {
    out += String(d);
  });
  child.stderr.on("data", (d) => {
    out += String(d);
  });
  const code = await new Promise((resolve) => child.once("exit", resolve));
  expect(code).not.toBe(0);
  expect(out).toMatch(/in use by another Sgorbia/);
  expect(out).not.toMatch(/Sgorbia is at/);
});

test("a lost answer is no conflict, and going back to the shelf right after Enter doubles nothing", async ({
  page,
}) => {
  await importCard(page, card("Lost answer", "LEAVE BLOCK 60 X 40 X 20"));
  await expect(row(page, 1)).toBeVisible();
  await saved(page);
  // The server takes the save; its answer never arrives, nor does anything else until both notices are read.
  let lost = 0;
  let away = true;
  await page.route("**/api/jobs/*", async (route) => {
    if (route.request().method() !== "PUT" || !away) return route.continue();
    if (lost++ === 0) await route.fetch();
    await route.abort();
  });
  await type(page, "CUT FACE DEEP 1");
  await expect(page.getByText("server away, kept here")).toBeVisible();
  await expect(page.getByText(/Not saved since/)).toBeVisible();
  away = false;
  await saved(page);
  expect((await stored(page)).job.parts[0].rows).toHaveLength(2);
  const url = page.url();
  await type(page, "CUT ⌀10 THRU");
  await page.getByTitle("back to the shelf").click();
  await expect(page.getByRole("button", { name: "New job" })).toBeVisible();
  await page.goto(url);
  await expect(row(page, 3)).toContainText("⌀10 THRU");
  await saved(page);
  await expect(page.getByText("changed in another window")).toHaveCount(0);
  expect((await stored(page)).job.parts[0].rows).toHaveLength(3);
});

test("two windows keep their own unsent edits; what a crashed one left is offered", async ({ page, context }) => {
  await importCard(page, card("Two windows", "LEAVE BLOCK 60 X 40 X 20"));
  await expect(row(page, 1)).toBeVisible();
  await saved(page);
  const url = page.url();
  const second = await context.newPage();
  await second.goto(url);
  await expect(row(second, 1)).toBeVisible();
  await expect(volume(page)).not.toHaveText(/^0\.000/);
  await expect(volume(second)).not.toHaveText(/^0\.000/);
  // Both are cut off; each keeps a row of its own; the second is closed.
  await context.route("**/api/jobs/*", (route) =>
    route.request().method() === "PUT" ? route.abort() : route.continue(),
  );
  await type(page, "CUT FACE DEEP 1");
  await type(second, "CUT ⌀8 THRU");
  await expect(page.getByText("server away, kept here")).toBeVisible();
  await expect(second.getByText("server away, kept here")).toBeVisible();
  // It crashes: a window that closes in good order would still try to send, past any route.
  await second.goto("chrome://crash").catch(() => undefined);
  await second.close();
  // Pressed while it is still away: once the way is free it sends by itself, and the button may be gone before it is hit.
  const tried = page.waitForRequest((request) => request.method() === "PUT");
  await page.getByRole("button", { name: "Try now" }).click();
  await tried;
  await context.unroute("**/api/jobs/*");
  await saved(page);
  await page.reload();
  await expect(page.getByText(/A window that was closed left 1 change/)).toBeVisible();
  await expect(page.getByText("CUT ⌀8 THRU")).toBeVisible();
  await expect(page.getByText(/do not simply go on top/)).toBeVisible();
  await page.getByRole("button", { name: "As a job of its own" }).click();
  await expect(page.getByText(/A window that was closed left/)).toHaveCount(0);
  expect((await stored(page)).job.parts[0].rows).toHaveLength(2);
  await page.goto("/");
  await expect(page.getByText("Two windows (kept aside)")).toBeVisible();
});

test("what would not be kept is refused on the page, and the job goes on saving", async ({ page }) => {
  await importCard(page, card("Refused", "LEAVE BLOCK 60 X 40 X 20"));
  await expect(row(page, 1)).toBeVisible();
  await page.getByRole("button", { name: "+ outline" }).click();
  const line = page.getByLabel("Next line of the outline");
  for (const text of ["START 0,0", "LINE TO X 20", "ARC TO 30,10 R 10 CCW", "TANGENT 1 0"]) {
    await line.fill(text);
    await line.press("Enter");
  }
  await expect(page.getByText(/there is no element 0/)).toBeVisible();
  await saved(page);
  expect(JSON.stringify((await stored(page)).job)).toContain('"arc"');
});

const section = (name: string, body: (string | number)[]) =>
  [0, "SECTION", 2, name, body.join("\n"), 0, "ENDSEC"].join("\n");
const pairs = (...p: (string | number)[]) => p.join("\n");
const drawing = (entities: (string | number)[]) => pairs(section("ENTITIES", entities), 0, "EOF");
const hostile: Record<string, string> = {
  "cut-in-its-table.dxf": pairs(
    0,
    "SECTION",
    2,
    "TABLES",
    0,
    "TABLE",
    2,
    "LAYER",
    70,
    1,
    0,
    "LAYER",
    2,
    "A",
    70,
    0,
    62,
    7,
  ),
  "no-entities.dxf": pairs(0, "SECTION", 2, "HEADER", 0, "ENDSEC", 0, "EOF"),
  "endless-arc.dxf": drawing([0, "ARC", 8, "A", 10, 0, 20, 0, 40, 10, 50, 0, 51, "1e300"]),
  "nested.dxf": pairs(
    0,
    "SECTION",
    2,
    "BLOCKS",
    ...[0, 1, 2, 3, 4, 5].flatMap((k) => [
      0,
      "BLOCK",
      2,
      `B${k}`,
      10,
      0,
      20,
      0,
      ...(k === 0
        ? [0, "CIRCLE", 8, "A", 10, 0, 20, 0, 40, 1]
        : Array.from({ length: 30 }, (_, i) => [0, "INSERT", 2, `B${k - 1}`, 10, i, 20, 0]).flat()),
      0,
      "ENDBLK",
    ]),
    0,
    "ENDSEC",
    0,
    "SECTION",
    2,
    "ENTITIES",
    ...Array.from({ length: 30 }, (_, i) => [0, "INSERT", 2, "B5", 10, i, 20, 0]).flat(),
    0,
    "ENDSEC",
    0,
    "EOF",
  ),
  "many-lines.dxf": drawing(
    Array.from({ length: 20_000 }, (_, i) => [0, "LINE", 8, "Z", 10, i, 20, i % 2, 11, i + 1, 21, (i + 1) % 2]).flat(),
  ),
  "circles.dxf": drawing(
    Array.from({ length: 510 }, (_, i) => [
      0,
      "CIRCLE",
      8,
      "C",
      10,
      5 * (i % 30),
      20,
      5 * Math.floor(i / 30),
      40,
      2,
    ]).flat(),
  ),
};

test("drawings that would freeze the page do not, as outlines or as a print", async ({ page }) => {
  await importCard(page, card("Wild drawings", "LEAVE BLOCK 60 X 40 X 20"));
  await expect(row(page, 1)).toBeVisible();
  const as = (name: string) => ({ name, mimeType: "image/vnd.dxf", buffer: Buffer.from(hostile[name]) });
  const says: Record<string, RegExp> = {
    "cut-in-its-table.dxf": /no ENTITIES/,
    "no-entities.dxf": /no ENTITIES/,
    "endless-arc.dxf": /bring in 1 outline/,
    "nested.dxf": /elements with its blocks/,
    "many-lines.dxf": /bring in 1 outline/,
    "circles.dxf": /bring in 510 outlines/,
  };
  for (const [name, said] of Object.entries(says)) {
    await page.getByLabel("Drawing with outlines").setInputFiles(as(name));
    await expect(page.getByRole("dialog").getByText(said).first()).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toHaveCount(0);
  }
  await page.getByLabel("Drawing with outlines").setInputFiles(as("circles.dxf"));
  await page.getByRole("button", { name: "bring in 510 outlines" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await saved(page);
  await page.keyboard.press("1");
  for (const name of ["cut-in-its-table.dxf", "nested.dxf", "many-lines.dxf"]) {
    await page.getByLabel("Picture of a print").setInputFiles(as(name));
    await expect(page.getByRole("button", { name })).toBeVisible();
  }
  await saved(page);
  await page.reload();
  // A key pressed before the bench stands goes nowhere.
  await step(page, "Shape");
  await expect(page.getByLabel("Callout line")).toBeVisible();
  await page.keyboard.press("1");
  await page.getByRole("button", { name: "nested.dxf" }).click();
  await expect(page.getByText(/cannot be shown: the drawing comes to/)).toBeVisible();
  await page.getByRole("button", { name: "many-lines.dxf" }).click();
  await expect(page.getByTestId("print-picture")).toBeVisible();
  await saved(page);
});

test("a slip that is tried is gone after a reload, and a signature holds only for what was signed", async ({
  page,
}) => {
  await importCard(
    page,
    card("Signed", "STOCK PLATE 70 X 50 X 30", "LEAVE BLOCK 60 X 40 X 20", "CUT ⌀10 THRU", "CHECK VOLUME 44858.41"),
  );
  await expect(row(page, 2)).toBeVisible();
  await step(page, "Proof");
  await page.getByRole("button", { name: "look for the slip" }).click();
  await page.getByRole("button", { name: "try slip 1" }).click();
  await expect(page.getByTestId("trial")).toBeVisible();
  await page.reload();
  // A reload comes back to the same place.
  await step(page, "Shape");
  await expect(row(page, 2)).toContainText("⌀10 THRU");
  await expect(page.getByTestId("trial")).toHaveCount(0);
  await saved(page);
  await step(page, "Release");
  await expect(page.getByText(/Still open: .*check value off/)).toBeVisible();
  await page.getByLabel("Who signs off").fill("Orla");
  await expect(page.getByRole("button", { name: "sign off" })).toBeDisabled();
  await page.getByLabel("Why it is signed all the same").fill("the print is being redrawn");
  await page.getByRole("button", { name: "sign off" }).click();
  await expect(page.getByText("released by Orla")).toBeVisible();
  await saved(page);
  expect((await stored(page)).job.signOff?.reason).toContain("redrawn");
  await step(page, "Shape");
  await type(page, "CUT ⌀6 THRU AT 20,0");
  await step(page, "Release");
  await expect(page.getByText("changed since release").first()).toBeVisible();
  await page.getByRole("button", { name: "make it revision B" }).click();
  await expect(page.getByText("(an earlier revision)")).toBeVisible();
});

test("the page says what the machine words will not hold, and why there are none", async ({ page }) => {
  await importCard(
    page,
    card(
      "Words",
      "STOCK PLATE 70 X 50 X 31 AT 0,0,-10",
      "LEAVE BLOCK 60 X 40 X 20",
      "CUT 2X ⌀6.6 THRU CBORE ⌀11 DEEP 6 AT -20,0 20,0",
      "CUT ⌀34 DEEP 6",
    ),
  );
  await expect(row(page, 3)).toContainText("118° point");
  await step(page, "Paths");
  const words = page.getByTestId("words-file");
  await expect(words.getByText("No RS-274 words are written")).toBeVisible();
  await expect(words).toContainText("1.00 mm of stock stand over what row 1 cuts");
  await expect(words).toContainText("row 2, its counterbore");
  await expect(words).toContainText("spindle");
  // What cannot be written is not pressed for: the button says why.
  await expect(page.getByRole("button", { name: "RS-274 words" })).toBeDisabled();
  await expect(page.getByRole("button", { name: "RS-274 words" })).toHaveAttribute("title", /no file is written/);
  await step(page, "Shape");
  await type(page, "CUT FACE");
  await step(page, "Paths");
  await expect(words.getByText("No RS-274 words are written")).toHaveCount(0);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "RS-274 words" }).click(),
  ]);
  const text = await (await file.createReadStream()).reduce((all: string, part: Buffer) => all + part.toString(), "");
  expect(text.split("\n").slice(0, 8).join("\n")).toContain("ROW 2, ITS COUNTERBORE");
});
