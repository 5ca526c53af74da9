import { expect, test, type Page } from "./test";
import { readFileSync } from "node:fs";
import { choose, importCard, newJob, row, saved, volume } from "./helpers";

const step = (page: Page, name: string) =>
  page
    .getByRole("navigation")
    .getByRole("button", { name: new RegExp(`^${name}`) })
    .click();
const blur = (page: Page) => page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());

const sheet = [
  "D90 h9",
  "12 +-.1",
  "D50 f7",
  "38 +-.1",
  "D20 H7",
  "D30 H8",
  "9 DP +.05",
  "6X D6.6",
  "D70 BSC",
  "30 DEG BSC",
  "3X M5",
  "D11",
  "6.5 DP",
  "D42 -.1",
  "D36 +.1",
  "1.8 DP +-.05",
  "D31.4 +.25",
  "1.3 +.14",
  "5.5 +-.1",
  "44 h11",
  "8 DP",
  "1 X 45 DEG",
  "D4",
  "16 +-.2",
  "D28 +-.1",
  "3 DP",
  "D4 H7",
  "35.00 +-.02",
  "R1.5 MAX",
  "(26)",
  "D5.5",
  "90 DEG +-1",
];

test("a sheet of 32 dimensions is entered by keyboard alone", async ({ page }, info) => {
  await newJob(page, "Hub by keyboard", "millimetre", "aluminium 6061");
  await blur(page);
  let strokes = 0;
  await page.keyboard.press("l");
  strokes++;
  await expect(page.getByLabel("Next balloon")).toBeFocused();
  for (const d of sheet) {
    await page.keyboard.type(d);
    await page.keyboard.press("Enter");
    strokes += d.length + 1;
  }
  await expect(page.locator("[data-balloon]")).toHaveCount(32);
  info.annotations.push({ type: "keystrokes", description: String(strokes) });
  // At two keys a second, a slow typist's pace, that is under three minutes.
  expect(strokes).toBeLessThan(340);
  await expect(page.locator('[data-balloon="3"]')).toContainText("⌀50 f7");
  await expect(page.locator('[data-balloon="30"]')).toContainText("26 REF");
  await saved(page);
});

test("a whole sheet is pasted, and what cannot be read is said", async ({ page }) => {
  await newJob(page, "Pasted sheet", "inch", "brass");
  await step(page, "Print");
  await page.getByLabel("Next balloon").focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData("text", "⌀2.185 ±.005\n#7 6X 8-32 UNC-2B\nrubbish here\n45°\n");
    document
      .getElementById("ledger-line")!
      .dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.locator("[data-balloon]")).toHaveCount(3);
  await expect(page.getByRole("alert").filter({ hasText: "3 read, 1 not" })).toContainText("line 4: rubbish here");
  await expect(page.locator('[data-balloon="8"]')).toContainText("45°");
  // Out as CSV, and into another job.
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "save CSV" }).click();
  const csv = readFileSync(await (await download).path());
  await newJob(page, "From the table", "inch", "brass");
  await step(page, "Print");
  await page.getByLabel("Ledger as CSV").setInputFiles({ name: "ledger.csv", mimeType: "text/csv", buffer: csv });
  await expect(page.locator("[data-balloon]")).toHaveCount(3);
  await page.getByLabel("Ledger as CSV").setInputFiles({ name: "ledger.csv", mimeType: "text/csv", buffer: csv });
  await expect(page.getByText(/balloon #1 is there already/).first()).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.locator("[data-balloon]")).toHaveCount(0);
});

