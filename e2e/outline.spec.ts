import { expect, test } from "./test";
import { readFileSync } from "node:fs";
import { choose, newJob, row, saved, type, volume } from "./helpers";

test("an outline is walked by keyboard, said what is free, tied down, and carried up", async ({ page }) => {
  await newJob(page, "Walked plate", "millimetre", "aluminium 6061");
  await page.getByRole("button", { name: "+ outline" }).click();
  const name = page.getByLabel("Name of the outline");
  await name.fill("plate");
  await name.press("Enter");
  const line = page.getByLabel("Next line of the outline");
  const state = page.getByTestId("outline-state");
  for (const l of [
    "START 0,0",
    "LINE TO X 100",
    "LINE TO Y 60",
    "LINE TO X 70",
    "LINE TO Y 30",
    "ARC TO X 40 CW TANGENT",
    "LINE TANGENT TO Y 60",
    "LINE TO X 0",
    "CLOSE",
  ]) {
    await line.fill(l);
    await line.press("Enter");
    await expect(line).toHaveValue("");
  }
  await expect(state).toContainText("1 free, in pencil: the end of step 5 (P5) is free along Y");
  // Wrong lines say where they are wrong, and stay as they were typed.
  await line.fill("ARC TO 3 R 4");
  await expect(page.getByText(/at character 10: .*expected: a comma and y/)).toBeVisible();
  await line.fill("PARALLEL 1 99");
  await line.press("Enter");
  await expect(page.getByText("there is no step 99")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await line.fill("LENGTH 1 104");
  await line.press("Enter");
  await expect(state).toContainText("cannot hold together");
  await page.getByLabel("drop line LENGTH 1 104").click();
  await expect(state).toContainText("1 free");
  await page.getByRole("button", { name: "tie down what is left" }).click();
  await expect(state).toContainText("fully located, in ink");
  await page.keyboard.press("Control+z");
  await line.fill("VERTICAL 6");
  await line.press("Enter");
  await expect(state).toContainText("fully located, in ink");
  await expect(page.getByRole("region", { name: "Outline" }).getByText("4746.57 mm²")).toBeVisible();
  await line.fill("ROUND 40 AT P1 P2");
  await line.press("Enter");
  await expect(page.getByText(/the largest that does is 30 mm/)).toBeVisible();
  await page.getByRole("textbox", { name: "line ROUND 40 AT P1 P2" }).fill("ROUND 8 AT P1 P2");
  await page.getByRole("textbox", { name: "line ROUND 40 AT P1 P2" }).press("Enter");
  await expect(page.getByRole("region", { name: "Outline" }).getByText("4719.10 mm²")).toBeVisible();
  await page.getByRole("button", { name: "corners off" }).click();
  await expect(page.getByRole("region", { name: "Outline" }).getByText("4746.57 mm²")).toBeVisible();
  await page.getByRole("button", { name: "corners on" }).click();
  const dxf = page.waitForEvent("download");
  await page.getByRole("button", { name: "save DXF" }).click();
  const file = readFileSync(await (await dxf).path());
  await page.getByRole("button", { name: "back to the route card" }).click();
  await type(page, 'LEAVE PRISM "plate" X 10', 'POCKET "plate" DEEP 2 AT 200,0');
  await expect(volume(page)).toHaveText("47.191 cm³");
  // Used outlines cannot go; a new name is taken over in the rows.
  await page.getByRole("button", { name: "plate", exact: true }).click();
  await page.getByRole("button", { name: "delete", exact: true }).click();
  await expect(page.getByText('"plate" is used by row 1, row 2')).toBeVisible();
  await name.fill("base");
  await name.press("Enter");
  await page.getByRole("button", { name: "back to the route card" }).click();
  await expect(row(page, 1)).toContainText('PRISM "base" X 10');
  // The DXF comes back as an outline; what is none is said.
  await page
    .getByLabel("Drawing with outlines")
    .setInputFiles({ name: "plate.dxf", mimeType: "application/dxf", buffer: file });
  await expect(page.getByRole("dialog")).toContainText("1 closed, 0 open");
  await page.getByRole("button", { name: "bring in 1 outline" }).click();
  await expect(page.getByLabel("Name of the outline")).toHaveValue("plate");
  await expect(page.getByRole("region", { name: "Outline" }).getByText("4719.10 mm²")).toBeVisible();
  await page.getByRole("button", { name: "back to the route card" }).click();
  await page
    .getByLabel("Drawing with outlines")
    .setInputFiles({ name: "bad.dxf", mimeType: "application/dxf", buffer: Buffer.from("nothing") });
  await expect(page.getByRole("dialog")).toContainText("the file is no DXF that can be read");
  await expect(page.getByRole("button", { name: "bring in 0 outlines" })).toBeDisabled();
  await page.getByRole("button", { name: "Cancel" }).click();
  await saved(page);
  await page.reload();
  await expect(row(page, 1)).toContainText('PRISM "base" X 10');
  await expect(volume(page)).toHaveText("47.191 cm³");
});

test("places are picked on the stage, snapped to what is there", async ({ page }) => {
  await newJob(page, "Picked outline", "millimetre", "");
  await page.getByRole("button", { name: "+ outline" }).click();
  const line = page.getByLabel("Next line of the outline");
  await line.fill("RECTANGLE 40 X 20");
  await line.press("Enter");
  await page.waitForTimeout(900);
  const stage = (await page.getByTestId("stage").boundingBox())!;
  // The middle of the stage is the middle of the rectangle: zero.
  await page.mouse.click(stage.x + stage.width / 2 + 3, stage.y + stage.height / 2 - 2);
  await expect(line).toHaveValue("LINE TO 0,0");
  await line.fill("CIRCLE ⌀6 AT");
  await page.mouse.click(stage.x + stage.width / 2 + 3, stage.y + stage.height / 2 - 2);
  await expect(line).toHaveValue("CIRCLE ⌀6 AT 0,0");
  await line.press("Enter");
  await expect(page.getByRole("region", { name: "Outline" }).getByText("771.73 mm²")).toBeVisible();
  // The readout has the outline's own figures, and the plane under the pointer.
  await expect(page.getByTestId("readout-last")).toHaveText(/^771\.73/);
  await expect(page.getByTestId("perimeter")).toHaveText(/^138\.850/);
  await page.mouse.move(stage.x + stage.width / 2, stage.y + stage.height / 2);
  await expect(page.getByLabel("Readout").getByRole("button").first()).toContainText(/-?[01]\.\d{3}/);
});

test("a drawing with gaps is brought in by its layers, mended, and cut; text and the part’s own faces become outlines", async ({
  page,
}) => {
  await newJob(page, "Brought in", "millimetre", "brass");
  await type(page, "LEAVE BLOCK 60 X 40 X 10 R4");
  const line = (l: string, ...n: (number | string)[]) => [
    "0",
    "LINE",
    "8",
    l,
    "10",
    n[0],
    "20",
    n[1],
    "11",
    n[2],
    "21",
    n[3],
  ];
  const dxf = [
    "0",
    "SECTION",
    "2",
    "ENTITIES",
    ...line("PLATE", -20, -10, 20, -10),
    ...line("PLATE", 20.03, -10, 20, 10),
    ...line("PLATE", 20, 10, -20, 10),
    ...line("PLATE", -20, 10, -20, -10),
    ...line("NOTES", 0, 50, "x1", 50),
    "0",
    "CIRCLE",
    "8",
    "HOLES",
    "10",
    0,
    "20",
    0,
    "40",
    3,
    "0",
    "ENDSEC",
    "0",
    "EOF",
  ].join("\n");
  await page
    .getByLabel("Drawing with outlines")
    .setInputFiles({ name: "gap.dxf", mimeType: "application/dxf", buffer: Buffer.from(dxf) });
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("1 closed, 1 open");
  await expect(dialog).toContainText('"x1" is no number (code 11); this LINE is left out');
  await dialog.getByLabel("HOLES").uncheck();
  await dialog.getByLabel("Close gaps up to").fill("a lot");
  await expect(page.getByRole("button", { name: /bring in/ })).toBeDisabled();
  const unit = async (name: string) => {
    await dialog.getByRole("combobox", { name: "Unit of the drawing" }).click();
    await page.locator(".ant-select-item-option").filter({ hasText: name }).click();
  };
  await unit("inches");
  await expect(dialog).toContainText("0.762");
  await unit("millimetres");
  await dialog.getByLabel("Close gaps up to").fill(".05");
  await expect(dialog).toContainText("closes 1");
  await page.getByRole("button", { name: "bring in 1 outline" }).click();
  await expect(page.getByLabel("Name of the outline")).toHaveValue("plate");
  await expect(page.getByRole("region", { name: "Outline" }).getByText("800.30 mm²")).toBeVisible();
  // What lies doubled is said and mended on request.
  const entry = page.getByLabel("Next line of the outline");
  await entry.fill("CIRCLE ⌀10 AT 20,0");
  await entry.press("Enter");
  await expect(page.getByRole("list", { name: "What is wrong" })).toContainText("crosses or touches itself at 20");
  await page.getByRole("button", { name: "mend", exact: true }).click();
  await expect(page.getByRole("list", { name: "What is wrong" })).toHaveCount(0);
  await page.getByRole("button", { name: "back to the route card" }).click();
  await page.getByRole("button", { name: "+ outline" }).click();
  // An example is a start: the part's own top, five millimetres inside.
  await choose(page.getByLabel("Lines to start from"), "FACE TOP AFTER 1");
  await entry.press("Enter");
  await entry.fill("OFFSET -5");
  await entry.press("Enter");
  await expect(page.getByRole("region", { name: "Outline" }).getByText("1500.00 mm²")).toBeVisible();
  await entry.fill("FACE TOP AFTER 9");
  await entry.press("Enter");
  await expect(page.getByText(/row 9 is no row before|the part is not there yet/)).toBeVisible();
  await page.getByLabel("drop line FACE TOP AFTER 0").or(page.getByLabel("drop line FACE TOP AFTER 9")).click();
  await page.getByRole("button", { name: "back to the route card" }).click();
  await type(page, 'CUT POCKET "outline" DEEP 4');
  await expect(row(page, 2)).toContainText('POCKET "outline"');
  await expect(volume(page)).toHaveText(/^17\.8\d+ cm³$/);
  // The part grows: its outline, and the pocket, follow.
  await row(page, 1).getByRole("button").first().click();
  await row(page, 1).getByLabel("Length").first().fill("70");
  await row(page, 1).getByLabel("Length").first().press("Enter");
  await expect(volume(page)).toHaveText(/^20\.6\d+ cm³$/);
  await saved(page);
  await page.reload();
  await expect(volume(page)).toHaveText(/^20\.6\d+ cm³$/);
});