test("a balloon takes limits, fits, classes and basic in its editor; wrong ones say so", async ({ page }) => {
  await newJob(page, "Tolerances", "millimetre", "brass");
  await step(page, "Print");
  await choose(page.getByLabel("General class"), "ISO 2768-m");
  const quick = page.getByLabel("Next balloon");
  await quick.fill("D20 H7 +-.1");
  await expect(page.getByText(/two tolerances/)).toBeVisible();
  await quick.fill("D20");
  await expect(page.getByText("diameter; ISO 2768-m table 1; Enter adds it")).toBeVisible();
  await quick.press("Enter");
  await page.locator('[data-balloon="1"]').getByRole("button").first().click();
  const balloon = page.locator('[data-balloon-editor="1"]');
  await choose(balloon.getByLabel("Tolerance"), "fit, ISO 286");
  await expect(balloon).toContainText("20 to 20.021 (H7, ISO 286-1)");
  await balloon.getByRole("textbox", { name: "Fit" }).fill("Q77");
  await expect(balloon).toContainText("as H7 or g6");
  await balloon.getByRole("textbox", { name: "Fit" }).fill("g6");
  await balloon.getByRole("textbox", { name: "Fit" }).press("Enter");
  await expect(balloon).toContainText("19.98 to 19.993 (g6, ISO 286-1)");
  await balloon.getByRole("textbox", { name: "Fit" }).fill("a19");
  await expect(balloon.getByText("as H7 or g6")).toBeVisible();
  await balloon.getByRole("textbox", { name: "Fit" }).fill("zz9");
  await balloon.getByRole("textbox", { name: "Fit" }).press("Enter");
  await expect(balloon).toContainText("ISO 286-1 gives no zz9");
  await choose(balloon.getByLabel("Tolerance"), "two limits");
  await balloon.getByLabel("Smallest", { exact: true }).fill("20.5");
  await balloon.getByLabel("Smallest", { exact: true }).press("Tab");
  await expect(balloon).toContainText("the lower limit is larger");
  await balloon.getByLabel("Largest", { exact: true }).fill("21");
  await balloon.getByLabel("Largest", { exact: true }).press("Tab");
  await expect(balloon).toContainText("20.5 to 21 (limits)");
  await balloon.getByLabel("basic").check();
  await expect(balloon).toContainText("exactly");
  // Named values beside it.
  const named = page.getByLabel("New named value");
  await named.fill("deep = 3");
  await expect(page.getByText("deep is a word of the card; take another")).toBeVisible();
  await named.fill("wall = 3");
  await named.press("Enter");
  await named.fill("gap = wall*");
  await named.press("Enter");
  await expect(page.getByText("a number is missing")).toBeVisible();
  await page.getByLabel("value", { exact: true }).last().fill("wall*2");
  await page.getByLabel("value", { exact: true }).last().press("Enter");
  await page.keyboard.press("Escape");
  await blur(page);
  await page.keyboard.press("3");
  const line = page.getByLabel("Callout line");
  await line.fill("LEAVE BLOCK #1 X gap*5 X wall");
  await line.press("Enter");
  await expect(volume(page)).toHaveText(/1\.8\d\d cm³/);
  // What was deleted leaves the focus where the next one is typed.
  await step(page, "Print");
  await quick.fill("⌀9");
  await quick.press("Enter");
  await page.locator('[data-balloon="2"]').getByRole("button").first().click();
  await page.locator('[data-balloon-editor="2"]').getByRole("button", { name: "delete" }).click();
  await expect(quick).toBeFocused();
});

test("PDF pages and DXF drawings lie on the table, turned and pinned, found from either side", async ({
  page,
  context,
}) => {
  const maker = await context.newPage();
  await maker.setContent('<h1>Sheet one</h1><div style="break-before:page"><h1>Sheet two</h1></div>');
  const pdf = await maker.pdf({ width: "11in", height: "8.5in" });
  await maker.close();
  await importCard(page, 'JOB "Two sheets"\nUNIT mm\n#1 40\n#2 ⌀8\nLEAVE BLOCK #1 X 30 X 20\nCUT ⌀#2 THRU\n');
  await expect(volume(page)).not.toHaveText(/^0\.000/);
  await step(page, "Print");
  await page
    .getByLabel("Picture of a print")
    .setInputFiles({ name: "sheets.pdf", mimeType: "application/pdf", buffer: pdf });
  await expect(page.getByText("page 1 of 2")).toBeVisible();
  await page.getByLabel("Page after").click();
  await expect(page.getByText("page 2 of 2")).toBeVisible();
  const box = (await page.getByTestId("print-picture").boundingBox())!;
  expect(box.width / box.height).toBeCloseTo(11 / 8.5, 1);
  await page.getByRole("button", { name: "turn", exact: true }).click();
  const turned = (await page.getByTestId("print-picture").boundingBox())!;
  expect(turned.width / turned.height).toBeCloseTo(8.5 / 11, 1);
  await page.getByRole("button", { name: "pin balloons" }).click();
  await page.getByTestId("print-picture").click({ position: { x: turned.width * 0.75, y: 150 } });
  await page.getByRole("button", { name: "pin balloons" }).click();
  const pin = page.locator('[data-pin="1"]');
  await expect(pin).toBeVisible();
  const at = (await pin.boundingBox())!;
  expect(Math.abs(at.x + at.width / 2 - turned.x - turned.width * 0.75)).toBeLessThan(4);
  // From the print to the ledger, and back.
  await pin.click();
  await expect(pin).toHaveAttribute("aria-pressed", "true");
  await page.locator('[data-balloon="2"]').getByRole("button").first().click();
  await expect(pin).toHaveAttribute("aria-pressed", "false");
  await page.locator('[data-balloon="1"]').getByRole("button").first().click();
  await expect(pin).toHaveAttribute("aria-pressed", "true");
  await page.getByLabel("Picture of a print").setInputFiles({
    name: "part.dxf",
    mimeType: "application/dxf",
    buffer: Buffer.from(
      "0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n40\n21\n0\n0\nCIRCLE\n8\n0\n10\n20\n20\n15\n40\n4\n0\nENDSEC\n0\nEOF\n",
    ),
  });
  await expect(page.getByRole("img", { name: "print: part.dxf" })).toBeVisible();
  // Wrong files: nothing is kept, and it is said why.
  for (const [name, text, why] of [
    ["notes.txt", "just words", /neither a PNG/],
    ["empty.pdf", "", /empty/],
  ] as const) {
    await page
      .getByLabel("Picture of a print")
      .setInputFiles({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
    await expect(page.getByText(why).first()).toBeVisible();
  }
  await page
    .getByLabel("Picture of a print")
    .setInputFiles({ name: "torn.pdf", mimeType: "application/pdf", buffer: Buffer.from("%PDF-1.7\nnothing more") });
  await expect(page.getByText("this PDF cannot be read; it may be damaged")).toBeVisible();
  await saved(page);
  await page.reload();
  await step(page, "Print");
  await expect(page.getByRole("button", { name: "sheets.pdf" })).toBeVisible();
});

const dial =
  'JOB "Dial blank"\nUNIT mm\nMATERIAL "steel 1018"\n#1 ⌀60 ±.1\n#2 12 ±.1\n#3 6X ⌀8\n#4 99\nLEAVE ROUND ⌀#1 X #2\nCUT 5X ⌀#3 THRU ON BC 42\nCHECK MASS 238.5 g\n';

test("the finder names the slip; it is tried, put back, tried again and kept", async ({ page }) => {
  await importCard(page, dial);
  await expect(volume(page)).not.toHaveText(/^0\.000/);
  await step(page, "Proof");
  await expect(page.locator('[data-check="mass"]')).toHaveAttribute("data-agrees", "false");
  await page.getByRole("button", { name: "look for the slip" }).click();
  const first = page.locator('[data-mismatch="mass"] [data-rank="1"]');
  await expect(first).toContainText("one instance missing: row 2 count, 5 for 6");
  await first.getByRole("button", { name: "try slip 1" }).click();
  await expect(page.locator('[data-check="mass"]')).toHaveAttribute("data-agrees", "true");
  await page.getByRole("button", { name: "put it back" }).click();
  await expect(page.locator('[data-check="mass"]')).toHaveAttribute("data-agrees", "false");
  await page.locator('[data-mismatch="mass"] [data-rank="1"]').getByRole("button").click();
  await page.getByRole("button", { name: "keep it" }).click();
  await expect(page.locator('[data-check="mass"]')).toHaveAttribute("data-agrees", "true");
  await step(page, "Shape");
  await expect(row(page, 2)).toHaveAttribute("aria-label", /6X ⌀#3 THRU/);
  await page.keyboard.press("Control+z");
  await expect(row(page, 2)).toHaveAttribute("aria-label", /5X ⌀#3 THRU/);
});

test("a balloon is measured where it is picked; a recorded proof goes stale and is recorded again", async ({
  page,
}) => {
  await importCard(page, dial.replace("5X", "6X"));
  await expect(volume(page)).not.toHaveText(/^0\.000/);
  await step(page, "Proof");
  await expect(page.getByTestId("complete")).toHaveText(
    "3 of 4 balloons proved, 1 unused, 0 off; 1 number in the model has no source",
  );
  await page.getByRole("button", { name: "Top", exact: true }).click();
  await page.waitForTimeout(800);
  await page.locator('[data-balloon="4"]').getByRole("button").first().click();
  await page.getByRole("button", { name: "measure it on the stage" }).click();
  await expect(page.getByText(/pick the face it is measured on/)).toBeVisible();
  const stage = (await page.getByTestId("stage").boundingBox())!;
  await page.mouse.click(stage.x + stage.width / 2, stage.y + stage.height / 2);
  await page.getByRole("button", { name: "measure this face alone" }).click();
  await expect(page.locator('[data-balloon="4"]')).toContainText("one flat has no size of its own");
  await page.getByRole("button", { name: "find it by itself" }).click();
  await page.getByRole("button", { name: "record the proof" }).click();
  await expect(page.getByText(/3 on record as they are now/)).toBeVisible();
  await step(page, "Shape");
  await row(page, 1).getByRole("button").first().click();
  await page.getByLabel("Height").fill("#2+.05");
  await page.getByLabel("Height").press("Enter");
  await step(page, "Proof");
  await expect(page.locator('[data-balloon="1"] [data-state="stale"]')).toBeVisible();
  await saved(page);
  await page.reload();
  await step(page, "Proof");
  await expect(page.locator('[data-balloon="1"] [data-state="stale"]')).toBeVisible();
  await page.getByRole("button", { name: "record the proof" }).click();
  await expect(page.locator('[data-balloon="1"] [data-state="proved"]')).toBeVisible();
});

test("a balloon says what it claims of the solid, each with its faces; what is wrong with one is said while it is closed", async ({
  page,
}) => {
  await importCard(
    page,
    'JOB "Claims"\nUNIT mm\n#1 4X ⌀5\n#2 2 X 45°\n#3 50 "OVERALL"\n#4 #9+1\nLEAVE BLOCK #3 X 40 X 20\nCUT 3X ⌀#1 THRU AT -15,0 0,0 15,0\nCUT CHAMFER #2 X 30° OUTER TOP\n',
  );
  await expect(volume(page)).not.toHaveText(/^0\.000/);
  await step(page, "Proof");
  const balloon = (n: number) => page.locator(`[data-balloon="${n}"]`);
  await expect(balloon(4)).toContainText("there is no balloon #9");
  await balloon(1).getByRole("button").first().click();
  const count = balloon(1).getByRole("button", { name: /4 of them: false/ });
  await expect(count).toContainText("3 round walls on the solid, 4 on the print");
  await expect(balloon(1).getByRole("button", { name: /its value in row 2: true/ })).toBeVisible();
  await count.press("Enter");
  await expect(count).toHaveAttribute("aria-pressed", "true");
  await balloon(2).getByRole("button").first().click();
  await expect(balloon(2).locator('[data-state="off"]')).toBeVisible();
  await expect(balloon(2).getByRole("button", { name: /45° across its edge: false/ })).toContainText("lean at 30.0°");
  await balloon(3).getByRole("button").first().click();
  await expect(balloon(3).getByRole("button", { name: /over all: true/ })).toBeVisible();
  await expect(balloon(3).locator('[data-state="proved"]')).toBeVisible();
});

test("a size is looked up in the tables and used in a field; a clearance hole says its class before Enter", async ({
  page,
}) => {
  await importCard(page, 'JOB "Looked up"\nUNIT mm\nLEAVE BLOCK 80 X 50 X 20\nCUT ⌀8 THRU\n');
  await expect(volume(page)).not.toHaveText(/^0\.000/);
  await page.getByRole("button", { name: "reckon" }).click();
  const drawer = page.getByRole("complementary", { name: "Reckoner" });
  await choose(drawer.getByLabel("What to reckon"), "Tables");
  await drawer.getByRole("button", { name: /^Retaining rings for shafts: / }).click();
  await expect(drawer).toContainText("DIN 471 20");
  const asked = drawer.getByLabel("Look up in the tables");
  await asked.fill("DIN 471 19.5");
  await expect(drawer).toContainText("no table has DIN 471 19.5; nearest:");
  await drawer.getByRole("button", { name: "DIN 471 20", exact: true }).click();
  await expect(drawer.getByRole("listitem").filter({ hasText: "groove diameter min" })).toContainText("18.870");
  await asked.fill("M6 clearance");
  await expect(drawer).toContainText("ISO 273: from memory");
  await row(page, 2).getByRole("button").first().click();
  await page.getByLabel("Diameter").first().focus();
  await drawer.getByRole("button", { name: "use hole" }).click();
  await expect(row(page, 2)).toHaveAttribute("aria-label", /⌀6\.6\{M6 clearance medium, ISO 273: hole\}/);
  await drawer.getByRole("button", { name: "Close the reckoner" }).click();
  const line = page.getByLabel("Callout line");
  await line.fill("4X M6 CLEARANCE THRU GRID 2 2 BY 60 30");
  await expect(page.getByText(/⌀6\.6\{M6 clearance medium, ISO 273\}/).first()).toBeVisible();
  await line.press("Enter");
  await expect(row(page, 3)).toHaveAttribute("aria-label", /⌀6\.6\{M6 clearance medium, ISO 273\} THRU/);
});

test("the reckoner puts its results into fields, balloons and all; fields complete balloons", async ({ page }) => {
  await importCard(
    page,
    'JOB "Reckoned"\nUNIT mm\n#1 ⌀60\n#2 12\n#3 R3\n#4 ⌀42\nLEAVE ROUND ⌀#1 X #2\nCUT ⌀6 THRU AT 21,0\n',
  );
  await expect(volume(page)).not.toHaveText(/^0\.000/);
  await row(page, 2).getByRole("button").first().click();
  const x = page.getByLabel("x 1", { exact: true });
  await x.fill("1#");
  await expect(page.getByRole("listbox")).toContainText("⌀42");
  await x.fill("#");
  await x.press("ArrowDown");
  await x.press("Enter");
  await expect(x).toHaveValue("#2");
  await x.press("Escape");
  await expect(x).toHaveValue("21");
  await x.fill("1//2");
  await expect(page.getByText(/is no number/).first()).toBeVisible();
  await x.press("Escape");
  await x.focus();
  await page.getByRole("button", { name: "reckon" }).click();
  const drawer = page.getByRole("complementary", { name: "Reckoner" });
  await drawer.getByLabel("Circle ⌀").fill("#4");
  await drawer.getByLabel("Circle ⌀").press("Tab");
  await drawer.getByLabel("First hole at").fill("30");
  await drawer.getByLabel("First hole at").press("Enter");
  await expect(drawer.getByRole("listitem").nth(1)).toContainText("18.187");
  await drawer
    .getByRole("listitem")
    .nth(1)
    .dragTo(page.getByLabel("x 1", { exact: true }));
  await expect(row(page, 2)).toHaveAttribute("aria-label", /#4\/2\*cos\(30\)/);
  await page.getByLabel("y 1", { exact: true }).focus();
  await drawer.getByLabel("use hole 1 y").click();
  await expect(row(page, 2)).toHaveAttribute("aria-label", /#4\/2\*sin\(30\)/);
  await choose(drawer.getByLabel("What to reckon"), "Tap drill");
  await drawer.getByRole("textbox", { name: "Thread" }).fill("wood");
  await expect(drawer).toContainText("wood is no thread");
  await drawer.getByRole("textbox", { name: "Thread" }).fill("M6");
  await page.getByLabel("Diameter").first().focus();
  await drawer.getByRole("button", { name: /use tap drill/ }).click();
  await expect(row(page, 2)).toHaveAttribute("aria-label", /⌀5\{tap drill of M6\}/);
  await page.keyboard.press("Escape");
});
